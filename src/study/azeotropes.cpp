#include "jampot/study/azeotropes.hpp"

#include "jampot/basis/error.hpp"
#include "jampot/diagram/fluid_azeotropes.hpp"
#include "jampot/study/held.hpp"
#include "reach.hpp"
#include "singular.hpp"

namespace jampot {

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
  return study;
}

}  // namespace jampot
