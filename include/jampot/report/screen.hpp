#pragma once
// A screening of solvents told.
#include "jampot/report/answer.hpp"
#include "jampot/study/screen.hpp"

namespace jampot {

/// How a screening is shown.
struct ScreenAnswerOptions : AnswerOptions {
  int shown = 15;  ///< candidates on the screen; CSV, workbook and JSON hold all
};

/// A row for each candidate, the parts of its score, what is left out, and the figure of selectivity against
/// capacity.
Answer answer(const ScreenStudy& study, const ScreenAnswerOptions& options = {});

}  // namespace jampot
