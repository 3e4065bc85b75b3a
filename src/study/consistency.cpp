#include "jampot/study/consistency.hpp"

#include "jampot/basis/error.hpp"

namespace jampot {

ConsistencyStudy study(const ConsistencyRequest& request) {
  if (request.sets.empty()) throw RequestError("there are no measured data to test");
  ConsistencyStudy study;
  ConsistencyOptions options{.vapour = request.vapour};
  for (const DataSet& set : request.sets) {
    if (set.kind == DataKind::excess_enthalpy) options.heat.push_back(set);
  }
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

}  // namespace jampot
