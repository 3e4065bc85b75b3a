#pragma once
// The least-squares solver, without its own words on standard error.
#include <ceres/cost_function.h>
#include <ceres/problem.h>
#include <ceres/solver.h>

#include <optional>

namespace jampot {

/// Solves the problem. False where the model broke down on the way (a cost function threw) or the solution is
/// of no use: a start that fails is told in our words, by whoever knows what was started.
bool solve_quietly(const ceres::Solver::Options& options, ceres::Problem& problem,
                   ceres::Solver::Summary& summary);

/// For a few unknowns: dense, by QR, without a word.
ceres::Solver::Options quiet_options(int most_iterations, double function_tolerance);

/// A problem whose residuals stay the caller's.
ceres::Problem borrowing_problem();

/// Moves `x`, all that the residuals depend on, to where their sum of squares is least. Nothing where that
/// fails
/// (`solve_quietly`).
/// @return the sum of squares there
std::optional<double> least_sum_of_squares(ceres::CostFunction& residuals, double* x,
                                           const ceres::Solver::Options& options);

}  // namespace jampot
