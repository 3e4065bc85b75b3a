#pragma once
// The states that a study has been at, and what has to be said about a mixture used there.
#include <algorithm>
#include <cmath>

#include "jampot/equilibrium/suitability.hpp"
#include "jampot/known/disagreement.hpp"

namespace jampot {

/// Between which temperatures, and up to which pressure.
struct Reach {
  double coldest_K = HUGE_VAL, hottest_K = 0, lowest_Pa = HUGE_VAL, highest_Pa = 0;

  void include(double T_K, double P_Pa) {
    coldest_K = std::min(coldest_K, T_K);
    hottest_K = std::max(hottest_K, T_K);
    lowest_Pa = std::min(lowest_Pa, P_Pa);
    highest_Pa = std::max(highest_Pa, P_Pa);
  }

  /// What is doubtful about boiling this mixture there.
  void add_notices(const Mixture& mixture, Notices& notices) const {
    notices.add(mixture.range_notices(coldest_K, hottest_K));
    add_doubts(mixture, notices);
  }
  /// The same without what concerns the substances alone.
  void add_doubts(const Mixture& mixture, Notices& notices) const {
    notices.add(suitability(mixture, Purpose::vapour_liquid, coldest_K, hottest_K, highest_Pa));
    const UsedAt used{lowest_Pa, highest_Pa, coldest_K, hottest_K};
    notices.add(against_handbooks(mixture, used));
    notices.add(models_disagree(mixture, used));
  }
};

}  // namespace jampot
