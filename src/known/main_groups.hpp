#pragma once
// The functional groups of a molecule as the tables of groups have them.
#include <map>
#include <string>

#include "jampot/substance/unifac_groups.hpp"

namespace jampot {

/// How many subgroups of each main group of the UNIFAC table a substance has; empty where it has no groups.
inline std::map<std::string, double> main_groups_of(const Substance& substance) {
  std::map<std::string, double> counts;
  const auto groups = substance.groups.find("unifac");
  if (groups == substance.groups.end()) return counts;
  const UnifacGroups& table = UnifacGroups::of(UnifacTable::vle);
  for (const GroupCount& one : table.parse(groups->second))
    counts[table.find(one.group)->main_group] += one.count;
  return counts;
}

}  // namespace jampot
