#pragma once
// Mutual solubilities of two liquids against temperature.
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/critical_solution.hpp"

namespace jampot {

/// The liquids at one temperature; one entry for every split, none where the liquid is one throughout.
struct SolubilityPoint {
  double T_K = 0;                   ///< temperature, K
  std::vector<BinarySplit> splits;  ///< one for each gap
};

/// Both liquids of a pair against temperature, with the critical points between.
struct SolubilityCurve {
  std::vector<SolubilityPoint> points;     ///< at the temperatures asked for
  std::vector<SolubilityPoint> drawn;      ///< more of them, close together towards the critical points
  std::vector<CriticalSolution> critical;  ///< critical solution points
  Notices notices;                         ///< what the reader must know

  /// "two liquids below 39.2 degC", "a closed loop between ...": what an expert would call it.
  std::string description() const;
};

/// Mutual solubilities at the temperatures (in any order) and the critical solution points between the
/// coldest and the hottest, and up to `beyond_K` outside, so that a loop that closes near by is seen to
/// close.
SolubilityCurve solubility(ActivityModel& model, const std::vector<double>& T_K, double beyond_K = 0);

}  // namespace jampot
