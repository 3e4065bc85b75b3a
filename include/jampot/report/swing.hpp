#pragma once
// Two columns at two pressures told.
#include "jampot/report/answer.hpp"
#include "jampot/study/swing.hpp"

namespace jampot {

/// Azeotropes, balances of both columns, recycle and heat, drawn on T-x-y of both pressures.
Answer answer(const SwingStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
