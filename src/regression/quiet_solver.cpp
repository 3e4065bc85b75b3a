#include "quiet_solver.hpp"

#include <glog/logging.h>

#include "jampot/basis/error.hpp"

namespace jampot {

bool solve_quietly(const ceres::Solver::Options& options, ceres::Problem& problem,
                   ceres::Solver::Summary& summary) {
  // Ceres logs numerical trouble through glog even where it is told to be silent. A program that has set up
  // glog for itself keeps its setting.
  static const bool quiet = [] {
    if (!google::IsGoogleLoggingInitialized()) FLAGS_minloglevel = google::GLOG_FATAL;
    return true;
  }();
  try {
    ceres::Solve(options, &problem, &summary);
  } catch (const CalculationError&) {
    return false;
  }
  return quiet && summary.IsSolutionUsable();
}

ceres::Solver::Options quiet_options(int most_iterations, double function_tolerance) {
  ceres::Solver::Options options;
  options.linear_solver_type = ceres::DENSE_QR;
  options.max_num_iterations = most_iterations;
  options.function_tolerance = function_tolerance;
  options.logging_type = ceres::SILENT;
  return options;
}

ceres::Problem borrowing_problem() {
  ceres::Problem::Options options;
  options.cost_function_ownership = ceres::DO_NOT_TAKE_OWNERSHIP;
  return ceres::Problem(options);
}

std::optional<double> least_sum_of_squares(ceres::CostFunction& residuals, double* x,
                                           const ceres::Solver::Options& options) {
  ceres::Problem problem = borrowing_problem();
  problem.AddResidualBlock(&residuals, nullptr, x);
  ceres::Solver::Summary summary;
  if (!solve_quietly(options, problem, summary)) return std::nullopt;
  return 2 * summary.final_cost;
}

}  // namespace jampot
