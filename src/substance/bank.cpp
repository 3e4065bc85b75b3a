#include "jampot/substance/bank.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "../basis/made_on_demand.hpp"
#include "bank_reader.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot_data.hpp"
#include "name_index.hpp"

namespace jampot {

namespace {

bool is_called(const SubstanceIdentity& one, std::string_view text) {
  const std::string wanted = lower_case(text);
  const auto same = [&](const std::string& key) { return lower_case(key) == wanted; };
  return same(one.name) || same(one.formula) || same(one.cas) ||
         std::any_of(one.aliases.begin(), one.aliases.end(), same);
}

std::vector<SubstanceIdentity> identities_of(const std::vector<Substance>& substances) {
  std::vector<SubstanceIdentity> identities;
  identities.reserve(substances.size());
  for (const Substance& one : substances)
    identities.push_back({one.name, one.formula, one.cas, one.aliases, one.molar_mass_kg_mol});
  return identities;
}

}  // namespace

// Either substances that were given, or tables from which each is read when it is first asked for.
struct Bank::Contents {
  explicit Contents(std::vector<Substance> list)
      : given(std::move(list)), own_identities(jampot::identities_of(given)), names(own_identities) {}
  explicit Contents(const BankTables& tables)
      : reader(std::in_place, tables),
        names(reader->identities()),
        read(std::in_place, reader->identities().size()) {}

  std::size_t size() const { return read ? read->size() : given.size(); }
  const Substance& substance(std::size_t number) const {
    return read ? read->at(number, [&](std::size_t k) { return reader->make(k); }) : given[number];
  }
  std::span<const Substance> all() const {
    return read ? read->all([&](std::size_t k) { return reader->make(k); }) : given;
  }

  std::vector<Substance> given;
  std::vector<SubstanceIdentity> own_identities;  ///< of those given
  std::optional<BankReader> reader;
  NameIndex names;
  std::optional<MadeOnDemand<Substance>> read;
};

const Bank& Bank::built_in() {
  // Never destroyed: what ends with the program need not be taken apart before.
  static const Bank& bank = *new Bank(std::make_shared<const Contents>(BankTables{
      jampot_data::substances_csv(), jampot_data::vapour_pressure_csv(), jampot_data::gas_heat_capacity_csv(),
      jampot_data::liquid_density_csv(), jampot_data::liquid_viscosity_csv(), jampot_data::groups_csv(),
      jampot_data::mosced_csv(), jampot_data::pc_saft_csv(), jampot_data::hayden_oconnell_csv(),
      jampot_data::constant_groups_csv(), jampot_data::liquid_heat_capacity_csv(),
      jampot_data::vapour_pressure_curve_csv(), jampot_data::vaporisation_curve_csv(),
      jampot_data::liquid_density_curve_csv(), jampot_data::gas_heat_capacity_curve_csv(),
      jampot_data::gas_heat_capacity_point_csv(), jampot_data::dimerisation_csv()}));
  return bank;
}

Bank::Bank(std::vector<Substance> substances)
    : contents_(std::make_shared<const Contents>(std::move(substances))) {}

std::size_t Bank::size() const {
  return contents_->size();
}

std::span<const Substance> Bank::all() const {
  return contents_->all();
}

const Substance* Bank::find(std::string_view text) const {
  const auto found = contents_->names.find(text);
  return found ? &contents_->substance(*found) : nullptr;
}

const SubstanceIdentity* Bank::identity(std::string_view text) const {
  const auto found = contents_->names.find(text);
  return found ? &contents_->names[*found] : nullptr;
}

const Substance& Bank::require(std::string_view text) const {
  if (const Substance* found = find(text)) return *found;
  std::vector<std::string> names, exact;
  for (const std::size_t number : contents_->names.search(text)) {
    const SubstanceIdentity& candidate = contents_->names[number];
    names.push_back(candidate.name);
    if (is_called(candidate, trimmed(text))) exact.push_back(candidate.name);
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

std::vector<const Substance*> Bank::search(std::string_view text) const {
  std::vector<const Substance*> matches;
  for (const std::size_t number : contents_->names.search(text))
    matches.push_back(&contents_->substance(number));
  return matches;
}

std::string data_version() {
  const CsvTable table(jampot_data::version_csv(), "version.csv");
  return std::string(table.text(0, table.column("version")));
}

}  // namespace jampot
