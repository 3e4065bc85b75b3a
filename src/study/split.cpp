#include "jampot/study/split.hpp"

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/working.hpp"
#include "jampot/study/held.hpp"
#include "liquids.hpp"
#include "reach.hpp"

namespace jampot {
namespace {

std::vector<Decanted> solve(const SplitRequest& request, Mixture& mixture) {
  DecanterConditions conditions;
  conditions.P_Pa = request.P_Pa;
  conditions.feed_T_K = request.feed_T_K;
  conditions.rich_in = request.rich_in;
  const std::vector<Substance>& substances = mixture.substances();
  if (request.duty)
    return {decant_with_duty(substances, mixture.activity(), request.feed, *request.duty, conditions)};
  std::vector<Decanted> results;
  for (const double T_K : request.T_K) {
    conditions.T_K = T_K;
    results.push_back(decant(substances, mixture.activity(), request.feed, conditions));
  }
  return results;
}

void tell_of_heat(const Feed& feed, const Duty& duty, Notices& notices) {
  if (!feed.sized) {
    notices.add("no-duty", "the feed has no amounts, so no duty is calculated; give the total by `amount`");
    return;
  }
  if (!duty.total.value) {
    notices.add("no-duty", "no duty: " + duty.total.method);
    return;
  }
  constexpr double share = 0.05;
  if (std::abs(duty.mixing) > share * std::abs(*duty.total.value) && !notices.has("heat-of-mixing"))
    notices.add(
        "heat-of-mixing",
        "the heat of mixing is a large part of the duty; it comes from the temperature dependence of "
        "the liquid model, which is rough unless the parameters were fitted to excess enthalpies too");
}

void tell(const Feed& feed, const Decanted& result, Notices& notices) {
  if (result.duty) tell_of_heat(feed, *result.duty, notices);
  for (const DecantedLiquid& liquid : result.liquids) {
    if (!liquid.density_kg_m3.value && !notices.has("no-density"))
      notices.add("no-density", "no density of a liquid: " + liquid.density_kg_m3.method);
  }
  notices.add(result.notices);
}

}  // namespace

SplitStudy study(const SplitRequest& request) {
  SplitStudy study;
  study.contenders = liquid_contenders(request.mixture, request.compare, study.notices);
  study.feed = request.feed;
  study.P_Pa = request.P_Pa;
  if (request.T_K.empty() != request.duty.has_value())
    throw RequestError("give temperatures or a duty for the split, not both");
  if (request.duty && (!request.feed_T_K || !request.feed.sized))
    throw RequestError("a duty needs the temperature of the feed and a feed with amounts or flows");
  demand_count("temperatures", static_cast<double>(request.T_K.size()), 2000);
  Reach reach;
  for (std::size_t k = 0; k < study.contenders.size(); ++k) {
    for (Decanted& result : solve(request, study.contenders[k].mixture)) {
      reach.include(result.T_K, request.P_Pa);
      tell(request.feed, result, study.notices);
      study.cases.push_back({k, std::move(result)});
    }
  }
  if (request.feed_T_K) reach.include(*request.feed_T_K, request.P_Pa);
  add_liquid_notices(study.contenders, reach.coldest_K, reach.hottest_K, study.notices);
  if (request.working) {
    const Decanted& first = study.cases.front().result;
    study.working = working(study.contenders.front().mixture.activity(), study.substances(), first.T_K,
                            first.liquids.front().x);
  }
  return study;
}

}  // namespace jampot
