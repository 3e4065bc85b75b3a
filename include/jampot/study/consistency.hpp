#pragma once
// What measured vapour-liquid equilibria are worth before anything is fitted to them.
#include <vector>

#include "jampot/regression/consistency.hpp"

namespace jampot {

/// Measured sets with vapour analyses; excess enthalpies among them are taken beside those of their pair.
struct ConsistencyRequest {
  std::vector<DataSet> sets{};  ///< the sets of data
  VapourChoice vapour{};        ///< model of the vapour
};

/// One set and its tests.
struct TestedSet {
  DataSet set{};         ///< the data
  Consistency result{};  ///< the tests
};

/// Sets of data with their tests.
struct ConsistencyStudy {
  std::vector<TestedSet> sets{};  ///< each with its tests
  Notices notices{};              ///< what the reader must know
};

/// @throws as `check_consistency`
ConsistencyStudy study(const ConsistencyRequest& request);

}  // namespace jampot
