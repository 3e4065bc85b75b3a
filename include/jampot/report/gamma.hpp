#pragma once
// Activity coefficients told.
#include "jampot/report/answer.hpp"
#include "jampot/study/gamma.hpp"

namespace jampot {

/// Activity coefficients with excess functions, or limits, and deviations from measured ones.
/// @throws RequestError where a figure is wanted of single compositions
Answer answer(const GammaStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
