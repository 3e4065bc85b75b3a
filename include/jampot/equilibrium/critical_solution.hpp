#pragma once
// Critical solution temperatures of binaries: where two liquids become one on heating or on cooling.
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// A critical solution point of a binary.
struct CriticalSolution {
  double T_K = 0;        ///< temperature, K
  double x1 = 0;         ///< mole fraction of component 1
  bool upper = false;    ///< two liquids below it (an upper critical solution temperature), else above it
  double curvature = 0;  ///< what is left of the stability function there
};

/// Where a binary is least stable at a temperature.
struct LeastStable {
  double x1 = 0;     ///< where the liquid is least stable
  double value = 1;  ///< of the stability function, 1 for an ideal liquid, negative where it parts
};

/// The smallest value of the stability function over all compositions. @pre T_K > 0
LeastStable least_stable(ActivityModel& model, double T_K);
/// The same close to a composition (within 2 % of x1/x2), after a small change of the model.
LeastStable least_stable_near(ActivityModel& model, double T_K, double x1);

/// All critical solution points of a binary between two temperatures, coldest first.
///
/// Method: the least value of the stability function over the composition, as a function of temperature,
/// changes its sign there. Regions that open and close again within a step of the search (a fortieth of the
/// range, at most 5 K) are found by the minimum of that function.
/// @pre 0 < low_K < high_K
std::vector<CriticalSolution> critical_solutions(ActivityModel& model, double low_K, double high_K);

}  // namespace jampot
