#pragma once
// What measured vapour-liquid equilibria are worth before anything is fitted to them.
#include <vector>

#include "jampot/regression/consistency.hpp"

namespace jampot {

/// Measured sets of binaries with vapour analyses.
struct ConsistencyRequest {
  std::vector<DataSet> sets{};
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
