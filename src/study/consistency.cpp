#include "jampot/study/consistency.hpp"

#include "jampot/basis/error.hpp"

namespace jampot {

ConsistencyStudy study(const ConsistencyRequest& request) {
  if (request.sets.empty()) throw RequestError("there are no measured data to test");
  ConsistencyStudy study;
  for (const DataSet& set : request.sets) {
    study.notices.add(set.notices);
    study.sets.push_back({set, check_consistency(set)});
    study.notices.add(study.sets.back().result.notices);
  }
  return study;
}

}  // namespace jampot
