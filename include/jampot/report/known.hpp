#pragma once
// Facts told, with what each model says beside them.
#include "jampot/report/answer.hpp"
#include "jampot/study/known.hpp"

namespace jampot {

/// How the facts are shown.
struct KnownAnswerOptions : AnswerOptions {
  bool ranked = false;  ///< the table of models, the best first, instead of that of the facts
};

/// A row for each fact with a column for each model, and the ranking as a sentence.
Answer answer(const KnownStudy& study, const KnownAnswerOptions& options = {});

}  // namespace jampot
