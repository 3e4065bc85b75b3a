#include "jampot/study/consistency.hpp"

#include "jampot/basis/error.hpp"
#include "jampot/measured/data_kind.hpp"

namespace jampot {

namespace {

ConsistencyOptions beside_heats(const std::vector<DataSet>& sets, const VapourChoice& vapour) {
  ConsistencyOptions options{.vapour = vapour};
  for (const DataSet& set : sets) {
    if (set.kind == DataKind::excess_enthalpy) options.heat.push_back(set);
  }
  return options;
}

}  // namespace

ConsistencyStudy study(const ConsistencyRequest& request) {
  if (request.sets.empty()) throw RequestError("there are no measured data to test");
  ConsistencyStudy study;
  const ConsistencyOptions options = beside_heats(request.sets, request.vapour);
  if (options.heat.size() == request.sets.size())
    throw RequestError("excess enthalpies alone cannot be tested: give vapour-liquid data with them");
  for (const DataSet& set : request.sets) {
    study.notices.add(set.notices);
    if (set.kind == DataKind::excess_enthalpy) continue;
    study.sets.push_back({set, check_consistency(set, options)});
    study.notices.add(study.sets.back().result.notices);
  }
  return study;
}

std::vector<SetVerdict> verdicts_on(const std::vector<DataSet>& sets, const VapourChoice& vapour) {
  std::vector<SetVerdict> verdicts;
  const ConsistencyOptions options = beside_heats(sets, vapour);
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind) || !has_vapour(set.kind)) continue;
    verdicts.push_back({.set = set.name});
    try {
      verdicts.back().tests = check_consistency(set, options);
    } catch (const CalculationError& error) {
      verdicts.back().why = error.what();
    }
  }
  return verdicts;
}

}  // namespace jampot
