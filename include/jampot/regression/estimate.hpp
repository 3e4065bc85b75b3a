#pragma once
// Pair parameters where nothing was measured: fitted to what UNIFAC or MOSCED predicts, and marked as such.
#include <array>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// What pair parameters are fitted to in place of measurements.
struct EstimateOptions {
  std::string model = "nrtl";  ///< name of the activity coefficient model
  /// "unifac", "unifac-lle", "unifac-dortmund" (activity coefficients over the whole composition) or "mosced"
  /// (limiting ones).
  std::string from = "unifac";
  std::array<double, 2> T_range_K{298.15, 373.15};          ///< lowest and highest temperature, K
  std::vector<Coefficient> form{Coefficient::inverse_T};    ///< coefficients that are adjusted
  double alpha = 0.3;                                       ///< NRTL
  DoubtfulGroups doubtful_groups = DoubtfulGroups::refuse;  ///< of the table that the estimate is made from
  /// Pairs that stand beside the estimate in a mixture: UNIQUAC sizes of a substance that one of them states
  /// are those of the estimate.
  std::vector<PairParameters> beside;
};

/// Pair parameters fitted to a prediction.
struct Estimate {
  PairParameters pair;      ///< the parameters
  double rms_ln_gamma = 0;  ///< over the states it was fitted to
  int states = 0;           ///< number of states fitted to
  /// ln of the limiting activity coefficients at the middle of the range: first in second, second in first.
  std::array<double, 2> predicted_limits{},  ///< limiting activity coefficients predicted
      fitted_limits{};                       ///< the same from the parameters
  Notices notices;                           ///< what the reader must know
};

/// Where the prediction parts the liquid and the model can: fitted to equal activities at the predicted
/// solubilities and, loosely, to both limits at six temperatures, with A + B/T and (NRTL) the alpha of 0.2 to
/// 0.45 that does best, unless the options ask for another form or alpha; `rms_ln_gamma` is then that of the
/// logarithms of the solubilities. Else least squares in ln gamma over 11 compositions (MOSCED: the two
/// limits) and 5 temperatures of the range.
/// @throws RequestError for a model without pair parameters or an unknown prediction
/// @throws CalculationError where the prediction lacks groups, interactions or parameters, naming them
Estimate estimate_pair(const Substance& first, const Substance& second, const EstimateOptions& options = {});

/// The parameters with which the model has exactly these limiting activity coefficients at T_K (ln gamma of
/// the first in the second, of the second in the first). T-dependence: inverse_T.
/// @throws CalculationError where the model has no such parameters
PairParameters pair_from_limits(const Substance& first, const Substance& second, const std::string& model,
                                std::array<double, 2> ln_gamma_inf, double T_K, double alpha = 0.3);

}  // namespace jampot
