#pragma once
// A feed parted into its liquids.
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/decanter.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a decanter is asked for: at temperatures, or with a duty.
struct SplitRequest {
  MixtureSpec mixture{};  ///< without model and parameters UNIFAC's table for liquids predicts the split
  std::vector<MixtureSpec> compare{};    ///< further models, answered side by side
  Feed feed{};                           ///< what comes in
  std::vector<double> T_K{};             ///< of the liquids, at most 2000
  std::optional<double> duty{};          ///< instead: J, or W where the feed flows; negative: cooled
  double P_Pa = standard_atmosphere;     ///< to see whether a vapour would form
  std::optional<double> feed_T_K{};      ///< for the duty
  std::optional<std::size_t> rich_in{};  ///< the liquid richest in this substance comes first
  bool working = false;                  ///< write out the activity coefficients of the first liquid
};

/// One decanter by one model.
struct SplitCase {
  std::size_t contender = 0;  ///< number of the model that answers
  Decanted result{};          ///< phases and balance
};

/// For each model one case at each temperature.
struct SplitStudy {
  std::vector<Contender> contenders{};  ///< the models that answer, the first one asked for
  Feed feed{};                          ///< what comes in
  double P_Pa = standard_atmosphere;    ///< pressure, Pa
  std::vector<SplitCase> cases{};       ///< one for each model
  std::vector<std::string> working{};   ///< how the numbers came about, line by line
  Notices notices{};                    ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError unless there are temperatures or a duty, of a feed with amounts at a temperature;
///         CalculationError for a model that cannot describe two liquids
SplitStudy study(const SplitRequest& request);

}  // namespace jampot
