#pragma once
#include "jampot/regression/fit.hpp"

namespace jampot {

/// Everything about a fit that its user must not overlook: misfit, doubtful uncertainties, correlation,
/// bounds, other minima, splits the data do not show, pure points off the vapour pressure.
void add_fit_notices(Fit& fit, const std::vector<DataSet>& sets);

}  // namespace jampot
