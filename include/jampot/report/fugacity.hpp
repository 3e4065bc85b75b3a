#pragma once
// Fugacity coefficients told.
#include "jampot/report/answer.hpp"
#include "jampot/study/fugacity.hpp"

namespace jampot {

/// Roots by each equation, and the stable ones side by side.
Answer answer(const FugacityStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
