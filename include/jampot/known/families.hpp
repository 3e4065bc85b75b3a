#pragma once
// What handbooks know of pairs of the same families, where they have no fact about a pair itself.
#include <string>
#include <vector>

#include "jampot/known/facts.hpp"
#include "jampot/known/held.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// The family of a substance by its functional groups in the UNIFAC table: "alcohols", "ketones", "ethers and
/// alcohols" of 2-methoxyethanol; alkyl carbon counts only where there is nothing else. Empty without groups.
std::string family_of(const Substance& substance);

/// A predictive model on the facts of families.
struct FamilyRecord : OnFacts {
  std::string model{};  ///< its name
  OnFacts common{};     ///< on the facts that all models answer: what they can be compared by
};

/// How models do on pairs of the same families.
struct FamilyRecords {
  std::string families{};               ///< "ketones with ethers"; several pairs joined by ", "
  std::vector<FamilyRecord> records{};  ///< in the order of the models
  /// "on pairs of ketones with ethers unifac agrees with 9 of 12 facts, unifac-dortmund with 10 of 12"; empty
  /// where nothing is known of them either.
  std::string sentence() const;
};

/// Facts of grades A and B about other pairs of these families, at most 24 for each pair of the substances,
/// spread evenly over all there are.
/// @param models  names of predictive models; one that does not know a substance of a fact is not judged by
/// it
FamilyRecords records_on_families(const std::vector<std::string>& models,
                                  const std::vector<Substance>& substances);

/// A substance of the same functional groups (of the UNIFAC table) that has more hydrocarbon for each of
/// them, or as much in a smaller molecule, and that handbooks have as miscible with water in all proportions
/// near this temperature: what mixes less easily mixes, so this one should. Empty where there is none. Of the
/// substances of the bank that handbooks have as two liquids with water, two have such a kin.
std::string kin_that_mixes_with_water(const Substance& substance, double T_K);

}  // namespace jampot
