#include "jampot/study/azeotropes.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/fluid_azeotropes.hpp"
#include "jampot/study/held.hpp"
#include "reach.hpp"
#include "singular.hpp"

namespace jampot {
namespace {

// From a search at one pressure to the one at the next: what both have is followed in small steps.
void follow(const FoundAzeotropes& from, const FoundAzeotropes& to, int steps, Mixture& mixture,
            std::vector<FollowedAzeotrope>& list) {
  for (const SingularPoint& point : from.found.points) {
    const auto like = [&](const SingularPoint& other) {
      return other.members == point.members && other.heterogeneous == point.heterogeneous;
    };
    const auto alike = [&](const std::vector<SingularPoint>& all) {
      return std::count_if(all.begin(), all.end(), like);
    };
    if (point.members.size() == 1 || alike(from.found.points) != 1 || alike(to.found.points) != 1) continue;
    SingularPoint at = point;
    for (int k = 1; k < steps; ++k) {
      const double P_Pa = from.P_Pa * std::pow(to.P_Pa / from.P_Pa, static_cast<double>(k) / steps);
      const auto next = same_azeotrope(mixture, P_Pa, at);
      if (!next) break;
      at = *next;
      list.push_back({from.contender, P_Pa, at});
    }
  }
}

void follow_all(AzeotropesStudy& study) {
  constexpr int points = 60;
  const int steps = 1 + points / std::max(1, static_cast<int>(study.P_Pa.size()) - 1);
  for (std::size_t k = 0; k < study.contenders.size(); ++k) {
    Mixture& mixture = study.contenders[k].mixture;
    if (mixture.one_equation()) continue;
    std::vector<const FoundAzeotropes*> searches;
    for (const FoundAzeotropes& one : study.searches) {
      if (one.contender == k) searches.push_back(&one);
    }
    std::sort(searches.begin(), searches.end(),
              [](const FoundAzeotropes* a, const FoundAzeotropes* b) { return a->P_Pa < b->P_Pa; });
    for (std::size_t n = 1; n < searches.size(); ++n)
      follow(*searches[n - 1], *searches[n], steps, mixture, study.between);
  }
}

}  // namespace

AzeotropesStudy study(const AzeotropesRequest& request) {
  AzeotropesStudy study;
  study.contenders = prepare_all(request.mixture, request.compare, study.notices);
  study.P_Pa = request.P_Pa;
  study.uncertainty = request.uncertainty;
  if (request.P_Pa.empty()) throw RequestError("there is no pressure at which to look for azeotropes");
  demand_count("pressures", static_cast<double>(request.P_Pa.size()), 200);
  for (std::size_t k = 0; k < study.contenders.size(); ++k) {
    Mixture& mixture = study.contenders[k].mixture;
    Reach reach;
    for (const double P_Pa : request.P_Pa) {
      FoundAzeotropes one{k,
                          P_Pa,
                          mixture.one_equation() ? fluid_singular_points(mixture, P_Pa)
                                                 : singular_points(mixture, P_Pa, request.progress),
                          {}};
      if (request.uncertainty) one.uncertainties = singular_uncertainties(mixture, P_Pa, one.found.points);
      for (const SingularPoint& point : one.found.points) reach.include(point.T_K, request.P_Pa.back());
      study.notices.add(one.found.notices);
      add_doubtful_predictions(mixture, one.found.points, study.notices);
      if (request.working && study.working.empty()) study.working = azeotrope_working(mixture, one.found);
      study.searches.push_back(std::move(one));
    }
    reach.add_notices(mixture, study.notices);
  }
  follow_all(study);
  return study;
}

}  // namespace jampot
