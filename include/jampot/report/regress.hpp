#pragma once
// Fits told.
#include "jampot/draw/fit_figures.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/consistency.hpp"
#include "jampot/study/regress.hpp"

namespace jampot {

/// Which picture of the best fit is drawn.
struct RegressAnswerOptions : AnswerOptions {
  FitPicture picture = FitPicture::composition;  ///< which picture
};

/// Parameters, statistics, azeotropes, residuals of the best fit, and the ranking. The figure is the picture
/// asked for.
/// @throws RequestError where a figure is wanted and there are none
Answer answer(const RegressStudy& study, const RegressAnswerOptions& options = {});

/// A page for the appendix of a design file: data, model, parameters, deviations, residuals, consistency, the
/// curve through the points, other models, notices.
Report fit_report(const RegressStudy& study, const DisplayUnits& units);
/// The same with tests of the data that have been made.
Report fit_report(const RegressStudy& study, const DisplayUnits& units,
                  const std::vector<SetVerdict>& consistency);

}  // namespace jampot
