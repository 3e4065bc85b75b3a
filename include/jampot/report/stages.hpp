#pragma once
// A column told.
#include "jampot/report/answer.hpp"
#include "jampot/study/stages.hpp"

namespace jampot {

/// Least reflux and stages, balances, a row for each stage, and the construction on x-y.
Answer answer(const StagesStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
