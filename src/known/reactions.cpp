#include "jampot/known/reactions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <string_view>

#include "main_groups.hpp"

namespace jampot {
namespace {

// Main groups that do the same; empty where there are fewer.
using Kind = std::array<std::string_view, 5>;
constexpr Kind epoxides{"epoxide"}, anhydrides{"anhydride"}, acids{"COOH"},
    alcohols{"OH", "CH3OH", "DOH", "OCCOH"}, water{"H2O"}, aldehydes{"CHO", "FURFURAL"}, ketones{"CH2CO"},
    esters{"CCOO", "COO", "HCOO"}, primary_amines{"CNH2", "ACNH2"},
    amines_with_hydrogen{"CNH2", "ACNH2", "CNH"}, all_amines{"CNH2", "ACNH2", "CNH", "(C)3N", "PYRIDINE"};

struct Rule {
  Kind one, other;
  const char* products;
  Readiness readiness;
};

// The most ready first. Clayden, Greeves, Warren, Organic Chemistry, 2nd ed. (2012).
constexpr Rule rules[] = {
    {anhydrides, all_amines, "an amide and an acid", Readiness::at_once},
    {anhydrides, alcohols, "an ester and an acid", Readiness::at_once},
    {anhydrides, water, "an acid", Readiness::at_once},
    {epoxides, all_amines, "an amino alcohol", Readiness::at_once},
    {acids, all_amines, "a salt", Readiness::at_once},
    {aldehydes, amines_with_hydrogen, "an imine or enamine and water", Readiness::at_once},
    {aldehydes, alcohols, "a hemiacetal", Readiness::at_once},
    {acids, alcohols, "an ester and water", Readiness::on_boiling},
    {epoxides, acids, "a glycol ester", Readiness::on_boiling},
    {epoxides, water, "a glycol", Readiness::on_boiling},
    {epoxides, alcohols, "a glycol ether", Readiness::on_boiling},
    {ketones, primary_amines, "an imine and water", Readiness::on_boiling},
    {esters, amines_with_hydrogen, "an amide and an alcohol", Readiness::on_boiling},
    {esters, water, "an acid and an alcohol", Readiness::very_slow},
};

using Groups = std::map<std::string, double>;

Groups groups_of(const Substance& substance) {
  Groups groups = main_groups_of(substance);
  // For rings of three and anhydrides the table has no group of their own.
  for (const char* name : {"ethylene oxide", "propylene oxide", "epichlorohydrin"}) {
    if (substance.name == name) groups["epoxide"] = 1;
  }
  if (substance.name == "acetic anhydride") groups["anhydride"] = 1;
  return groups;
}

bool any_of_kind(const Groups& groups, Kind kind) {
  return std::any_of(kind.begin(), kind.end(),
                     [&](std::string_view group) { return groups.count(std::string(group)) > 0; });
}

// A double bond beside an ester, acid, nitrile or ring, or two of them.
bool polymerises(const Groups& groups) {
  constexpr Kind activating{"CCOO", "COO", "COOH", "CCN", "ACH"};
  const auto bonds = groups.find("C=C");
  return bonds != groups.end() && (bonds->second > 1 || any_of_kind(groups, activating));
}

}  // namespace

std::string_view name_of(Readiness readiness) {
  switch (readiness) {
    case Readiness::very_slow:
      return "very-slow";
    case Readiness::on_boiling:
      return "on-boiling";
    case Readiness::at_once:
      break;
  }
  return "at-once";
}

std::string Reaction::sentence() const {
  if (with == substance) return fmt::format("{} polymerises when warmed unless it is inhibited", substance);
  const char* how = "";
  switch (readiness) {
    case Readiness::very_slow:
      how = " very slowly, faster where there is acid or base";
      break;
    case Readiness::on_boiling:
      how = " when boiled";
      break;
    case Readiness::at_once:
      how = " on mixing";
  }
  return fmt::format("{} forms {} with {}{}", substance, products, with, how);
}

std::optional<Reaction> reaction_between(const Substance& substance, const Substance& other) {
  const Groups ours = groups_of(substance), theirs = groups_of(other);
  if (substance.name == other.name) {
    if (!polymerises(ours)) return std::nullopt;
    return Reaction{substance.name, substance.name, "a polymer", Readiness::on_boiling};
  }
  for (const Rule& rule : rules) {
    if ((any_of_kind(ours, rule.one) && any_of_kind(theirs, rule.other)) ||
        (any_of_kind(ours, rule.other) && any_of_kind(theirs, rule.one)))
      return Reaction{substance.name, other.name, rule.products, rule.readiness};
  }
  return std::nullopt;
}

}  // namespace jampot
