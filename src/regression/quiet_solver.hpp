#pragma once
// The least-squares solver, without its own words on standard error.
#include <ceres/problem.h>
#include <ceres/solver.h>

namespace jampot {

/// Solves the problem. False where the model broke down on the way (a cost function threw) or the solution is
/// of no use: a start that fails is told in our words, by whoever knows what was started.
bool solve_quietly(const ceres::Solver::Options& options, ceres::Problem& problem,
                   ceres::Solver::Summary& summary);

}  // namespace jampot
