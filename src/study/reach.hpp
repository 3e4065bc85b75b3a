#pragma once
// The states that a study has been at, and what has to be said about a mixture used there.
#include <algorithm>
#include <cmath>

#include "jampot/equilibrium/suitability.hpp"

namespace jampot {

/// Between which temperatures, and up to which pressure.
struct Reach {
  double coldest_K = HUGE_VAL, hottest_K = 0, highest_Pa = 0;

  void include(double T_K, double P_Pa) {
    coldest_K = std::min(coldest_K, T_K);
    hottest_K = std::max(hottest_K, T_K);
    highest_Pa = std::max(highest_Pa, P_Pa);
  }

  /// What is doubtful about boiling this mixture there.
  void add_notices(const Mixture& mixture, Notices& notices) const {
    notices.add(mixture.range_notices(coldest_K, hottest_K));
    notices.add(suitability(mixture, Purpose::vapour_liquid, coldest_K, hottest_K, highest_Pa));
  }
};

}  // namespace jampot
