#include "flash_tables.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "jampot/basis/text.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

Cell cell(const Property& property) {
  return property.value ? Cell(*property.value) : Cell();
}

Cell cell(const std::optional<double>& value) {
  return value ? Cell(*value) : Cell();
}

double molar_mass(std::span<const double> x, const std::vector<Substance>& substances) {
  double M = 0;
  for (std::size_t i = 0; i < x.size(); ++i) M += x[i] * substances[i].molar_mass_kg_mol;
  return M;
}

Property density(const PhaseEnergy& energy, double M) {
  if (!energy.molar_volume_m3_mol.value) return energy.molar_volume_m3_mol;
  return {M / *energy.molar_volume_m3_mol.value, energy.molar_volume_m3_mol.method};
}

Table state_table(const std::vector<FlashCase>& cases) {
  const FlashCase& first = cases.front();
  const bool compared = !first.label.empty();
  const bool heat =
      std::any_of(cases.begin(), cases.end(), [](const FlashCase& c) { return c.duty().has_value(); });
  Table table{"States", {}, {}};
  if (compared) table.columns.push_back({"model"});
  table.columns.insert(table.columns.end(), {{"T", Dimension::temperature, 3},
                                             {"P", Dimension::pressure, 3},
                                             {"vapour fraction", Dimension::fraction, 6},
                                             {"phases"}});
  if (heat) {
    table.columns.push_back({"feed"});
    table.columns.push_back({first.feed.sized ? "duty" : "duty [J/mol]",
                             !first.feed.sized  ? Dimension::number
                             : first.feed.flows ? Dimension::power
                                                : Dimension::energy,
                             3});
  }
  for (const FlashCase& flash : cases) {
    std::vector<Cell> row;
    if (compared) row.emplace_back(flash.label);
    std::vector<std::string> kinds;
    for (const std::string& name : flash.names) kinds.push_back(name);
    row.insert(row.end(), {flash.state.T_K, flash.state.P_Pa, flash.state.flashed.vapour_fraction(),
                           joined(kinds, " + ")});
    if (heat) {
      row.emplace_back(flash.incoming ? flash.incoming->description : std::string());
      row.push_back(cell(flash.duty()));
    }
    table.rows.push_back(std::move(row));
  }
  return table;
}

Table phase_table(const std::vector<FlashCase>& cases, const std::vector<Substance>& substances,
                  Basis basis) {
  const FlashCase& first = cases.front();
  const bool compared = !first.label.empty(), sized = first.feed.sized, flows = first.feed.flows;
  Table table{"Phases", {}, {}};
  if (compared) table.columns.push_back({"model"});
  table.columns.insert(table.columns.end(), {{"T", Dimension::temperature, 2},
                                             {"P", Dimension::pressure, 2},
                                             {"phase"},
                                             {"mole share", Dimension::fraction, 5}});
  if (sized) table.columns.push_back({"moles", flows ? Dimension::molar_flow : Dimension::amount, 4});
  table.columns.push_back({sized ? "mass" : "mass share",
                           !sized  ? Dimension::fraction
                           : flows ? Dimension::mass_flow
                                   : Dimension::mass,
                           4});
  for (const Substance& substance : substances)
    table.columns.push_back({fmt::format("{}({})", basis == Basis::mole ? "x" : "w", substance.short_name()),
                             Dimension::fraction, 5});
  table.columns.insert(table.columns.end(), {{"density", Dimension::density, 3},
                                             {"Cp [J/(mol K)]", Dimension::number, 2},
                                             {"h [J/mol]", Dimension::number, 1}});
  for (const FlashCase& flash : cases) {
    const double total = flash.feed.total(), feed_M = molar_mass(flash.feed.fractions(), substances);
    for (std::size_t p = 0; p < flash.names.size(); ++p) {
      const FlashedPhase& phase = flash.state.flashed.phases[p];
      const double M = molar_mass(phase.x, substances);
      std::vector<Cell> row;
      if (compared) row.emplace_back(flash.label);
      row.insert(row.end(), {flash.state.T_K, flash.state.P_Pa, flash.names[p], phase.amount});
      if (sized) row.emplace_back(total * phase.amount);
      row.emplace_back(sized ? total * phase.amount * M : phase.amount * M / feed_M);
      const std::vector<double> shown = basis == Basis::mole ? phase.x : mass_fractions(phase.x, substances);
      row.insert(row.end(), shown.begin(), shown.end());
      const PhaseEnergy& energy = flash.energies[p];
      row.insert(row.end(), {cell(density(energy, M)), cell(energy.Cp_J_mol_K), cell(energy.h_J_mol)});
      table.rows.push_back(std::move(row));
    }
  }
  return table;
}

// Of one case: how much of every substance is in every phase.
Table amount_table(const FlashCase& flash, const std::vector<Substance>& substances, Basis basis) {
  const bool sized = flash.feed.sized, mole = basis == Basis::mole;
  const Dimension dimension = !sized ? Dimension::fraction
                              : mole ? (flash.feed.flows ? Dimension::molar_flow : Dimension::amount)
                              : flash.feed.flows ? Dimension::mass_flow
                                                 : Dimension::mass;
  Table table{
      sized ? "Amounts" : "Amounts for one mole of feed", {{"substance"}, {"feed", dimension, 5}}, {}};
  for (const std::string& name : flash.names) table.columns.push_back({name, dimension, 5});
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const double scale = sized && !mole ? substances[i].molar_mass_kg_mol : 1;
    std::vector<Cell> row{substances[i].name, flash.feed.n[i] * scale};
    for (const FlashedPhase& phase : flash.state.flashed.phases)
      row.emplace_back(flash.feed.total() * phase.amount * phase.x[i] * scale);
    table.rows.push_back(std::move(row));
  }
  return table;
}

}  // namespace

std::vector<Table> flash_tables(const std::vector<FlashCase>& cases, const std::vector<Substance>& substances,
                                Basis basis) {
  std::vector<Table> tables{state_table(cases), phase_table(cases, substances, basis)};
  if (cases.size() == 1) tables.push_back(amount_table(cases.front(), substances, basis));
  return tables;
}

Json to_json(const FlashCase& flash, const std::vector<Substance>& substances) {
  const auto maybe = [](const Property& property) {
    return property.value ? Json(*property.value) : Json(nullptr);
  };
  const Flashed& flashed = flash.state.flashed;
  Json json{{"T_K", flash.state.T_K},
            {"P_Pa", flash.state.P_Pa},
            {"vapour_fraction", flashed.vapour_fraction()},
            {"feed", flash.feed.fractions()},
            {"residual", flashed.residual},
            {"balance", flash.balance},
            {"tangent_plane_distance", flashed.distance},
            {"phases", Json::array()},
            {"amounts", Json::array()}};
  if (!flash.label.empty()) json["model"] = flash.label;
  for (std::size_t p = 0; p < flash.names.size(); ++p) {
    const FlashedPhase& phase = flashed.phases[p];
    const double n = flash.feed.total() * phase.amount, M = molar_mass(phase.x, substances);
    Json entry{{"name", flash.names[p]},
               {"mole_share", phase.amount},
               {"x", phase.x},
               {"w", mass_fractions(phase.x, substances)},
               {"density_kg_m3", maybe(density(flash.energies[p], M))},
               {"Cp_J_mol_K", maybe(flash.energies[p].Cp_J_mol_K)},
               {"h_J_mol", maybe(flash.energies[p].h_J_mol)}};
    if (flash.feed.sized) {
      entry[flash.feed.flows ? "flow_mol_s" : "amount_mol"] = n;
      entry[flash.feed.flows ? "flow_kg_s" : "mass_kg"] = n * M;
    }
    const char* const key = phase.vapour ? "y" : "x";
    if (!json.contains(key)) json[key] = phase.x;
    std::vector<double> amounts(phase.x.size());
    for (std::size_t i = 0; i < amounts.size(); ++i) amounts[i] = n * phase.x[i];
    json["amounts"].push_back({{"name", flash.names[p]}, {"n", amounts}});
    json["phases"].push_back(std::move(entry));
  }
  if (flash.h_J_mol) json["h_J_mol"] = *flash.h_J_mol;
  if (flash.incoming) {
    json["feed_state"] = {{"T_K", flash.incoming->state.T_K},
                          {"P_Pa", flash.incoming->state.P_Pa},
                          {"vapour_fraction", flash.incoming->state.flashed.vapour_fraction()},
                          {"phases", flash.incoming->description}};
    json["feed_state"]["h_J_mol"] = flash.h_feed_J_mol ? Json(*flash.h_feed_J_mol) : Json(nullptr);
  }
  if (const auto heat = flash.duty()) {
    json[!flash.feed.sized ? "duty_J_mol" : flash.feed.flows ? "duty_W" : "duty_J"] = *heat;
    json["energy_balance"] = flash.energy_balance.value_or(0);
  }
  return json;
}

}  // namespace jampot
