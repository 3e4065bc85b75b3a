#include "jampot/report/substance.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "fields.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/substance_figure.hpp"

namespace jampot {

Answer answer(const FindStudy& study, const AnswerOptions&) {
  Answer answer;
  *answer.json = plain_header("find");
  Table table{
      "", {{"name"}, {"formula"}, {"CAS"}, {"boils", Dimension::temperature, 2}, {"also called"}}, {}};
  for (const Substance& match : study.matches) {
    (*answer.json)["matches"].push_back({{"name", match.name},
                                         {"formula", match.formula},
                                         {"cas", match.cas},
                                         {"aliases", match.aliases},
                                         {"Tb_K", match.Tb_K ? Json(match.Tb_K->value) : Json(nullptr)}});
    table.rows.push_back({match.name, match.formula, match.cas, match.Tb_K ? Cell(match.Tb_K->value) : Cell(),
                          joined(match.aliases, ", ")});
  }
  answer.tables.push_back(std::move(table));
  answer.notices = study.notices;
  return answer;
}

namespace {

Json substance_header(const std::string& command, const Substance& substance) {
  Json json = plain_header(command);
  json["substances"].push_back(to_json(substance));
  if (const auto& curve = substance.vapour_pressure) {
    json["parameters"].push_back(
        {{"substance", substance.name},
         {"property", "vapour pressure"},
         {"source", curve->source()},
         {"grade", std::string(1, curve->grade())},
         {"range_K", curve->estimated() ? Json(nullptr) : Json({curve->Tmin_K(), curve->Tmax_K()})}});
  }
  return json;
}

struct ConstantRow {
  const char *name, *key;
  MaybeSourced Substance::*member;
  double from_si;
  const char* unit;
  int digits;
};

const std::vector<ConstantRow>& constant_rows() {
  static const std::vector<ConstantRow> rows{
      {"normal boiling point", "Tb_K", &Substance::Tb_K, 1, "K", 2},
      {"melting point", "Tm_K", &Substance::Tm_K, 1, "K", 2},
      {"critical temperature", "Tc_K", &Substance::Tc_K, 1, "K", 2},
      {"critical pressure", "Pc_Pa", &Substance::Pc_Pa, 1e-5, "bar", 2},
      {"critical volume", "Vc_m3_mol", &Substance::Vc_m3_mol, 1e6, "cm3/mol", 1},
      {"acentric factor", "acentric_factor", &Substance::acentric_factor, 1, "", 3},
      {"dipole moment", "dipole_D", &Substance::dipole_D, 1, "D", 2},
      {"Rackett Z_RA", "Z_RA", &Substance::Z_RA, 1, "", 4},
      {"liquid molar volume, 25 degC", "molar_volume_25C_m3_mol", &Substance::molar_volume_25C_m3_mol, 1e6,
       "cm3/mol", 2},
      {"liquid density, 20 degC", "density_20C_kg_m3", &Substance::density_20C_kg_m3, 1, "kg/m3", 1},
      {"liquid density, 25 degC", "density_25C_kg_m3", &Substance::density_25C_kg_m3, 1, "kg/m3", 1},
      {"enthalpy of vaporisation, boiling point", "Hvap_Tb_J_mol", &Substance::Hvap_Tb_J_mol, 1e-3, "kJ/mol",
       2},
      {"enthalpy of vaporisation, 25 degC", "Hvap_25C_J_mol", &Substance::Hvap_25C_J_mol, 1e-3, "kJ/mol", 2},
      {"liquid heat capacity, 25 degC", "Cp_liquid_25C_J_mol_K", &Substance::Cp_liquid_25C_J_mol_K, 1,
       "J/(mol K)", 1},
      {"liquid viscosity, 25 degC", "viscosity_25C_Pa_s", &Substance::viscosity_25C_Pa_s, 1e3, "mPa s", 3},
      {"UNIQUAC r", "uniquac_r", &Substance::uniquac_r, 1, "", 4},
      {"UNIQUAC q", "uniquac_q", &Substance::uniquac_q, 1, "", 4}};
  return rows;
}

void add_sheet(const Substance& substance, Answer& answer) {
  Table table{fmt::format("{}  {}  CAS {}", substance.name, substance.formula, substance.cas),
              {{"constant"}, {"value"}, {"unit"}, {"grade"}, {"source"}},
              {}};
  Json constants{{"molar_mass_kg_mol", substance.molar_mass_kg_mol}};
  table.rows.push_back({std::string("molar mass"), fmt::format("{:.3f}", 1000 * substance.molar_mass_kg_mol),
                        std::string("g/mol"), std::string(), std::string("handbook")});
  for (const ConstantRow& row : constant_rows()) {
    const MaybeSourced& constant = substance.*row.member;
    if (!constant) {
      table.rows.push_back(
          {std::string(row.name), std::string("not known"), std::string(), std::string(), std::string()});
      continue;
    }
    constants[row.key] = {
        {"value", constant->value}, {"grade", std::string(1, constant->grade)}, {"source", constant->source}};
    table.rows.push_back({std::string(row.name),
                          fmt::format("{:.{}f}", constant->value * row.from_si, row.digits),
                          std::string(row.unit), std::string(1, constant->grade), constant->source});
  }
  (*answer.json)["constants"] = std::move(constants);
  answer.tables.push_back(std::move(table));

  Table more{"Correlations and groups", {{"what"}, {"range or make-up"}, {"grade"}, {"source"}}, {}};
  if (const auto& curve = substance.vapour_pressure) {
    const std::string range = curve->estimated()
                                  ? "no measured range"
                                  : fmt::format("{:.1f} to {:.1f} K", curve->Tmin_K(), curve->Tmax_K());
    more.rows.push_back(
        {std::string("vapour pressure"), range, std::string(1, curve->grade()), curve->source()});
  } else {
    more.rows.push_back(
        {std::string("vapour pressure"), std::string("not known"), std::string(), std::string()});
  }
  if (const auto& heat_capacity = substance.gas_heat_capacity) {
    more.rows.push_back(
        {std::string("ideal-gas heat capacity"),
         std::string(heat_capacity->hyperbolic ? "hyperbolic in T" : "cubic in T, range not printed"),
         std::string(1, heat_capacity->grade), heat_capacity->source});
  } else {
    more.rows.push_back(
        {std::string("ideal-gas heat capacity"), std::string("not known"), std::string(), std::string()});
  }
  if (const auto& mosced = substance.mosced) {
    (*answer.json)["mosced"] = {{"v_cm3_mol", mosced->v_cm3_mol},
                                {"lambda", mosced->lambda},
                                {"tau", mosced->tau},
                                {"q", mosced->q},
                                {"alpha", mosced->alpha},
                                {"beta", mosced->beta},
                                {"grade", std::string(1, mosced->grade)},
                                {"source", mosced->source}};
    more.rows.push_back(
        {std::string("MOSCED"),
         fmt::format("v {} cm3/mol, lambda {}, tau {}, q {}, alpha {}, beta {}", mosced->v_cm3_mol,
                     mosced->lambda, mosced->tau, mosced->q, mosced->alpha, mosced->beta),
         std::string(1, mosced->grade), mosced->source});
  }
  if (const auto& saft = substance.pc_saft) {
    (*answer.json)["pc_saft"] = {{"segments", saft->segments},
                                 {"diameter_A", saft->diameter_A},
                                 {"energy_K", saft->energy_K},
                                 {"association_scheme", saft->association_scheme},
                                 {"association_energy_K", saft->association_energy_K},
                                 {"association_volume", saft->association_volume},
                                 {"grade", std::string(1, saft->grade)},
                                 {"source", saft->source}};
    std::string text =
        fmt::format("m {}, sigma {} A, epsilon/k {} K", saft->segments, saft->diameter_A, saft->energy_K);
    if (!saft->association_scheme.empty()) {
      text += fmt::format(", {}, {} K, {}", saft->association_scheme, saft->association_energy_K,
                          saft->association_volume);
    }
    more.rows.push_back({std::string("PC-SAFT"), text, std::string(1, saft->grade), saft->source});
  }
  (*answer.json)["groups"] = Json::object();
  for (const auto& [model, groups] : substance.groups) {
    (*answer.json)["groups"][model] = groups;
    more.rows.push_back({"groups, " + model, groups, std::string(), std::string()});
  }
  answer.tables.push_back(std::move(more));
}

struct PropertyRow {
  const char *name, *key, *unit;
  Property PhaseProperties::*member;
  double from_si;
};

const std::vector<PropertyRow>& property_rows() {
  static const std::vector<PropertyRow> rows{
      {"density", "density_kg_m3", "kg/m3", &PhaseProperties::density_kg_m3, 1},
      {"molar volume", "molar_volume_m3_mol", "cm3/mol", &PhaseProperties::molar_volume_m3_mol, 1e6},
      {"heat capacity", "Cp_J_mol_K", "J/(mol K)", &PhaseProperties::Cp_J_mol_K, 1},
      {"enthalpy", "h_J_mol", "J/mol", &PhaseProperties::h_J_mol, 1},
      {"entropy", "s_J_mol_K", "J/(mol K)", &PhaseProperties::s_J_mol_K, 1},
      {"viscosity", "viscosity_Pa_s", "mPa s", &PhaseProperties::viscosity_Pa_s, 1e3},
      {"fugacity coefficient", "fugacity_coefficient", "", &PhaseProperties::fugacity_coefficient, 1}};
  return rows;
}

using PhaseOf = std::optional<PhaseProperties> StateProperties::*;
const std::vector<std::pair<const char*, PhaseOf>>& both_phases() {
  static const std::vector<std::pair<const char*, PhaseOf>> both{{"liquid", &StateProperties::liquid},
                                                                 {"vapour", &StateProperties::vapour}};
  return both;
}

Json state_json(const StateProperties& state) {
  Json json{{"T_K", state.T_K}, {"P_Pa", state.P_Pa}, {"saturated", state.saturated}};
  for (const auto& [name, phase] : both_phases()) {
    if (!(state.*phase)) continue;
    for (const PropertyRow& row : property_rows()) {
      const Property& entry = (*(state.*phase)).*row.member;
      json[name][row.key] = {{"value", entry.value ? Json(*entry.value) : Json(nullptr)},
                             {"method", entry.method}};
    }
  }
  return json;
}

// One state: every property with the method, or why there is none.
Table property_table(const StateProperties& state, const DisplayUnits& units) {
  Table table{fmt::format("At {:.3f} {} and {:.6g} {}{}",
                          from_si(state.T_K, units.temperature, Dimension::temperature), units.temperature,
                          from_si(state.P_Pa, units.pressure, Dimension::pressure), units.pressure,
                          state.saturated ? ", saturated" : ""),
              {{"property"}, {"phase"}, {"value"}, {"unit"}, {"method, or why there is none"}},
              {}};
  for (const auto& [name, phase] : both_phases()) {
    if (!(state.*phase)) continue;
    for (const PropertyRow& row : property_rows()) {
      const Property& entry = (*(state.*phase)).*row.member;
      table.rows.push_back(
          {std::string(row.name), std::string(name),
           entry.value ? fmt::format("{:.6g}", *entry.value * row.from_si) : std::string("none"),
           std::string(entry.value ? row.unit : ""), entry.method});
    }
  }
  return table;
}

// Several states: a row each, a table for each phase.
std::vector<Table> range_tables(const std::vector<StateProperties>& states) {
  std::vector<Table> tables;
  for (const auto& [name, phase] : both_phases()) {
    Table table{name, {{"T", Dimension::temperature, 3}, {"P", Dimension::pressure, 4}}, {}};
    for (const PropertyRow& row : property_rows()) {
      const std::string unit = *row.unit ? fmt::format(" [{}]", row.unit) : "";
      table.columns.push_back({row.name + unit, Dimension::number, 4});
    }
    for (const StateProperties& state : states) {
      if (!(state.*phase)) continue;
      std::vector<Cell> cells{state.T_K, state.P_Pa};
      for (const PropertyRow& row : property_rows()) {
        const Property& entry = (*(state.*phase)).*row.member;
        cells.push_back(entry.value ? Cell(*entry.value * row.from_si) : Cell());
      }
      table.rows.push_back(std::move(cells));
    }
    if (!table.rows.empty()) tables.push_back(std::move(table));
  }
  return tables;
}

}  // namespace

Answer answer(const SubstanceStudy& study, const AnswerOptions& options) {
  Answer answer;
  *answer.json = substance_header("substance", study.substance);
  if (study.states.empty()) {
    if (options.figure) throw RequestError("a figure needs states: `temperature` or `pressure` with a range");
    add_sheet(study.substance, answer);
    return answer;
  }
  for (const StateProperties& state : study.states) (*answer.json)["properties"].push_back(state_json(state));
  answer.notices = study.notices;
  if (study.states.size() == 1) {
    answer.tables.push_back(property_table(study.states.front(), options.units));
  } else {
    for (Table& table : range_tables(study.states)) answer.tables.push_back(std::move(table));
    // The methods are those of the whole range; the first state names them.
    for (const auto& [name, phase] : both_phases()) {
      if (!(study.states.front().*phase)) continue;
      for (const PropertyRow& row : property_rows())
        answer.lines.push_back(fmt::format("{} of the {}: {}", row.name, name,
                                           ((*(study.states.front().*phase)).*row.member).method));
    }
  }
  const std::string zero = fmt::format("enthalpy and entropy are zero for the {}", name_of(study.reference));
  if (options.figure) {
    answer.figure =
        state_figure(study.substance.name + (study.states.front().saturated ? " at saturation" : ""),
                     study.states, options.units);
    answer.figure->footer = zero;
  }
  answer.lines.push_back(zero);
  return answer;
}

namespace {

Fields<SaturationPoint> saturation_fields(const VapourPressure& curve) {
  using S = SaturationPoint;
  const auto range = [&curve](const S& point) {
    return curve.estimated() ? "estimated" : curve.covers(point.T_K) ? "in range" : "continued";
  };
  return {number_field<S>("T_K", {"T", Dimension::temperature, 3}, member_of(&S::T_K)),
          number_field<S>("P_Pa", {"P", Dimension::pressure, 4}, member_of(&S::P_Pa)),
          maybe_field<S>("Hvap_J_mol", {"Hvap [J/mol]", Dimension::number, 0}, member_of(&S::Hvap_J_mol)),
          json_field<S>("measured_range", [&curve](const S& point) { return curve.covers(point.T_K); }),
          text_field<S>("", "vapour pressure", range)};
}

// At the same temperatures as the correlation, or at the same pressures.
void add_equations(const SaturationStudy& study, Answer& answer) {
  const bool T_sought = study.held.isobaric();
  Table table{
      "Beside the correlation", {{"T", Dimension::temperature, 3}, {"P", Dimension::pressure, 4}}, {}};
  for (const SaturationByEquation& one : study.equations) {
    const std::string& name = one.equation;
    table.columns.push_back(
        {(T_sought ? "T " : "P ") + name, T_sought ? Dimension::temperature : Dimension::pressure, 4});
    table.columns.push_back(T_sought ? Column{"deviation " + name, Dimension::temperature, 3, true}
                                     : Column{"per cent " + name, Dimension::number, 3});
    table.columns.push_back({"Hvap " + name + " [J/mol]", Dimension::number, 0});
    answer.lines.push_back(fmt::format("{}: critical point {:.2f} degC, {:.4g} bar", name,
                                       one.critical.T_K - celsius_zero, one.critical.P_Pa / 1e5));
  }
  for (std::size_t k = 0; k < study.points.size(); ++k) {
    const SaturationPoint& point = study.points[k];
    std::vector<Cell> row{point.T_K, point.P_Pa};
    for (const SaturationByEquation& one : study.equations) {
      const auto& found = one.points[k];
      if (!found) {
        row.insert(row.end(), {Cell(), Cell(), Cell()});
        continue;
      }
      row.insert(row.end(), {T_sought ? found->T_K : found->P_Pa,
                             T_sought ? found->T_K - point.T_K : 100 * (found->P_Pa / point.P_Pa - 1),
                             found->Hvap_J_mol});
      (*answer.json)["equations"].push_back({{"fluid", one.equation},
                                             {"T_K", found->T_K},
                                             {"P_Pa", found->P_Pa},
                                             {"Hvap_J_mol", found->Hvap_J_mol},
                                             {"v_liquid_m3_mol", found->v_liquid_m3_mol},
                                             {"v_vapour_m3_mol", found->v_vapour_m3_mol}});
    }
    table.rows.push_back(std::move(row));
  }
  answer.tables.push_back(std::move(table));
}

}  // namespace

Answer answer(const SaturationStudy& study, const SaturationAnswerOptions& options) {
  const Substance& substance = study.substance;
  Answer answer;
  *answer.json = substance_header("saturation", substance);
  const Fields<SaturationPoint> fields = saturation_fields(*substance.vapour_pressure);
  for (const SaturationPoint& point : study.points)
    (*answer.json)["points"].push_back(json_of(fields, point));
  Table table = table_of(fmt::format("Saturation of {}", substance.name), fields, study.points);
  if (!study.equations.empty()) add_equations(study, answer);
  answer.notices = study.notices;
  answer.lines.push_back(fmt::format("vapour pressure: {}", substance.vapour_pressure->source()));
  answer.lines.push_back("enthalpy of vaporisation: " +
                         enthalpy_of_vaporisation(substance, study.coldest_K()).method);
  answer.tables.push_back(std::move(table));
  answer.figure = saturation_figure(substance, study.points, options.axes, options.units);
  return answer;
}

}  // namespace jampot
