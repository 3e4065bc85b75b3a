#pragma once
// Measured data told: what files hold, and what the data are worth.
#include "jampot/report/answer.hpp"
#include "jampot/study/consistency.hpp"

namespace jampot {

/// Kind, ranges and source of each set; the JSON has every point with its uncertainties.
Answer answer(const std::vector<DataSet>& sets, const AnswerOptions& options = {});

/// The tests of each set with their verdicts, and its points; the figure is of the first.
Answer answer(const ConsistencyStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
