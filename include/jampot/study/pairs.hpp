#pragma once
// The look before the calculation: which pair parameters would be used, what is missing, what predicts.
#include <optional>
#include <string>
#include <vector>

#include "jampot/known/facts.hpp"
#include "jampot/regression/estimate.hpp"

namespace jampot {

/// What is looked for.
struct PairsRequest {
  std::vector<Substance> substances{};   ///< in the order of the components
  std::vector<std::string> models{};     ///< with pair parameters; none: all
  ParameterCollection given{};           ///< the user's, preferred to published ones
  std::optional<double> T_K{};           ///< at which they are to hold
  std::string estimate_from = "unifac";  ///< model that estimates are made from
};

/// What is known of one pair for one model.
struct KnownPair {
  std::size_t first = 0,  ///< number of the first component
      second = 0;         ///< number of the second component
  std::string model{};    ///< name of the activity coefficient model
  /// Given, published and fitted to handbook facts; the one that would be used first.
  std::vector<PairParameters> known{};
  std::optional<Estimate> estimate{};  ///< of one that is missing
  std::string no_estimate{};           ///< why there is none
};

/// Whether a prediction is possible.
struct PossiblePrediction {
  std::string model{};    ///< its name
  bool possible = false;  ///< false where data are missing
  std::string text{};     ///< what it rests on, or what is missing
};

/// Pair by pair, and the predictions.
struct PairsStudy {
  std::vector<Substance> substances{};            ///< in the order of the components
  std::vector<KnownPair> pairs{};                 ///< what is known of each
  std::vector<PossiblePrediction> predictions{};  ///< models that need no pairs
  std::vector<const Fact*> facts{};               ///< what handbooks say of these substances
  Notices notices{};                              ///< what the reader must know

  /// The sets that would be used.
  std::vector<PairParameters> used() const;
};

/// @throws RequestError for fewer than two substances, or a model without pair parameters
PairsStudy study(const PairsRequest& request);

}  // namespace jampot
