#pragma once
// User-defined components told.
#include "jampot/report/answer.hpp"
#include "jampot/study/define.hpp"

namespace jampot {

/// Groups, constants with their methods and typical errors, the comparison. The figure is drawn where it is
/// wanted.
Answer answer(const DefineStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
