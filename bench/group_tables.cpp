#include "group_tables.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "jampot/known/facts.hpp"
#include "jampot/known/held.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot::bench {
namespace {

// The main group that makes a substance what it is: besides alkyl and aromatic carbon it has one, or none.
std::optional<std::string> functional_group(const Substance& substance) {
  const auto groups = substance.groups.find("unifac-lle");
  if (groups == substance.groups.end()) return std::nullopt;
  const UnifacGroups& table = UnifacGroups::of(UnifacTable::lle);
  std::set<std::string> mains;
  for (const GroupCount& one : table.parse(groups->second)) mains.insert(table.find(one.group)->main_group);
  for (const char* carbon : {"CH2", "ACH"}) {
    if (mains.size() > 1) mains.erase(carbon);
  }
  return mains.size() == 1 ? std::optional(*mains.begin()) : std::nullopt;
}

std::array<double, 2> limits(Mixture& mixture) {
  ActivityModel& model = mixture.activity();
  model.set_temperature(298.15);
  std::array<double, 2> first{}, second{};
  model.evaluate(std::array{0.0, 1.0}, first);
  model.evaluate(std::array{1.0, 0.0}, second);
  return {first[0], second[1]};
}

std::optional<Mixture> by_table(const std::vector<Substance>& pair, const char* table) {
  try {
    return Mixture(pair, table, {});
  } catch (const std::runtime_error&) {
    return std::nullopt;  // it lacks a group or an interaction
  }
}

void compare(GroupInteractionSeen& seen, const std::vector<Substance>& pair, Mixture& liquids) {
  auto boiling = by_table(pair, "unifac");
  if (boiling) {
    const auto own = limits(liquids), theirs = limits(*boiling);
    double largest = 0;
    for (const std::size_t solute : {0u, 1u}) {
      const double difference = own[solute] - theirs[solute];
      if (std::abs(difference) > std::abs(largest)) largest = difference;
      if (std::abs(difference) <= std::abs(seen.largest)) continue;
      seen.largest = difference;
      seen.example = fmt::format("{} in {}: {:.3g} against {:.3g}", pair[solute].name, pair[1 - solute].name,
                                 std::exp(own[solute]), std::exp(theirs[solute]));
    }
    ++seen.pairs;
    seen.far += std::abs(largest) > 4;
  }
  for (const Fact* fact : KnownFacts::built_in().about(pair[0].name, pair[1].name)) {
    const bool of_liquids = fact->kind == FactKind::miscible || fact->kind == FactKind::solubility ||
                            fact->kind == FactKind::limiting_gamma;
    if (!of_liquids || fact->grade > 'B') continue;
    const HeldFact held = held_against(liquids, *fact);
    if (!held.judged()) continue;
    ++seen.facts;
    // Only what the other table does not miss, too.
    seen.contradicted += held.fails() && !(boiling && held_against(*boiling, *fact).fails());
  }
}

}  // namespace

std::vector<GroupInteractionSeen> doubted_group_interactions() {
  std::map<std::string, GroupInteractionSeen> all;
  const auto bank = Bank::built_in().all();
  for (std::size_t i = 0; i < bank.size(); ++i) {
    for (std::size_t j = i + 1; j < bank.size(); ++j) {
      const auto first = functional_group(bank[i]), second = functional_group(bank[j]);
      if (!first || !second || *first == *second) continue;
      auto liquids = by_table({bank[i], bank[j]}, "unifac-lle");
      if (!liquids) continue;
      for (const GroupPair& pair : liquids->unifac()->group_pairs()) {
        if (std::set{pair.main_groups[0], pair.main_groups[1]} != std::set{*first, *second}) continue;
        const std::string name = fmt::format("{} - {}", std::min(*first, *second), std::max(*first, *second));
        GroupInteractionSeen& seen = all[name];
        seen.name = name;
        seen.grade = std::max(pair.forward.grade, pair.backward.grade);
        compare(seen, {bank[i], bank[j]}, *liquids);
      }
    }
  }
  std::vector<GroupInteractionSeen> doubted;
  for (auto& [name, seen] : all) {
    if (2 * seen.far > seen.pairs || seen.contradicted > 0 || seen.grade == 'D') doubted.push_back(seen);
  }
  return doubted;
}

}  // namespace jampot::bench
