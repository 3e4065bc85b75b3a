#include "jampot/known/families.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/bank.hpp"
#include "main_groups.hpp"

namespace jampot {
namespace {

// Main groups as people call what has them.
const std::map<std::string, std::string>& words() {
  static const std::map<std::string, std::string> list{{"CH2", "alkanes"},
                                                       {"C=C", "alkenes"},
                                                       {"ACH", "aromatics"},
                                                       {"ACCH2", "aromatics"},
                                                       {"OH", "alcohols"},
                                                       {"CH3OH", "alcohols"},
                                                       {"H2O", "water"},
                                                       {"ACOH", "phenols"},
                                                       {"CH2CO", "ketones"},
                                                       {"CHO", "aldehydes"},
                                                       {"CCOO", "esters"},
                                                       {"COO", "esters"},
                                                       {"HCOO", "esters"},
                                                       {"CH2O", "ethers"},
                                                       {"CNH2", "amines"},
                                                       {"CNH", "amines"},
                                                       {"(C)3N", "amines"},
                                                       {"ACNH2", "anilines"},
                                                       {"PYRIDINE", "pyridines"},
                                                       {"CCN", "nitriles"},
                                                       {"COOH", "acids"},
                                                       {"CCL", "chlorides"},
                                                       {"CCL2", "chlorides"},
                                                       {"CCL3", "chlorides"},
                                                       {"CCL4", "chlorides"},
                                                       {"ACCL", "chlorides"},
                                                       {"CNO2", "nitro compounds"},
                                                       {"ACNO2", "nitro compounds"},
                                                       {"DOH", "glycols"},
                                                       {"DMF", "amides"},
                                                       {"CONR2", "amides"}};
  return list;
}

std::string word_of(const std::string& main_group) {
  std::string upper = main_group;
  for (char& letter : upper) {
    if (letter >= 'a' && letter <= 'z') letter = static_cast<char>(letter - 'a' + 'A');
  }
  const auto found = words().find(upper);
  return found == words().end() ? main_group : found->second;
}

struct Pair {
  std::string first, second;  ///< families
  std::vector<const Fact*> facts;
};

// The families of all substances of the bank by name, once.
const std::map<std::string, std::string>& families_of_bank() {
  static const std::map<std::string, std::string> families = [] {
    std::map<std::string, std::string> all;
    for (const Substance& substance : Bank::built_in().all()) all[substance.name] = family_of(substance);
    return all;
  }();
  return families;
}

Pair facts_like(const Substance& first, const Substance& second) {
  Pair pair{family_of(first), family_of(second), {}};
  if (pair.first.empty() || pair.second.empty()) return pair;
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.substances.size() != 2 || fact.grade > 'B' || fact.kind == FactKind::excess_enthalpy) continue;
    if (fact.about(first.name, second.name)) continue;  // it is known itself
    const auto one = families_of_bank().find(fact.substances[0]),
               other = families_of_bank().find(fact.substances[1]);
    if (one == families_of_bank().end() || other == families_of_bank().end()) continue;
    if ((one->second == pair.first && other->second == pair.second) ||
        (one->second == pair.second && other->second == pair.first))
      pair.facts.push_back(&fact);
  }
  return pair;
}

// The groups of a molecule: functional ones by kind, and how many of them and of hydrocarbon there are.
struct GroupKinds {
  std::set<std::string> names;
  double functional = 0, hydrocarbon = 0;
};

GroupKinds group_kinds(const Substance& substance) {
  GroupKinds kinds;
  for (const auto& [main_group, count] : main_groups_of(substance)) {
    if (word_of(main_group) == "alkanes") {
      kinds.hydrocarbon += count;
    } else {
      kinds.names.insert(main_group);
      kinds.functional += count;
    }
  }
  return kinds;
}

}  // namespace

std::string family_of(const Substance& substance) {
  std::set<std::string> names;
  for (const auto& [main_group, count] : main_groups_of(substance)) names.insert(word_of(main_group));
  if (names.size() > 1) names.erase("alkanes");
  if (names.size() > 1) names.erase("aromatics");
  return joined({names.begin(), names.end()}, " and ");
}

std::string FamilyRecords::sentence() const {
  std::vector<std::string> parts;
  for (const FamilyRecord& record : records) {
    if (record.judged > 0)
      parts.push_back(fmt::format("{} agrees with {} of {}", record.model, record.agreeing, record.judged));
  }
  if (parts.empty()) return {};
  return fmt::format("of facts about pairs of the same families ({}) {}", families, joined(parts, ", "));
}

FamilyRecords records_on_families(const std::vector<std::string>& models,
                                  const std::vector<Substance>& substances) {
  FamilyRecords result;
  for (const std::string& model : models) {
    FamilyRecord record;
    record.model = model;
    result.records.push_back(std::move(record));
  }
  std::vector<std::string> families;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      const Pair pair = facts_like(substances[i], substances[j]);
      if (pair.facts.empty()) continue;
      families.push_back(fmt::format("{} with {}", pair.first, pair.second));
      constexpr std::size_t most = 24;
      const std::size_t step = (pair.facts.size() + most - 1) / most;
      for (std::size_t k = 0; k < pair.facts.size(); k += step) {
        const Fact& fact = *pair.facts[k];
        const bool boiling = fact.kind == FactKind::azeotrope || fact.kind == FactKind::no_azeotrope;
        std::vector<HeldFact> all;
        for (FamilyRecord& record : result.records) {
          if (needs_pairs(record.model) || (boiling && record.model == "unifac-lle")) continue;
          try {
            all.push_back(held_against(Mixture(substances_named(fact.substances), record.model, {}), fact));
            record.add(all.back());
          } catch (const std::runtime_error&) {
            continue;  // it lacks a group or an interaction
          }
        }
        const bool by_all =
            all.size() == result.records.size() &&
            std::all_of(all.begin(), all.end(), [](const HeldFact& held) { return held.judged(); });
        for (std::size_t m = 0; by_all && m < all.size(); ++m) result.records[m].common.add(all[m]);
      }
    }
  }
  result.families = joined(families, ", ");
  return result;
}

std::string kin_that_mixes_with_water(const Substance& substance, double T_K) {
  const GroupKinds own = group_kinds(substance);
  constexpr double near_K = 30;
  static const std::vector<std::pair<std::string, GroupKinds>> bank = [] {
    std::vector<std::pair<std::string, GroupKinds>> all;
    for (const Substance& one : Bank::built_in().all()) all.emplace_back(one.name, group_kinds(one));
    return all;
  }();
  if (own.functional == 0) return {};
  for (const auto& [name, kinds] : bank) {
    if (name == substance.name || kinds.names != own.names) continue;
    const double theirs = kinds.hydrocarbon * own.functional, ours = own.hydrocarbon * kinds.functional;
    if (theirs < ours || (theirs == ours && kinds.functional >= own.functional)) continue;
    for (const Fact* fact : KnownFacts::built_in().about(name, "water")) {
      if (fact->kind == FactKind::miscible && fact->grade <= 'B' && std::abs(fact->T_K - T_K) < near_K)
        return name;
    }
  }
  return {};
}

}  // namespace jampot
