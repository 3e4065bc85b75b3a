#include "jampot/study/estimate.hpp"

#include "jampot/basis/error.hpp"
#include "jampot/study/held.hpp"

namespace jampot {

EstimateStudy study(const EstimateRequest& request) {
  const std::vector<Substance>& substances = request.substances;
  if (substances.size() < 2) throw RequestError("estimate needs at least two substances");
  demand_count("substances", static_cast<double>(substances.size()), most_substances);
  if (request.limits && substances.size() != 2)
    throw RequestError("`limits` belongs to one pair: name two substances");
  EstimateStudy study;
  study.substances = substances;
  study.model = request.options.model;
  study.exact = request.limits.has_value();
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      EstimatedPair one{i, j, {}};
      if (request.limits) {
        one.estimate.pair =
            pair_from_limits(substances[i], substances[j], request.options.model, request.limits->ln_gamma,
                             request.limits->T_K, request.options.alpha);
      } else {
        one.estimate = estimate_pair(substances[i], substances[j], request.options);
        study.notices.add(one.estimate.notices);
      }
      study.pairs.push_back(std::move(one));
    }
  }
  return study;
}

MoscedStudy study(const MoscedRequest& request) {
  MoscedStudy study{
      request.name, request.points, fit_mosced(request.points, request.v_cm3_mol, request.q), {}};
  study.notices = study.found.notices;
  return study;
}

}  // namespace jampot
