#pragma once
// What measured vapour-liquid equilibria are worth before anything is fitted to them.
#include <vector>

#include "jampot/regression/consistency.hpp"

namespace jampot {

/// Measured sets with vapour analyses; excess enthalpies among them are taken beside those of their pair.
struct ConsistencyRequest {
  std::vector<DataSet> sets{};
  VapourChoice vapour{};
};

/// One set and its tests.
struct TestedSet {
  DataSet set{};
  Consistency result{};
};

struct ConsistencyStudy {
  std::vector<TestedSet> sets{};
  Notices notices{};
};

/// @throws as `check_consistency`
ConsistencyStudy study(const ConsistencyRequest& request);

}  // namespace jampot
