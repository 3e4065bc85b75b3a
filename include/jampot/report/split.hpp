#pragma once
// Parted feeds told.
#include "jampot/report/answer.hpp"
#include "jampot/study/split.hpp"

namespace jampot {

/// Liquids, their compositions by mole and by mass, where each substance goes, and the heat.
Answer answer(const SplitStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
