#pragma once
// The published interactions between main groups.
#include <optional>

#include "jampot/liquid/unifac.hpp"

namespace jampot {

/// The interaction of main group m with n in a table; none between a group and itself, and nothing where the
/// table has a gap.
std::optional<GroupInteraction> group_interaction(UnifacTable table, int m, int n);

}  // namespace jampot
