#pragma once
// What each point, and each set, means to a fit.
#include "fit_task.hpp"

namespace jampot {

/// Leverage, Cook's distance and the part of the objective of every point of the result, at the solution.
void fill_influence(Fit& result, const FitTask& task, FitProblem& problem, const Descent& best);
/// Chi-square of each of several sets, and of the rest without it.
void fill_sets(Fit& result, const FitTask& task, const std::vector<DataSet>& sets, FitProblem& problem,
               const Descent& best);

}  // namespace jampot
