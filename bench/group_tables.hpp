#pragma once
// The UNIFAC table for liquids held against that for boiling and against handbook facts, by its interactions.
#include <string>
#include <vector>

namespace jampot::bench {

/// An interaction of two main groups, seen by pairs of substances that have these and no further functional
/// group.
struct GroupInteractionSeen {
  std::string name;  ///< "H2O - CNO2"
  char grade = '-';
  int pairs = 0, far = 0;           ///< pairs with limits by both tables; those that differ by more than e^4
  int facts = 0, contradicted = 0;  ///< of grades A and B
  double largest = 0;               ///< difference in ln gamma
  std::string example;              ///< of it
};

/// Those of which half of the pairs differ by more than e^4, or that contradict a fact, or have grade D.
std::vector<GroupInteractionSeen> doubted_group_interactions();

}  // namespace jampot::bench
