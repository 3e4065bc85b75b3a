#include "jampot/substance/bank.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"

namespace jampot {

const Bank& Bank::built_in() {
  static const Bank bank(jampot_data::substances_csv(), jampot_data::vapour_pressure_csv());
  return bank;
}

Bank::Bank(std::string_view substances_csv, std::string_view vapour_pressure_csv) {
  read_substances(substances_csv);
  index();
  read_vapour_pressures(vapour_pressure_csv);
}

void Bank::read_substances(std::string_view csv) {
  const CsvTable table(csv, "substances.csv");
  const std::size_t name = table.column("name"), formula = table.column("formula"), cas = table.column("cas"),
                    aliases = table.column("aliases"), mass = table.column("molar_mass_g_mol"),
                    Tb = table.column("Tb_K"), Tc = table.column("Tc_K"), Pc = table.column("Pc_bar"),
                    volume = table.column("molar_volume_25C_cm3_mol"), grade = table.column("grade"),
                    source = table.column("source");
  const auto scaled = [](std::optional<double> value, double factor) {
    if (value) *value *= factor;
    return value;
  };
  for (std::size_t row = 0; row < table.rows(); ++row) {
    Substance substance;
    substance.name = table.text(row, name);
    substance.formula = table.text(row, formula);
    substance.cas = table.text(row, cas);
    for (std::string& alias : split(table.text(row, aliases), '|')) {
      if (!alias.empty()) substance.aliases.push_back(std::move(alias));
    }
    substance.molar_mass_kg_mol = table.number(row, mass) / 1000;
    substance.Tb_K = table.number_if_any(row, Tb);
    substance.Tc_K = table.number_if_any(row, Tc);
    substance.Pc_Pa = scaled(table.number_if_any(row, Pc), 1e5);
    substance.molar_volume_25C_m3_mol = scaled(table.number_if_any(row, volume), 1e-6);
    substance.grade = table.text(row, grade).front();
    substance.source = table.text(row, source);
    substances_.push_back(std::move(substance));
  }
}

void Bank::read_vapour_pressures(std::string_view csv) {
  const CsvTable table(csv, "vapour_pressure.csv");
  const std::size_t name = table.column("name"), A = table.column("A"), B = table.column("B"),
                    C = table.column("C"), Tmin = table.column("Tmin_C"), Tmax = table.column("Tmax_C"),
                    grade = table.column("grade"), source = table.column("source");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const auto found = by_key_.find(lower_case(table.text(row, name)));
    if (found == by_key_.end()) {
      throw RequestError(table.place(row, name),
                         fmt::format("'{}' is not in substances.csv", table.text(row, name)));
    }
    const VapourPressure::Coefficients coefficients{
        table.number(row, A), table.number(row, B), table.number(row, C),
        table.number(row, Tmin) + celsius_zero, table.number(row, Tmax) + celsius_zero};
    substances_[found->second].vapour_pressure.emplace(coefficients, table.text(row, source),
                                                       table.text(row, grade).front());
  }
}

void Bank::index() {
  std::map<std::string, int> formula_count;
  for (const Substance& substance : substances_) ++formula_count[lower_case(substance.formula)];
  for (std::size_t k = 0; k < substances_.size(); ++k) {
    const Substance& substance = substances_[k];
    by_key_.emplace(lower_case(substance.name), k);
    by_key_.emplace(substance.cas, k);
    for (const std::string& alias : substance.aliases) by_key_.emplace(lower_case(alias), k);
    const std::string formula = lower_case(substance.formula);
    if (formula_count[formula] == 1) by_key_.emplace(formula, k);
  }
}

const Substance* Bank::find(std::string_view text) const {
  const auto found = by_key_.find(lower_case(trimmed(text)));
  return found == by_key_.end() ? nullptr : &substances_[found->second];
}

const Substance& Bank::require(std::string_view text) const {
  if (const Substance* found = find(text)) return *found;
  std::vector<std::string> names;
  for (const Substance* candidate : search(text)) names.push_back(candidate->name);
  std::string message = fmt::format(
      "'{}' is not the name, an alias, the formula or the CAS number of a substance "
      "in the bank.",
      trimmed(text));
  if (names.empty()) {
    message += " 'jampot find TEXT' searches it.";
  } else {
    if (names.size() > 3) names.resize(3);
    message += fmt::format(" Nearest: {}.", joined(names, ", "));
  }
  throw RequestError(message);
}

std::vector<const Substance*> Bank::search(std::string_view text) const {
  const std::string wanted = lower_case(trimmed(text));
  if (wanted.empty()) return {};
  const auto distance_to = [&](const std::string& key) -> std::size_t {
    const std::string candidate = lower_case(key);
    if (candidate == wanted) return 0;
    if (candidate.starts_with(wanted)) return 1;
    if (candidate.find(wanted) != std::string::npos) return 2;
    // Misspelt: the whole key, or its beginning where only the beginning was typed.
    const std::size_t allowed = wanted.size() < 4 ? 1 : 1 + wanted.size() / 4;
    const std::size_t whole = edit_distance(wanted, candidate);
    std::size_t beginning = whole;
    if (wanted.size() >= 4) {
      for (std::size_t size = wanted.size() - 1; size <= wanted.size() + 1 && size < candidate.size();
           ++size) {
        beginning = std::min(beginning, edit_distance(wanted, candidate.substr(0, size)) + 1);
      }
    }
    const std::size_t distance = std::min(whole, beginning);
    return distance <= allowed ? 2 + distance : SIZE_MAX;
  };
  struct Scored {
    std::size_t distance;
    const Substance* substance;
  };
  std::vector<Scored> scored;
  for (const Substance& substance : substances_) {
    std::size_t best = std::min(distance_to(substance.name), substance.cas == wanted ? 0 : SIZE_MAX);
    if (lower_case(substance.formula) == wanted) best = 0;
    for (const std::string& alias : substance.aliases) best = std::min(best, distance_to(alias));
    if (best != SIZE_MAX) scored.push_back({best, &substance});
  }
  std::stable_sort(scored.begin(), scored.end(),
                   [](const Scored& a, const Scored& b) { return a.distance < b.distance; });
  std::vector<const Substance*> matches;
  for (const Scored& entry : scored) matches.push_back(entry.substance);
  return matches;
}

}  // namespace jampot
