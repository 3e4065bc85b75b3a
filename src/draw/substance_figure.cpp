#include "jampot/draw/substance_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

// What a panel shows of a state; nothing where the state has no such value.
struct Shown {
  std::string label;
  bool logarithmic;
  std::function<std::optional<double>(const StateProperties&)> value;
};

std::function<std::optional<double>(const StateProperties&)> of_phase(
    std::optional<PhaseProperties> StateProperties::*phase, Property PhaseProperties::*member,
    double from_si) {
  return [=](const StateProperties& state) -> std::optional<double> {
    if (!(state.*phase)) return std::nullopt;
    const std::optional<double>& value = ((*(state.*phase)).*member).value;
    return value ? std::optional<double>(*value * from_si) : std::nullopt;
  };
}

// The curves of one panel; none where no curve has two points.
std::optional<Panel> panel_of(const Shown& shown, const std::vector<std::vector<StateProperties>>& states,
                              const std::vector<std::string>& names, const DisplayUnits& units) {
  Panel panel;
  double low = HUGE_VAL, high = -HUGE_VAL, cold = HUGE_VAL, hot = -HUGE_VAL;
  for (std::size_t k = 0; k < states.size(); ++k) {
    Series series{{}, names[k], k == 0 ? Stroke::solid : Stroke::dashed, Mark::none, static_cast<int>(k)};
    for (const StateProperties& state : states[k]) {
      const auto y = shown.value(state);
      if (!y || (shown.logarithmic && *y <= 0)) continue;
      const double x = from_si(state.T_K, units.temperature, Dimension::temperature);
      series.spots.push_back({x, *y});
      low = std::min(low, *y);
      high = std::max(high, *y);
      cold = std::min(cold, x);
      hot = std::max(hot, x);
    }
    if (series.spots.size() > 1) panel.series.push_back(std::move(series));
  }
  if (panel.series.empty()) return std::nullopt;
  panel.x = rounded_axis(fmt::format("temperature / {}", printed_unit(units.temperature)), cold, hot);
  if (shown.logarithmic) {
    panel.y = logarithmic_axis(shown.label, low, high);
  } else {
    panel.y = rounded_axis(shown.label, low, high);
  }
  return panel;
}

}  // namespace

Figure substance_comparison_figure(const Substance& own, const Substance& other, const DisplayUnits& units) {
  for (const Substance* substance : {&own, &other}) {
    if (substance->vapour_pressure && substance->vapour_pressure->Tc_K()) continue;
    throw CalculationError(
        fmt::format("{} has no vapour pressure up to a critical point, so there are no curves "
                    "at saturation to lay over each other",
                    substance->name));
  }
  const double Tc_K = std::min(*own.vapour_pressure->Tc_K(), *other.vapour_pressure->Tc_K());
  const double from =
      std::max({0.45 * Tc_K, own.vapour_pressure->lowest_K(), other.vapour_pressure->lowest_K()});
  std::vector<std::vector<StateProperties>> states(2);
  constexpr int steps = 60;
  for (int k = 0; k <= steps; ++k) {
    const double T_K = from + (0.95 * Tc_K - from) * k / steps;
    states[0].push_back(properties_at_saturation(own, T_K, {}));
    states[1].push_back(properties_at_saturation(other, T_K, {}));
  }
  const auto liquid = [](Property PhaseProperties::*member, double from_si) {
    return of_phase(&StateProperties::liquid, member, from_si);
  };
  const auto vapour = [](Property PhaseProperties::*member, double from_si) {
    return of_phase(&StateProperties::vapour, member, from_si);
  };
  const std::vector<Shown> shown{
      {fmt::format("vapour pressure / {}", printed_unit(units.pressure)), true,
       [&](const StateProperties& state) {
         return std::optional<double>(from_si(state.P_Pa, units.pressure, Dimension::pressure));
       }},
      {"Hvap / (kJ/mol)", false,
       [](const StateProperties& state) -> std::optional<double> {
         if (!state.vapour->h_J_mol.value || !state.liquid->h_J_mol.value) return std::nullopt;
         return (*state.vapour->h_J_mol.value - *state.liquid->h_J_mol.value) / 1000;
       }},
      {"liquid volume / (cm3/mol)", false, liquid(&PhaseProperties::molar_volume_m3_mol, 1e6)},
      {"vapour volume / (l/mol)", true, vapour(&PhaseProperties::molar_volume_m3_mol, 1e3)},
      {"liquid Cp / (J/(mol K))", false, liquid(&PhaseProperties::Cp_J_mol_K, 1)},
      {"gas Cp / (J/(mol K))", false, vapour(&PhaseProperties::Cp_J_mol_K, 1)},
      {"fugacity coefficient", false, vapour(&PhaseProperties::fugacity_coefficient, 1)},
      {"liquid viscosity / (mPa s)", true, liquid(&PhaseProperties::viscosity_Pa_s, 1e3)}};
  Figure figure;
  figure.title = fmt::format("{} beside {}, at saturation", own.name, other.name);
  figure.footer = fmt::format("{}: {}; {}: {}", own.name, own.vapour_pressure->source(), other.name,
                              other.vapour_pressure->source());
  figure.columns = 3;
  figure.width = 1500;
  figure.height = 1100;
  for (const Shown& entry : shown) {
    if (auto panel = panel_of(entry, states, {own.short_name(), other.short_name()}, units)) {
      figure.panels.push_back(std::move(*panel));
    }
  }
  return figure;
}

Figure state_figure(const std::string& title, const std::vector<StateProperties>& states,
                    const DisplayUnits& units) {
  struct Row {
    const char* label;
    Property PhaseProperties::*member;
    double from_si;
    bool logarithmic;
  };
  const std::vector<Row> rows{{"density / (kg/m3)", &PhaseProperties::density_kg_m3, 1, true},
                              {"Cp / (J/(mol K))", &PhaseProperties::Cp_J_mol_K, 1, false},
                              {"enthalpy / (kJ/mol)", &PhaseProperties::h_J_mol, 1e-3, false},
                              {"entropy / (J/(mol K))", &PhaseProperties::s_J_mol_K, 1, false},
                              {"viscosity / (mPa s)", &PhaseProperties::viscosity_Pa_s, 1e3, true},
                              {"fugacity coefficient", &PhaseProperties::fugacity_coefficient, 1, false}};
  Figure figure;
  figure.title = title;
  figure.columns = 2;
  figure.height = 1000;
  for (const Row& row : rows) {
    // Both phases as two runs of states, each showing its own phase.
    std::vector<std::vector<StateProperties>> runs(2, states);
    for (StateProperties& state : runs[0]) state.vapour.reset();
    for (StateProperties& state : runs[1]) state.liquid.reset();
    const auto value = [row](const StateProperties& state) -> std::optional<double> {
      const auto& phase = state.liquid ? state.liquid : state.vapour;
      if (!phase || !((*phase).*row.member).value) return std::nullopt;
      return *((*phase).*row.member).value * row.from_si;
    };
    if (auto panel = panel_of({row.label, row.logarithmic, value}, runs, {"liquid", "vapour"}, units)) {
      figure.panels.push_back(std::move(*panel));
    }
  }
  if (figure.panels.empty()) throw CalculationError("there are not two states to draw a curve through");
  return figure;
}

}  // namespace jampot
