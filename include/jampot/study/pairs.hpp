#pragma once
// The look before the calculation: which pair parameters would be used, what is missing, what predicts.
#include <optional>
#include <string>
#include <vector>

#include "jampot/regression/estimate.hpp"

namespace jampot {

/// What is looked for.
struct PairsRequest {
  std::vector<Substance> substances{};
  std::vector<std::string> models{};  ///< with pair parameters; none: all
  ParameterCollection given{};        ///< those of one's own, preferred to published ones
  std::optional<double> T_K{};        ///< at which they are to hold
  std::string estimate_from = "unifac";
};

/// What is known of one pair for one model.
struct KnownPair {
  std::size_t first = 0, second = 0;
  std::string model{};
  std::vector<PairParameters> known{};  ///< the one that would be used first
  std::optional<Estimate> estimate{};   ///< of one that is missing
  std::string no_estimate{};            ///< why there is none
};

/// Whether a prediction is possible.
struct PossiblePrediction {
  std::string model{};
  bool possible = false;
  std::string text{};  ///< what it rests on, or what is missing
};

/// Pair by pair, and the predictions.
struct PairsStudy {
  std::vector<Substance> substances{};
  std::vector<KnownPair> pairs{};
  std::vector<PossiblePrediction> predictions{};
  Notices notices{};

  /// The sets that would be used.
  std::vector<PairParameters> used() const;
};

/// @throws RequestError for fewer than two substances, or a model without pair parameters
PairsStudy study(const PairsRequest& request);

}  // namespace jampot
