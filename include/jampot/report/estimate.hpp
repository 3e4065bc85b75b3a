#pragma once
// Estimated parameters told.
#include "jampot/report/answer.hpp"
#include "jampot/study/estimate.hpp"

namespace jampot {

/// Parameters of every pair, and how well the model follows what it was fitted to.
Answer answer(const EstimateStudy& study, const AnswerOptions& options = {});

/// Parameters with standard errors, and the limits beside the model.
Answer answer(const MoscedStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
