#pragma once
// Several models fitted to the same data and ranked.
#include <optional>

#include "jampot/regression/fit.hpp"

namespace jampot {

/// A fit with its place among others.
struct RankedFit {
  Fit fit;  ///< the fit
  /// AICc above that of the best, the misfit divided by `overdispersion`.
  double aicc_above_best = 0;
  double weight = 1;  ///< Akaike's, of all ranked: they sum to one
  /// Chi-square over its degrees of freedom of the fit that describes the data best, where that exceeds 1: no
  /// model describes the data within their stated uncertainties, so differences between them count less.
  /// Source: K. P. Burnham, D. R. Anderson, Model Selection and Multimodel Inference, 2nd ed., Springer 2002,
  /// section 2.5.
  double overdispersion = 1;
  /// Root mean square of the standardised deviations of points that were left out of the fit in turn: what
  /// the model says of points it has not seen. About 1 where it describes the data. Nothing where too few
  /// points allow it.
  std::optional<double> cross_validation{};
  /// The same of whole data sets left out in turn: what the model says of the work of another laboratory.
  /// Nothing of one set, or where the others do not determine the parameters.
  std::optional<double> cross_validation_sets{};
  std::string verdict{};  ///< one sentence
};

/// Fits each model and ranks by AICc. A model that cannot be fitted is left out; a notice of the best fit
/// says why. @throws CalculationError where none can be fitted Models are fitted side by side on the cores
/// there are.
/// @param folds of the cross validation; every point by itself where there are no more points than that
std::vector<RankedFit> rank_models(const std::vector<DataSet>& sets, const FitOptions& options,
                                   const std::vector<std::string>& models, int folds = 5);

}  // namespace jampot
