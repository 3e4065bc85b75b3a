#pragma once
// What measured vapour-liquid equilibria are worth before anything is fitted to them.
#include <optional>
#include <string>
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

/// What the tests say of one set, or why there are none.
struct SetVerdict {
  std::string set{};                   ///< its name
  std::optional<Consistency> tests{};  ///< nothing where the set cannot be tested
  std::string why{};                   ///< why it cannot
};

/// The tests of every set with vapour analyses, whatever stands in the way of one of them; excess enthalpies
/// among the sets are taken beside those of their pair.
std::vector<SetVerdict> verdicts_on(const std::vector<DataSet>& sets, const VapourChoice& vapour);

}  // namespace jampot
