#include "jampot/study/solubility.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/working.hpp"
#include "jampot/study/held.hpp"
#include "liquids.hpp"

namespace jampot {
namespace {

// The first liquid that parts, written out.
std::vector<std::string> first_liquid(SolubilityStudy& study) {
  for (const SolubilityPoint& point : study.curves.front().points) {
    if (point.splits.empty()) continue;
    const double x1 = point.splits.front().x1_alpha;
    return working(study.contenders.front().mixture.activity(), study.substances(), point.T_K, {x1, 1 - x1});
  }
  return {};
}

void demand_a_split(const SolubilityStudy& study) {
  for (const SolubilityCurve& curve : study.curves) {
    for (const SolubilityPoint& point : curve.drawn) {
      if (!point.splits.empty()) return;
    }
  }
  std::string known;
  for (const Notice& notice : study.notices) {
    if (notice.code == "against-handbook") known += ". But " + notice.text;
  }
  throw CalculationError(
      fmt::format("{} and {} are one liquid throughout this range with {}; there is no solubility limit. "
                  "Other temperatures, or parameters fitted to two liquids, may give one{}",
                  study.substances()[0].name, study.substances()[1].name,
                  study.contenders.front().mixture.liquid_model(), known));
}

}  // namespace

SolubilityStudy study(const SolubilityRequest& request) {
  SolubilityStudy study;
  if (request.mixture.substances.size() != 2)
    throw RequestError(
        fmt::format("this is about two substances; {} are named", request.mixture.substances.size()));
  if (request.T_K.empty()) throw RequestError("there is no temperature for solubilities");
  demand_count("temperatures", static_cast<double>(request.T_K.size()), 5000);
  study.contenders = liquid_contenders(request.mixture, request.compare, study.notices);
  for (const DataSet& set : request.measured) study.measured.push_back(in_order_of(study.substances(), set));
  const auto [coldest, hottest] = std::minmax_element(request.T_K.begin(), request.T_K.end());
  add_liquid_notices(study.contenders, *coldest, *hottest, study.notices);
  for (std::size_t k = 0; k < study.contenders.size(); ++k) {
    ActivityModel& model = study.contenders[k].mixture.activity();
    study.curves.push_back(solubility(model, request.T_K));
    for (const DataSet& set : study.measured) {
      study.notices.add(set.notices);
      study.beside.push_back({set.name, k, compare_liquids(model, set)});
    }
  }
  demand_a_split(study);
  if (request.working) study.working = first_liquid(study);
  return study;
}

}  // namespace jampot
