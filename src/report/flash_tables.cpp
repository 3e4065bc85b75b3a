#include "flash_tables.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "fields.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

double molar_mass(std::span<const double> x, const std::vector<Substance>& substances) {
  double M = 0;
  for (std::size_t i = 0; i < x.size(); ++i) M += x[i] * substances[i].molar_mass_kg_mol;
  return M;
}

Property density(const PhaseEnergy& energy, double M) {
  if (!energy.molar_volume_m3_mol.value) return energy.molar_volume_m3_mol;
  return {M / *energy.molar_volume_m3_mol.value, energy.molar_volume_m3_mol.method};
}

// A phase of a case.
struct PhaseRow {
  const FlashCase* flash;
  std::size_t number;

  const FlashedPhase& phase() const { return flash->state.flashed.phases[number]; }
  const PhaseEnergy& energy() const { return flash->energies[number]; }
  double moles() const { return flash->feed.total() * phase().amount; }
};

std::vector<PhaseRow> phases_of(const FlashCase& flash) {
  std::vector<PhaseRow> rows;
  for (std::size_t p = 0; p < flash.names.size(); ++p) rows.push_back({&flash, p});
  return rows;
}

Fields<PhaseRow> phase_fields(const Feed& feed, bool compared, const std::vector<Substance>& substances,
                              Basis basis) {
  const auto only = [](bool shown) { return [shown](const PhaseRow&) { return shown; }; };
  const auto M = [&substances](const PhaseRow& row) { return molar_mass(row.phase().x, substances); };
  const auto mass = [M](const PhaseRow& row) { return row.moles() * M(row); };
  const bool sized = feed.sized, flows = feed.flows;
  return {
      where(only(compared),
            text_field<PhaseRow>("", "model", [](const PhaseRow& row) { return row.flash->label; })),
      number_field<PhaseRow>("", {"T", Dimension::temperature, 2},
                             [](const PhaseRow& row) { return row.flash->state.T_K; }),
      number_field<PhaseRow>("", {"P", Dimension::pressure, 2},
                             [](const PhaseRow& row) { return row.flash->state.P_Pa; }),
      text_field<PhaseRow>("name", "phase", [](const PhaseRow& row) { return row.flash->names[row.number]; }),
      number_field<PhaseRow>("mole_share", {"mole share", Dimension::fraction, 5},
                             [](const PhaseRow& row) { return row.phase().amount; }),
      where(only(sized),
            number_field<PhaseRow>("", {"moles", flows ? Dimension::molar_flow : Dimension::amount, 4},
                                   [](const PhaseRow& row) { return row.moles(); })),
      where(only(sized),
            number_field<PhaseRow>("", {"mass", flows ? Dimension::mass_flow : Dimension::mass, 4}, mass)),
      where(only(!sized), number_field<PhaseRow>("", {"mass share", Dimension::fraction, 4},
                                                 [M, &substances](const PhaseRow& row) {
                                                   return row.phase().amount * M(row) /
                                                          molar_mass(row.flash->feed.fractions(), substances);
                                                 })),
      each_field<PhaseRow>("", basis == Basis::mole ? "x" : "w", substances, {"", Dimension::fraction, 5},
                           [&substances, basis](const PhaseRow& row) {
                             return basis == Basis::mole ? row.phase().x
                                                         : mass_fractions(row.phase().x, substances);
                           }),
      json_field<PhaseRow>("x", [](const PhaseRow& row) { return row.phase().x; }),
      json_field<PhaseRow>(
          "w", [&substances](const PhaseRow& row) { return mass_fractions(row.phase().x, substances); }),
      maybe_field<PhaseRow>("density_kg_m3", {"density", Dimension::density, 3},
                            [M](const PhaseRow& row) { return density(row.energy(), M(row)).value; }),
      maybe_field<PhaseRow>("Cp_J_mol_K", {"Cp [J/(mol K)]", Dimension::number, 2},
                            [](const PhaseRow& row) { return row.energy().Cp_J_mol_K.value; }),
      maybe_field<PhaseRow>("h_J_mol", {"h [J/mol]", Dimension::number, 1},
                            [](const PhaseRow& row) { return row.energy().h_J_mol.value; }),
      json_field_where<PhaseRow>(only(sized), flows ? "flow_mol_s" : "amount_mol",
                                 [](const PhaseRow& row) { return row.moles(); }),
      json_field_where<PhaseRow>(only(sized), flows ? "flow_kg_s" : "mass_kg", mass)};
}

// What a feed became, but for its phases one by one. The duty has a column where any case has one.
Fields<FlashCase> state_fields(const Feed& feed, bool compared, bool heat) {
  const auto only = [](bool shown) { return [shown](const FlashCase&) { return shown; }; };
  const Column duty{feed.sized ? "duty" : "duty [J/mol]",
                    !feed.sized  ? Dimension::number
                    : feed.flows ? Dimension::power
                                 : Dimension::energy,
                    3};
  return {
      where(only(compared),
            text_field<FlashCase>("", "model", [](const FlashCase& flash) { return flash.label; })),
      number_field<FlashCase>("T_K", {"T", Dimension::temperature, 3},
                              [](const FlashCase& flash) { return flash.state.T_K; }),
      number_field<FlashCase>("P_Pa", {"P", Dimension::pressure, 3},
                              [](const FlashCase& flash) { return flash.state.P_Pa; }),
      number_field<FlashCase>("vapour_fraction", {"vapour fraction", Dimension::fraction, 6},
                              [](const FlashCase& flash) { return flash.state.flashed.vapour_fraction(); }),
      text_field<FlashCase>("", "phases", [](const FlashCase& flash) { return joined(flash.names, " + "); }),
      where(only(heat), text_field<FlashCase>("", "feed",
                                              [](const FlashCase& flash) {
                                                return flash.incoming ? flash.incoming->description
                                                                      : std::string();
                                              })),
      where(only(heat),
            maybe_field<FlashCase>("", duty, [](const FlashCase& flash) { return flash.duty(); })),
      json_field<FlashCase>("feed", [](const FlashCase& flash) { return flash.feed.fractions(); }),
      json_field<FlashCase>("residual", [](const FlashCase& flash) { return flash.state.flashed.residual; }),
      json_field<FlashCase>("balance", member_of(&FlashCase::balance)),
      json_field<FlashCase>("tangent_plane_distance",
                            [](const FlashCase& flash) { return flash.state.flashed.distance; })};
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
  const Feed& feed = cases.front().feed;
  const bool compared = !cases.front().label.empty();
  const bool heat =
      std::any_of(cases.begin(), cases.end(), [](const FlashCase& c) { return c.duty().has_value(); });
  std::vector<PhaseRow> phases;
  for (const FlashCase& flash : cases) {
    const auto own = phases_of(flash);
    phases.insert(phases.end(), own.begin(), own.end());
  }
  std::vector<Table> tables{table_of("States", state_fields(feed, compared, heat), cases),
                            table_of("Phases", phase_fields(feed, compared, substances, basis), phases)};
  if (cases.size() == 1) tables.push_back(amount_table(cases.front(), substances, basis));
  return tables;
}

Json to_json(const FlashCase& flash, const std::vector<Substance>& substances) {
  Json json = json_of(state_fields(flash.feed, false, false), flash);
  json["phases"] = Json::array();
  json["amounts"] = Json::array();
  if (!flash.label.empty()) json["model"] = flash.label;
  const auto fields = phase_fields(flash.feed, false, substances, Basis::mole);
  for (const PhaseRow& row : phases_of(flash)) {
    const FlashedPhase& phase = row.phase();
    const char* const key = phase.vapour ? "y" : "x";
    if (!json.contains(key)) json[key] = phase.x;
    std::vector<double> amounts(phase.x.size());
    for (std::size_t i = 0; i < amounts.size(); ++i) amounts[i] = row.moles() * phase.x[i];
    json["amounts"].push_back({{"name", flash.names[row.number]}, {"n", amounts}});
    json["phases"].push_back(json_of(fields, row));
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
