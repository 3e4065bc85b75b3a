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

}  // namespace jampot
