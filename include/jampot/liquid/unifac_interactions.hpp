#pragma once
// The published interactions between main groups.
#include <optional>
#include <string>

#include "jampot/liquid/unifac.hpp"

namespace jampot {

/// The interaction of main group m with n in a table; none between a group and itself, and nothing where the
/// table has a gap.
std::optional<GroupInteraction> group_interaction(UnifacTable table, int m, int n);

/// How far a table goes.
struct TableExtent {
  int held = 0,   ///< pairs of main groups of which it has both interactions
      pairs = 0;  ///< pairs of its main groups
  /// "46 of 1,035 pairs of groups"
  std::string text() const;
};
TableExtent extent_of(UnifacTable table);

}  // namespace jampot
