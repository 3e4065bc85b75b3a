#pragma once
// The search for the best of all minima of a fit.
#include "fit_task.hpp"

namespace jampot {

/// Where descents from many places ended.
struct Explored {
  std::vector<std::pair<Descent, int>> minima;  ///< the best first, each with how many descents ended there
  int starts = 0;                               ///< descents made
  int reached_best = 0;                         ///< of them those that ended in the best minimum
  long evaluations = 0;                         ///< of the liquid model
};

/// Descends from an almost ideal liquid; where a term that is usually held is free (alpha), from a ladder of
/// values at which it is held first; then from the points of a Sobol sequence, until the best minimum was
/// reached three times and no fewer than `enough` descents were made, or 200 of them; `options.starts` of
/// them where that is a number. Many points are thinned for that; the minima found are then taken to the last
/// digits with all of them.
Explored explore(const FitTask& task, FitProblem& whole);

}  // namespace jampot
