#pragma once
// A fit as a page for the appendix of a design file.
#include "jampot/draw/report.hpp"
#include "jampot/regression/ranking.hpp"

namespace jampot::tool {

/// Data, model, parameters, deviations, residuals against x and T, parity of y, consistency, the curve
/// through the points, other models, notices.
Report fit_report(const std::vector<RankedFit>& ranked, const std::vector<DataSet>& sets,
                  const DisplayUnits& units);

}  // namespace jampot::tool
