#include "jampot/substance/bank.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <optional>
#include <unordered_set>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/bank_tables.hpp"
#include "jampot_data.hpp"

namespace jampot {

namespace {

bool is_called(const Substance& substance, std::string_view text) {
  const std::string wanted = lower_case(text);
  const auto same = [&](const std::string& key) { return lower_case(key) == wanted; };
  return same(substance.name) || same(substance.formula) || same(substance.cas) ||
         std::any_of(substance.aliases.begin(), substance.aliases.end(), same);
}

}  // namespace

const Bank& Bank::built_in() {
  // Never destroyed: what ends with the program need not be taken apart before.
  static const Bank& bank = *new Bank(
      read_bank({jampot_data::substances_csv(), jampot_data::vapour_pressure_csv(),
                 jampot_data::gas_heat_capacity_csv(), jampot_data::liquid_density_csv(),
                 jampot_data::liquid_viscosity_csv(), jampot_data::groups_csv(), jampot_data::mosced_csv(),
                 jampot_data::pc_saft_csv(), jampot_data::hayden_oconnell_csv(),
                 jampot_data::constant_groups_csv(), jampot_data::liquid_heat_capacity_csv(),
                 jampot_data::vapour_pressure_curve_csv(), jampot_data::vaporisation_curve_csv(),
                 jampot_data::liquid_density_curve_csv(), jampot_data::gas_heat_capacity_curve_csv(),
                 jampot_data::gas_heat_capacity_point_csv(), jampot_data::dimerisation_csv()}));
  return bank;
}

Bank::Bank(std::vector<Substance> substances) : substances_(std::move(substances)) {
  std::unordered_set<std::string> ambiguous;
  for (std::size_t k = 0; k < substances_.size(); ++k) {
    const Substance& substance = substances_[k];
    std::vector<std::string> keys{substance.name, substance.cas, substance.formula};
    keys.insert(keys.end(), substance.aliases.begin(), substance.aliases.end());
    for (const std::string& key : keys) {
      const auto [found, fresh] = by_key_.emplace(lower_case(key), k);
      if (!fresh && found->second != k) ambiguous.insert(found->first);
    }
  }
  for (const std::string& key : ambiguous) by_key_.erase(key);
}

const Substance* Bank::find(std::string_view text) const {
  const auto found = by_key_.find(lower_case(trimmed(text)));
  return found == by_key_.end() ? nullptr : &substances_[found->second];
}

const Substance& Bank::require(std::string_view text) const {
  if (const Substance* found = find(text)) return *found;
  std::vector<std::string> names, exact;
  for (const Substance* candidate : search(text)) {
    names.push_back(candidate->name);
    if (is_called(*candidate, trimmed(text))) exact.push_back(candidate->name);
  }
  if (exact.size() > 1) {
    throw UnknownSubstance(fmt::format("'{}' may mean {}; choose one by its name or CAS number",
                                       trimmed(text), joined(exact, " or ")),
                           std::string(trimmed(text)), exact);
  }
  std::string message = fmt::format(
      "'{}' is not the name, an alias, the formula or the CAS number of a substance in the databank.",
      trimmed(text));
  if (names.empty()) {
    message += " 'jampot find TEXT' searches it.";
  } else {
    if (names.size() > 3) names.resize(3);
    message += fmt::format(" Nearest: {}.", joined(names, ", "));
  }
  throw UnknownSubstance(message, std::string(trimmed(text)), names);
}

namespace {

// How far a key is from what was typed, in the order in which people expect matches: the key itself, its
// beginning, the beginning of one of its words, either of them misspelt, any part of it. Nothing where it is
// none of these.
std::optional<double> distance(const std::string& wanted, const std::string& key) {
  const std::string candidate = lower_case(key);
  if (candidate == wanted) return 0;
  if (candidate.starts_with(wanted)) return 1;
  const std::size_t most = wanted.size() < 4 ? 1 : 1 + wanted.size() / 4;
  const auto allowed = static_cast<double>(most);
  std::optional<double> best;
  const auto take = [&](double score) { best = std::min(score, best.value_or(score)); };
  for (std::size_t start = 0; start < candidate.size(); ++start) {
    const bool word = start == 0 || !std::isalnum(static_cast<unsigned char>(candidate[start - 1]));
    if (!word) continue;
    const std::string rest = candidate.substr(start);
    if (rest.starts_with(wanted)) take(2);
    if (wanted.size() < 4) continue;
    for (std::size_t size = wanted.size() - 1; size <= wanted.size() + 1 && size <= rest.size(); ++size) {
      const auto errors =
          static_cast<double>(edit_distance(wanted, std::string_view(rest).substr(0, size), most));
      if (errors <= allowed) take(2 + errors + (size < rest.size() ? 0.5 : 0));
    }
  }
  const auto errors = static_cast<double>(edit_distance(wanted, candidate, most));
  if (errors <= allowed) take(2 + errors);
  if (candidate.find(wanted) != std::string::npos) take(4);
  return best;
}

}  // namespace

std::vector<const Substance*> Bank::search(std::string_view text) const {
  const std::string wanted = lower_case(trimmed(text));
  if (wanted.empty()) return {};
  struct Scored {
    double distance;
    const Substance* substance;
  };
  std::vector<Scored> scored;
  for (const Substance& substance : substances_) {
    std::optional<double> best = distance(wanted, substance.name);
    const auto take = [&](std::optional<double> score) {
      if (score) best = std::min(*score, best.value_or(*score));
    };
    if (substance.cas == wanted || lower_case(substance.formula) == wanted) take(0);
    constexpr double by_another_name = 0.3;
    for (const std::string& alias : substance.aliases) {
      if (const auto score = distance(wanted, alias)) take(*score + (*score > 0 ? by_another_name : 0));
    }
    if (best) scored.push_back({*best, &substance});
  }
  std::stable_sort(scored.begin(), scored.end(), [](const Scored& a, const Scored& b) {
    if (a.distance != b.distance) return a.distance < b.distance;
    // Of equals those that begin with a letter: a locant or a parent name comes behind.
    return std::isalpha(static_cast<unsigned char>(a.substance->name.front())) != 0 &&
           std::isalpha(static_cast<unsigned char>(b.substance->name.front())) == 0;
  });
  // Where something fits well, what fits badly is noise.
  constexpr double part_of_a_name = 2.3, little_worse = 0.5;
  std::vector<const Substance*> matches;
  for (const Scored& entry : scored) {
    if (entry.distance > std::max(part_of_a_name, scored.front().distance + little_worse)) break;
    matches.push_back(entry.substance);
  }
  return matches;
}

std::string data_version() {
  const CsvTable table(jampot_data::version_csv(), "version.csv");
  return std::string(table.text(0, table.column("version")));
}

}  // namespace jampot
