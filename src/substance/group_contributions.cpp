#include "jampot/substance/group_contributions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <unordered_map>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"

namespace jampot {
namespace {

const CsvTable& table() {
  static const CsvTable contributions(jampot_data::group_contributions_csv(), "group_contributions.csv");
  return contributions;
}

std::size_t row_of(const std::string& group) {
  static const std::unordered_map<std::string, std::size_t> rows = [] {
    std::unordered_map<std::string, std::size_t> found;
    for (std::size_t row = 0; row < table().rows(); ++row)
      found.emplace(table().text(row, table().column("group")), row);
    return found;
  }();
  if (const auto found = rows.find(group); found != rows.end()) return found->second;
  throw RequestError(fmt::format("'{}' is not a group; there are {}.{}", group, joined(group_names(), ", "),
                                 did_you_mean(group, group_names())));
}

// Sum of one contribution over the groups; nothing where the table has a gap.
std::optional<double> sum(const std::vector<GroupCount>& groups, const char* contribution) {
  const std::size_t column = table().column(contribution);
  double total = 0;
  for (const GroupCount& entry : groups) {
    const auto value = table().number_if_any(row_of(entry.group), column);
    if (!value) return std::nullopt;
    total += entry.count * *value;
  }
  return total;
}

std::map<std::string, int> atoms_of(const std::vector<GroupCount>& groups) {
  std::map<std::string, int> atoms;
  for (const GroupCount& entry : groups) {
    for (const auto& [element, count] :
         atoms_in(std::string(table().text(row_of(entry.group), table().column("atoms"))))) {
      atoms[element] += entry.count * count;
    }
  }
  return atoms;
}

}  // namespace

std::vector<std::string> group_names() {
  std::vector<std::string> names;
  for (std::size_t row = 0; row < table().rows(); ++row)
    names.emplace_back(table().text(row, table().column("group")));
  return names;
}

std::vector<GroupCount> parse_groups(std::string_view text) {
  std::vector<GroupCount> groups;
  for (const std::string& piece : split(text, ',')) {
    const std::size_t equals = piece.rfind('=');
    const auto count = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (!count || *count < 1 || *count != std::floor(*count) || *count > 1000) {
      throw RequestError(fmt::format("'{}': expected GROUP=COUNT, as in \"CH3=2, CH2=3\"", piece));
    }
    GroupCount entry{std::string(trimmed(std::string_view(piece).substr(0, equals))),
                     static_cast<int>(*count)};
    row_of(entry.group);
    const bool twice = std::any_of(groups.begin(), groups.end(),
                                   [&](const GroupCount& other) { return other.group == entry.group; });
    if (twice) throw RequestError(fmt::format("the group '{}' is given twice", entry.group));
    groups.push_back(std::move(entry));
  }
  return groups;
}

std::string formula_of(const std::vector<GroupCount>& groups) {
  return hill_formula(atoms_of(groups));
}

std::string hill_formula(std::map<std::string, int> atoms) {
  std::string formula;
  const auto take = [&](const std::string& element) {
    const auto found = atoms.find(element);
    if (found == atoms.end()) return;
    formula += element + (found->second > 1 ? std::to_string(found->second) : "");
    atoms.erase(found);
  };
  if (atoms.contains("C")) {  // Hill order: carbon, hydrogen, then the alphabet
    take("C");
    take("H");
  }
  while (!atoms.empty()) take(atoms.begin()->first);
  return formula;
}

std::optional<GasHeatCapacity> gas_heat_capacity_from_groups(const std::vector<GroupCount>& groups) {
  const auto a = sum(groups, "a"), b = sum(groups, "b"), c = sum(groups, "c"), d = sum(groups, "d");
  if (!a || !b || !c || !d) return std::nullopt;
  return GasHeatCapacity{{*a - 37.93, *b + 0.210, *c - 3.91e-4, *d + 2.06e-7},
                         "estimated: Joback, Reid 1987",
                         'C',
                         std::nullopt};
}

GroupEstimate estimate_from_groups(const std::vector<GroupCount>& groups, std::optional<double> Tb_K) {
  GroupEstimate estimate;
  if (const auto tb = sum(groups, "tb")) estimate.Tb_K = 198.2 + *tb;
  if (const auto tf = sum(groups, "tf")) estimate.Tm_K = 122.5 + *tf;
  const std::optional<double> boiling = Tb_K ? Tb_K : estimate.Tb_K;
  if (const auto tc = sum(groups, "tc"); tc && boiling)
    estimate.Tc_K = *boiling / (0.584 + 0.965 * *tc - *tc * *tc);
  int atoms = 0;
  for (const auto& [element, count] : atoms_of(groups)) atoms += count;
  if (const auto pc = sum(groups, "pc")) estimate.Pc_Pa = 1e5 * std::pow(0.113 + 0.0032 * atoms - *pc, -2);
  if (const auto vc = sum(groups, "vc")) estimate.Vc_m3_mol = 1e-6 * (17.5 + *vc);
  if (const auto h = sum(groups, "hform")) estimate.Hf_J_mol = 1000 * (68.29 + *h);
  if (const auto g = sum(groups, "gform")) estimate.Gf_J_mol = 1000 * (53.88 + *g);
  if (const auto hv = sum(groups, "hv")) estimate.Hvap_Tb_J_mol = 1000 * (15.30 + *hv);
  estimate.gas_heat_capacity = gas_heat_capacity_from_groups(groups);
  const auto eta_a = sum(groups, "eta_a"), eta_b = sum(groups, "eta_b");
  if (eta_a && eta_b) {
    const double molar_mass_g = 1000 * molar_mass_from_formula(formula_of(groups));
    estimate.liquid_viscosity = LiquidViscosity{*eta_a - 597.82, *eta_b - 11.202 + std::log(molar_mass_g),
                                                "estimated: Joback, Reid 1987"};
  }
  return estimate;
}

}  // namespace jampot
