#pragma once
// Fits told.
#include "jampot/draw/report.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/regress.hpp"

namespace jampot {

/// Parameters, statistics, azeotropes, residuals of the best fit, and the ranking. The figure shows residuals
/// of boiling points.
/// @throws RequestError where a figure is wanted and there are none
Answer answer(const RegressStudy& study, const AnswerOptions& options = {});

/// A page for the appendix of a design file: data, model, parameters, deviations, residuals, consistency, the
/// curve through the points, other models, notices.
Report fit_report(const RegressStudy& study, const DisplayUnits& units);

}  // namespace jampot
