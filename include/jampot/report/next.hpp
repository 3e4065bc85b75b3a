#pragma once
// A plan of measurements told.
#include "jampot/report/answer.hpp"
#include "jampot/study/next.hpp"

namespace jampot {

/// The best of each kind of measurement, the batch where one is planned, and a figure of what each
/// composition would tell.
Answer answer(const NextStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
