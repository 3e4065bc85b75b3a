#pragma once
// A fit of some of the data that begins where the fit of all of them ended.
#include "jampot/regression/fit.hpp"

namespace jampot {

/// Parameters, objective and residuals alone, without search, uncertainties or notices.
/// @param whole  the fit of all data, with the same options
/// @throws as `fit`; CalculationError where there is no minimum near it
Fit fit_near(const std::vector<DataSet>& sets, const FitOptions& options, const Fit& whole);

}  // namespace jampot
