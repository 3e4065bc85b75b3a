// substance and saturation: what is known of one molecule, and where it boils.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/draw/substance_figure.hpp"
#include "jampot/fluid/pure_saturation.hpp"
#include "jampot/substance/properties.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct SubstanceOptions {
  std::string name, at, reference = "ideal-gas";
  Condition condition;
  std::vector<std::string> substance_files;
  std::string axes = "log", compare;
  bool together = false;
  PresentationOptions presentation;
};

Json header(const std::string& command, const Substance& substance) {
  Json json = plain_header(command);
  json["substances"].push_back(jampot::to_json(substance));
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
  answer.json["constants"] = std::move(constants);
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
    answer.json["mosced"] = {{"v_cm3_mol", mosced->v_cm3_mol},
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
    answer.json["pc_saft"] = {{"segments", saft->segments},
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
  answer.json["groups"] = Json::object();
  for (const auto& [model, groups] : substance.groups) {
    answer.json["groups"][model] = groups;
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
const std::vector<std::pair<const char*, PhaseOf>>& phases() {
  static const std::vector<std::pair<const char*, PhaseOf>> both{{"liquid", &StateProperties::liquid},
                                                                 {"vapour", &StateProperties::vapour}};
  return both;
}

Json state_json(const StateProperties& state) {
  Json json{{"T_K", state.T_K}, {"P_Pa", state.P_Pa}, {"saturated", state.saturated}};
  for (const auto& [name, phase] : phases()) {
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
Table state_table(const StateProperties& state, const DisplayUnits& units) {
  Table table{fmt::format("At {:.3f} {} and {:.6g} {}{}",
                          from_si(state.T_K, units.temperature, Dimension::temperature), units.temperature,
                          from_si(state.P_Pa, units.pressure, Dimension::pressure), units.pressure,
                          state.saturated ? ", saturated" : ""),
              {{"property"}, {"phase"}, {"value"}, {"unit"}, {"method, or why there is none"}},
              {}};
  for (const auto& [name, phase] : phases()) {
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
  for (const auto& [name, phase] : phases()) {
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

void add_states(const Substance& substance, const std::vector<StateProperties>& states,
                const DisplayUnits& units, Answer& answer) {
  double low = HUGE_VAL, high = 0;
  for (const StateProperties& state : states) {
    answer.json["properties"].push_back(state_json(state));
    if (substance.Tc_K && state.T_K > *substance.Tc_K) continue;
    low = std::min(low, state.T_K);
    high = std::max(high, state.T_K);
  }
  // Each doubt once for the whole range.
  if (high > 0) answer.notices.add(vapour_pressure_notices(substance, low, high));
  for (const StateProperties& state : states) {
    for (const Notice& notice : state.notices) {
      if (!answer.notices.has(notice.code)) answer.notices.add(notice.code, notice.text);
    }
  }
  if (states.size() == 1) {
    answer.tables.push_back(state_table(states.front(), units));
    return;
  }
  for (Table& table : range_tables(states)) answer.tables.push_back(std::move(table));
  // The methods are those of the whole range; the first state names them.
  for (const auto& [name, phase] : phases()) {
    if (!(states.front().*phase)) continue;
    for (const PropertyRow& row : property_rows()) {
      answer.lines.push_back(
          fmt::format("{} of the {}: {}", row.name, name, ((*(states.front().*phase)).*row.member).method));
    }
  }
}

// Every temperature with every pressure, or the two lists in step.
std::vector<std::pair<double, double>> combinations(const std::vector<double>& T,
                                                    const std::vector<double>& P, bool together) {
  std::vector<std::pair<double, double>> pairs;
  if (!together) {
    for (const double T_K : T) {
      for (const double P_Pa : P) pairs.emplace_back(T_K, P_Pa);
    }
    return pairs;
  }
  if (T.size() != P.size()) {
    throw RequestError(
        fmt::format("--together steps both ranges in pairs, but there are {} temperatures and {} "
                    "pressures",
                    T.size(), P.size()));
  }
  for (std::size_t k = 0; k < T.size(); ++k) pairs.emplace_back(T[k], P[k]);
  return pairs;
}

Answer sheet(const SubstanceOptions& options, const Presentation& presentation) {
  const std::shared_ptr<const Bank> bank = bank_with(options.substance_files);
  const Substance& substance = bank->require(options.name);
  const Reference reference = parse_reference(options.reference);
  Answer answer;
  answer.json = header("substance", substance);
  const std::string& temperature = options.condition.temperature;
  const std::string& pressure = options.condition.pressure;
  if (temperature.empty() && pressure.empty()) {
    if (!presentation.figure.empty()) {
      throw RequestError("a figure needs states: --temperature or --pressure with a range");
    }
    add_sheet(substance, answer);
    return answer;
  }
  std::vector<double> T, P;
  if (!temperature.empty()) T = parse_quantities(temperature, Dimension::temperature);
  if (!pressure.empty()) P = parse_quantities(pressure, Dimension::pressure);
  demand_count("states",
               static_cast<double>(std::max<std::size_t>(1, T.size())) *
                   static_cast<double>(options.together ? 1 : std::max<std::size_t>(1, P.size())),
               most_states);
  std::vector<StateProperties> states;
  std::size_t wanted = 0;
  std::string why;
  // In a range a state that does not exist is left out and said so; alone it is refused.
  const auto take = [&](const std::function<StateProperties()>& state) {
    ++wanted;
    try {
      states.push_back(state());
    } catch (const CalculationError& error) {
      why = error.what();
    }
  };
  if (P.empty()) {
    for (const double T_K : T) take([&] { return properties_at_saturation(substance, T_K, reference); });
  } else if (T.empty()) {
    for (const double P_Pa : P) {
      take([&] {
        return properties_at_saturation(substance, saturation_at_pressure(substance, P_Pa).T_K, reference);
      });
    }
  } else {
    for (const auto& [T_K, P_Pa] : combinations(T, P, options.together)) {
      take([&, T_K = T_K, P_Pa = P_Pa] { return properties_at(substance, T_K, P_Pa, reference); });
    }
  }
  if (states.empty()) throw CalculationError(why);
  if (states.size() < wanted) {
    answer.notices.add("points-left-out",
                       fmt::format("{} of {} states were left out: {}", wanted - states.size(), wanted, why));
  }
  add_states(substance, states, presentation.units, answer);
  if (!presentation.figure.empty()) {
    answer.figure =
        state_figure(fmt::format("{}{}", substance.name, states.front().saturated ? " at saturation" : ""),
                     states, presentation.units);
    answer.figure->footer = fmt::format("enthalpy and entropy are zero for the {}", name_of(reference));
  }
  answer.lines.push_back(fmt::format("enthalpy and entropy are zero for the {}", name_of(reference)));
  return answer;
}

// Saturation by equations of state beside the correlation, at the same temperatures (at given pressures: T).
void add_equations(const Substance& substance, const std::string& list, Sought sought,
                   const std::vector<SaturationPoint>& points, Answer& answer) {
  const bool T_sought = sought == Sought::temperature;
  Table table{
      "Beside the correlation", {{"T", Dimension::temperature, 3}, {"P", Dimension::pressure, 4}}, {}};
  std::vector<std::unique_ptr<EquationOfState>> equations;
  for (const std::string& name : split(list, ',')) {
    if (name.empty()) continue;
    equations.push_back(make_equation(name, {substance}));
    table.columns.push_back(
        {(T_sought ? "T " : "P ") + name, T_sought ? Dimension::temperature : Dimension::pressure, 4});
    table.columns.push_back(T_sought ? Column{"deviation " + name, Dimension::temperature, 3, true}
                                     : Column{"per cent " + name, Dimension::number, 3});
    table.columns.push_back({"Hvap " + name + " [J/mol]", Dimension::number, 0});
    const PureCritical critical = pure_critical(*equations.back(), 0);
    answer.lines.push_back(fmt::format("{}: critical point {:.2f} degC, {:.4g} bar", name,
                                       critical.T_K - celsius_zero, critical.P_Pa / 1e5));
    for (const Notice& notice : equations.back()->notices()) answer.notices.add(notice.code, notice.text);
  }
  for (const SaturationPoint& point : points) {
    std::vector<Cell> row{point.T_K, point.P_Pa};
    for (const auto& equation : equations) {
      const auto found =
          T_sought ? pure_saturation_T(*equation, 0, point.P_Pa) : pure_saturation_P(*equation, 0, point.T_K);
      if (!found) {
        row.insert(row.end(), {Cell(), Cell(), Cell()});
        continue;
      }
      row.insert(row.end(), {T_sought ? found->T_K : found->P_Pa,
                             T_sought ? found->T_K - point.T_K : 100 * (found->P_Pa / point.P_Pa - 1),
                             found->Hvap_J_mol});
      answer.json["equations"].push_back({{"fluid", equation->name()},
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

Answer saturation(const SubstanceOptions& options, const Presentation& presentation) {
  const std::shared_ptr<const Bank> bank = bank_with(options.substance_files);
  const Substance& substance = bank->require(options.name);
  const Held held = read_held(options.condition);
  if (options.axes != "log" && options.axes != "linear") {
    throw RequestError(
        fmt::format("--axes '{}': expected log (log P against 1/T) or linear (P against T)", options.axes));
  }
  Answer answer;
  std::vector<SaturationPoint> points;
  int beyond = 0;
  std::string why;
  for (const double value : held.values) {
    try {
      // The value that is given is the one that is held: at a pressure the temperature is sought.
      points.push_back(held.sought == Sought::temperature ? saturation_at_pressure(substance, value)
                                                          : saturation_at_temperature(substance, value));
    } catch (const CalculationError& error) {
      ++beyond;
      why = error.what();
    }
  }
  if (points.empty()) throw CalculationError(why);
  if (beyond > 0) {
    answer.notices.add("points-left-out",
                       fmt::format("{} of {} points were left out: {}", beyond, held.values.size(), why));
  }
  answer.json = header("saturation", substance);
  Table table{fmt::format("Saturation of {}", substance.name),
              {{"T", Dimension::temperature, 3},
               {"P", Dimension::pressure, 4},
               {"Hvap [J/mol]", Dimension::number, 0},
               {"vapour pressure"}},
              {}};
  double low = HUGE_VAL, high = 0;
  for (const SaturationPoint& point : points) {
    const VapourPressure& curve = *substance.vapour_pressure;
    answer.json["points"].push_back(
        {{"T_K", point.T_K},
         {"P_Pa", point.P_Pa},
         {"Hvap_J_mol", point.Hvap_J_mol ? Json(*point.Hvap_J_mol) : Json(nullptr)},
         {"measured_range", curve.covers(point.T_K)}});
    table.rows.push_back({point.T_K, point.P_Pa, point.Hvap_J_mol ? Cell(*point.Hvap_J_mol) : Cell(),
                          std::string(curve.estimated()         ? "estimated"
                                      : curve.covers(point.T_K) ? "in range"
                                                                : "continued")});
    low = std::min(low, point.T_K);
    high = std::max(high, point.T_K);
  }
  if (!options.compare.empty()) add_equations(substance, options.compare, held.sought, points, answer);
  answer.notices.add(vapour_pressure_notices(substance, low, high));
  answer.lines.push_back(fmt::format("vapour pressure: {}", substance.vapour_pressure->source()));
  answer.lines.push_back("enthalpy of vaporisation: " + enthalpy_of_vaporisation(substance, low).method);
  answer.tables.push_back(std::move(table));
  answer.figure = saturation_figure(
      substance, points,
      options.axes == "log" ? SaturationAxes::log_P_against_inverse_T : SaturationAxes::P_against_T,
      presentation.units);
  return answer;
}

}  // namespace

void add_substance(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<SubstanceOptions>();
  CLI::App* command =
      tool.add_subcommand("substance", "One substance: constants, sources, and properties at a state");
  command->add_option("NAME", options->name, "Name, alias, formula or CAS number")->required()->type_name("");
  command
      ->add_option("--at,--temperature", options->condition.temperature,
                   "Properties at this temperature; saturated "
                   "unless a pressure is given too")
      ->type_name("QUANTITY");
  command
      ->add_option("--pressure", options->condition.pressure,
                   "Properties at this pressure; saturated unless a "
                   "temperature is given too")
      ->type_name("QUANTITY");
  command
      ->add_option("--reference-enthalpy", options->reference,
                   "Where h and s are zero: ideal-gas (1 atm; default), liquid (saturated), either with a "
                   "temperature (\"liquid at 0 degC\"; else 25 degC), or elements")
      ->type_name("STATE");
  command->add_flag("--together", options->together,
                    "Step the ranges of temperature and pressure in pairs instead of combining all");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, true);
  command->footer("Example:\n  jampot substance MTBE --at \"25, 55 degC\"");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(sheet(*options, presentation), presentation);
  });
}

void add_saturation(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<SubstanceOptions>();
  CLI::App* command = tool.add_subcommand("saturation", "Boiling curve of one substance: P at T or T at P");
  command->add_option("NAME", options->name, "Name, alias, formula or CAS number")->required()->type_name("");
  add_condition(*command, options->condition);
  command
      ->add_option("--compare", options->compare,
                   "Beside the correlation by equations of state: \"srk, pr, pc-saft\"")
      ->type_name("LIST");
  command
      ->add_option("--axes", options->axes,
                   "Of the figure: log (log P against 1/T; default) or linear (P against T)")
      ->type_name("KIND");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example:\n  jampot saturation water --pressure \"0.1 to 20 by 0.5 bar\" --figure water.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(saturation(*options, presentation), presentation);
  });
}

}  // namespace jampot::tool
