#pragma once
// Flashes told.
#include "jampot/report/answer.hpp"
#include "jampot/study/flash.hpp"

namespace jampot {

/// States, phases, amounts, balances; a bar for each phase, or curves over a range.
Answer answer(const FlashStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
