#pragma once
// What is fitted: the points of all sets that count, and how. A problem to descend in is made from it, as
// often as there are threads.
#include <memory>

#include "fit_problem.hpp"

namespace jampot {

struct FitTask {
  FitOptions options;
  std::vector<Substance> substances;
  ParameterPlan plan;
  std::vector<const DataPoint*> points;                        ///< of vapour-liquid equilibria
  std::vector<std::pair<DataKind, const DataPoint*>> liquids;  ///< without a vapour
  bool best_alone = false;                                     ///< other minima are not wanted

  std::unique_ptr<FitProblem> problem() const;
  /// With no more than about `most` points, evenly chosen: enough to find the minima, not to settle them.
  FitTask thinned(std::size_t most) const;
};

}  // namespace jampot
