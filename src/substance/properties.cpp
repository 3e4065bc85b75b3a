#include "jampot/substance/properties.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/enthalpy_path.hpp"
#include "jampot/substance/saturation.hpp"
#include "liquid_heat.hpp"

namespace jampot {
namespace {

Property absent(std::string why) {
  return {std::nullopt, std::move(why)};
}

// The acentric factor of the bank, or the one with which the vapour pressure passes through the boiling
// point.
std::optional<double> acentric_factor(const Substance& substance) {
  if (substance.acentric_factor) return *substance.acentric_factor;
  if (!substance.Tb_K || !substance.Tc_K || !substance.Pc_Pa) return std::nullopt;
  return CorrespondingStates::acentric_factor(*substance.Tb_K, *substance.Tc_K, *substance.Pc_Pa);
}

// What corresponding states start from: the bank; else the critical point in which the vapour pressure ends.
std::optional<CorrespondingStates::Critical> critical_point(const Substance& substance) {
  if (substance.Tc_K && substance.Pc_Pa) {
    const auto omega = acentric_factor(substance);
    if (omega) return CorrespondingStates::Critical{*substance.Tc_K, *substance.Pc_Pa, *omega};
  }
  const auto& curve = substance.vapour_pressure;
  if (!curve || !curve->Tc_K()) return std::nullopt;
  constexpr double Tr_of_definition = 0.7;
  const double Tc = *curve->Tc_K(), Pc = curve->P_Pa(Tc);
  return CorrespondingStates::Critical{Tc, Pc, -1 - std::log10(curve->P_Pa(Tr_of_definition * Tc) / Pc)};
}

double rackett_Z(const Substance& substance, double omega) {
  return substance.Z_RA ? substance.Z_RA->value : 0.29056 - 0.08775 * omega;
}

// Rowlinson-Bondi: (Cp of the liquid - Cp of the ideal gas) / R.
double departure(double Tr, double omega) {
  const double tau = 1 - Tr;
  return 1.45 + 0.45 / tau + 0.25 * omega * (17.11 + 25.2 * std::cbrt(tau) / Tr + 1.742 / tau);
}

struct Levels {  // h and s relative to the ideal gas at 298.15 K and one atmosphere
  std::optional<double> h, s;
};

// Above the ideal gas at T_K and one atmosphere, placed on that at 298.15 K.
Levels placed(const Substance& substance, double T_K, const EnthalpyPath::Levels& above) {
  return {substance.gas_heat_capacity->enthalpy_change(room_T_K, T_K) + above.h,
          substance.gas_heat_capacity->entropy_change(room_T_K, T_K) + above.s};
}

// A real vapour: ideal gas, the departure of the virial equation in P, and what its path adds.
Levels vapour_levels(const Substance& substance, double T_K, double P_Pa) {
  const auto virial = second_virial(substance, T_K);
  if (!substance.gas_heat_capacity || !virial) return {};
  EnthalpyPath::Levels above{(virial->B_m3_mol - T_K * virial->dB_dT) * P_Pa,
                             -gas_constant * std::log(P_Pa / standard_atmosphere) - virial->dB_dT * P_Pa};
  if (const auto path = virial_path(substance)) {
    const EnthalpyPath::Levels more = path->vapour(T_K, P_Pa);
    above.h += more.h;
    above.s += more.s;
  }
  return placed(substance, T_K, above);
}

Levels liquid_levels(const Substance& substance, double T_K) {
  const auto path = virial_path(substance);
  if (!path) return {};
  return placed(substance, T_K, path->liquid(T_K));
}

// Where the user's zero stands; where it cannot be placed, `why` says what is missing.
struct Zero {
  Levels levels;
  std::string why;
};

Zero zero_of(const Substance& substance, const Reference& reference) {
  const char* const missing =
      "needs the ideal-gas heat capacity, the critical point and an enthalpy of vaporisation";
  switch (reference.kind) {
    case Reference::Kind::ideal_gas:
      if (!substance.gas_heat_capacity) return {{}, missing};
      return {{substance.gas_heat_capacity->enthalpy_change(room_T_K, reference.T_K),
               substance.gas_heat_capacity->entropy_change(room_T_K, reference.T_K)},
              ""};
    case Reference::Kind::saturated_liquid:
      if (substance.Tc_K && reference.T_K >= *substance.Tc_K) {
        return {{}, "the reference temperature is above the critical point"};
      }
      return {liquid_levels(substance, reference.T_K), missing};
    case Reference::Kind::elements:
      break;
  }
  if (!substance.Hf_J_mol || !substance.Gf_J_mol) {
    return {{}, "enthalpy and Gibbs energy of formation are not known; 'define' estimates them from groups"};
  }
  return {{-*substance.Hf_J_mol, -(*substance.Hf_J_mol - *substance.Gf_J_mol) / room_T_K}, ""};
}

void set_levels(PhaseProperties& phase, const Levels& levels, const Substance& substance,
                const Reference& reference) {
  const Zero zero = zero_of(substance, reference);
  if (!zero.levels.h || !zero.levels.s) {
    phase.h_J_mol = phase.s_J_mol_K = absent(zero.why);
    return;
  }
  if (!levels.h || !levels.s) {
    phase.h_J_mol = phase.s_J_mol_K =
        absent("needs the ideal-gas heat capacity, the critical point and an enthalpy of vaporisation");
    return;
  }
  const bool known = enthalpy_of_vaporisation(substance, room_T_K).value.has_value();
  const std::string method =
      fmt::format("heat capacities, virial departure, Hvap{}; zero: {}",
                  known ? "" : " from the slope of the vapour pressure", name_of(reference));
  phase.h_J_mol = {*levels.h - *zero.levels.h, method};
  phase.s_J_mol_K = {*levels.s - *zero.levels.s, method};
}

PhaseProperties vapour_at(const Substance& substance, double T_K, double P_Pa, const Reference& reference) {
  PhaseProperties phase;
  const auto virial = second_virial(substance, T_K);
  const double ideal = gas_constant * T_K / P_Pa;
  if (virial) {
    const std::string method = fmt::format("virial equation, Tsonopoulos (non-polar form){}",
                                           substance.Pc_Pa ? "" : ", critical point from groups");
    phase.molar_volume_m3_mol = {ideal + virial->B_m3_mol, method};
    phase.fugacity_coefficient = {std::exp(virial->B_m3_mol * P_Pa / (gas_constant * T_K)), method};
  } else {
    phase.molar_volume_m3_mol = {ideal, "ideal gas (the critical point is not known)"};
    phase.fugacity_coefficient = absent("needs the critical point");
  }
  phase.density_kg_m3 = {substance.molar_mass_kg_mol / *phase.molar_volume_m3_mol.value,
                         phase.molar_volume_m3_mol.method};
  phase.Cp_J_mol_K = gas_heat_capacity(substance, T_K);
  if (phase.Cp_J_mol_K.value && virial) {
    *phase.Cp_J_mol_K.value -= T_K * virial->d2B_dT2 * P_Pa;
    if (const auto path = virial_path(substance)) *phase.Cp_J_mol_K.value += path->vapour_Cp(T_K, P_Pa);
    phase.Cp_J_mol_K.method += "; virial departure";
  }
  set_levels(phase, vapour_levels(substance, T_K, P_Pa), substance, reference);
  phase.viscosity_Pa_s = absent("no vapour viscosity in the databank");
  return phase;
}

PhaseProperties liquid_at(const Substance& substance, double T_K, double P_Pa, const Reference& reference) {
  PhaseProperties phase;
  phase.molar_volume_m3_mol = liquid_molar_volume(substance, T_K);
  phase.density_kg_m3 = phase.molar_volume_m3_mol;
  if (phase.density_kg_m3.value)
    *phase.density_kg_m3.value = substance.molar_mass_kg_mol / *phase.density_kg_m3.value;
  phase.Cp_J_mol_K = liquid_heat_capacity(substance, T_K);
  set_levels(phase, liquid_levels(substance, T_K), substance, reference);
  phase.viscosity_Pa_s = liquid_viscosity(substance, T_K);
  const auto virial = second_virial(substance, T_K);
  if (virial && substance.vapour_pressure && phase.molar_volume_m3_mol.value) {
    // phi of the saturated vapour, Psat/P and the Poynting factor.
    const double Psat = substance.vapour_pressure->P_Pa(T_K), RT = gas_constant * T_K;
    phase.fugacity_coefficient = {
        std::exp(virial->B_m3_mol * Psat / RT + *phase.molar_volume_m3_mol.value * (P_Pa - Psat) / RT) *
            Psat / P_Pa,
        "saturation, Poynting factor"};
  } else {
    phase.fugacity_coefficient = absent("needs vapour pressure, critical point and liquid volume");
  }
  return phase;
}

}  // namespace

Property enthalpy_of_vaporisation(const Substance& substance, double T_K) {
  const auto critical = critical_point(substance);
  if (!substance.Tc_K && !critical) return absent("the critical temperature is not known");
  const double Tc = substance.Tc_K ? substance.Tc_K->value : critical->Tc_K;
  if (T_K >= Tc) return {0.0, "none at and above the critical point"};
  if (const auto& curve = substance.vaporisation) return {curve->value(T_K), curve->source};
  constexpr double usual_exponent = 0.38;
  const auto watson = [&](double known, double known_T_K, double exponent) {
    return known * std::pow((1 - T_K / Tc) / (1 - known_T_K / Tc), exponent);
  };
  const bool at_Tb = substance.Hvap_Tb_J_mol && substance.Tb_K;
  const bool at_25C = substance.Hvap_25C_J_mol && room_T_K < Tc;
  if (at_Tb && at_25C) {
    // Through both points, where they lie far enough apart to give an exponent that is one.
    const double Tb = *substance.Tb_K;
    const double exponent = std::log(*substance.Hvap_25C_J_mol / *substance.Hvap_Tb_J_mol) /
                            std::log((1 - room_T_K / Tc) / (1 - Tb / Tc));
    if (std::abs(Tb - room_T_K) > 15 && exponent > 0.2 && exponent < 0.65) {
      return {watson(*substance.Hvap_Tb_J_mol, Tb, exponent),
              fmt::format("values at 25 degC and at the boiling point, Watson relation with exponent {:.3f}",
                          exponent)};
    }
  }
  if (at_Tb) {
    return {watson(*substance.Hvap_Tb_J_mol, *substance.Tb_K, usual_exponent),
            "value at the boiling point, Watson relation"};
  }
  if (at_25C) {
    return {watson(*substance.Hvap_25C_J_mol, room_T_K, usual_exponent), "value at 25 degC, Watson relation"};
  }
  return absent("no enthalpy of vaporisation in the databank");
}

double enthalpy_from_slope(const Substance& substance, double T_K) {
  const double P = substance.vapour_pressure->P_Pa(T_K), ideal = gas_constant * T_K / P;
  const auto virial = second_virial(substance, T_K);
  auto liquid = liquid_molar_volume(substance, T_K).value;
  if (!liquid && substance.molar_volume_25C_m3_mol) liquid = *substance.molar_volume_25C_m3_mol;
  const double short_of_ideal = 0.035 * P / standard_atmosphere;
  const double volume = virial && liquid ? ideal + virial->B_m3_mol - *liquid : (1 - short_of_ideal) * ideal;
  return P * substance.vapour_pressure->dln_P_dT(T_K) * T_K * volume;
}

Property liquid_molar_volume(const Substance& substance, double T_K) {
  if (!substance.Tc_K) return absent("the critical temperature is not known");
  if (T_K >= *substance.Tc_K) return absent("no liquid above the critical point");
  if (const auto& curve = substance.liquid_density) {
    const double v = curve->molar_volume(T_K);
    if (!substance.molar_volume_25C_m3_mol || room_T_K >= curve->Tmax_K) return {v, curve->source};
    return {*substance.molar_volume_25C_m3_mol * (v / curve->molar_volume(room_T_K)),
            "value at 25 degC, carried by the correlation of " + curve->source};
  }
  const auto omega = acentric_factor(substance);
  if (!substance.Z_RA && !omega) return absent("neither Z_RA nor an acentric factor is known");
  const double Z = rackett_Z(substance, omega.value_or(0));
  const auto power = [&](double T) { return std::pow(1 - T / *substance.Tc_K, 2.0 / 7); };
  if (substance.molar_volume_25C_m3_mol && room_T_K < *substance.Tc_K) {
    return {*substance.molar_volume_25C_m3_mol * std::pow(Z, power(T_K) - power(room_T_K)),
            "value at 25 degC, Rackett equation"};
  }
  if (!substance.Pc_Pa) return absent("neither a known volume nor the critical pressure");
  return {gas_constant * *substance.Tc_K / *substance.Pc_Pa * std::pow(Z, 1 + power(T_K)),
          "Rackett equation"};
}

std::optional<double> liquid_expansion(const Substance& substance, double T_K) {
  if (!liquid_molar_volume(substance, T_K).value) return std::nullopt;
  if (substance.liquid_density) return substance.liquid_density->expansion(T_K);
  const double Tc = *substance.Tc_K;
  return -2.0 / 7 * std::pow(1 - T_K / Tc, -5.0 / 7) / Tc *
         std::log(rackett_Z(substance, acentric_factor(substance).value_or(0)));
}

Property gas_heat_capacity(const Substance& substance, double T_K) {
  if (!substance.gas_heat_capacity) return absent("no ideal-gas heat capacity in the databank");
  return {substance.gas_heat_capacity->value(T_K), "ideal gas: " + substance.gas_heat_capacity->source};
}

Property known_liquid_heat_capacity(const Substance& substance, double T_K) {
  if (const auto& known = substance.liquid_heat_capacity;
      known && T_K >= known->Tmin_K && T_K <= known->Tmax_K)
    return {known->value(T_K), known->source};
  if (substance.Cp_liquid_25C_J_mol_K && !substance.liquid_heat_capacity && std::abs(T_K - room_T_K) < 1e-9) {
    return {substance.Cp_liquid_25C_J_mol_K->value, substance.Cp_liquid_25C_J_mol_K->source};
  }
  const auto critical = critical_point(substance);
  if (!substance.gas_heat_capacity || !critical) {
    return absent("needs the ideal-gas heat capacity, the critical temperature and the acentric factor");
  }
  const double Tr = T_K / critical->Tc_K, room_Tr = room_T_K / critical->Tc_K;
  constexpr double too_near = path_known_to;
  if (Tr > too_near) return absent("too near to the critical point");
  if (const auto& known = substance.liquid_heat_capacity) {  // carried on from the end of its range
    const double end = std::clamp(T_K, known->Tmin_K, known->Tmax_K), end_Tr = end / critical->Tc_K;
    if (end_Tr < too_near)
      return {known->value(end) + substance.gas_heat_capacity->value(T_K) -
                  substance.gas_heat_capacity->value(end) +
                  gas_constant * (departure(Tr, critical->acentric_factor) -
                                  departure(end_Tr, critical->acentric_factor)),
              "carried from the end of its range by Rowlinson-Bondi: " + known->source};
  }
  const double gas = substance.gas_heat_capacity->value(T_K);
  if (!substance.Cp_liquid_25C_J_mol_K || room_Tr > too_near) {
    return {gas + gas_constant * departure(Tr, critical->acentric_factor), "Rowlinson-Bondi"};
  }
  return {*substance.Cp_liquid_25C_J_mol_K + gas - substance.gas_heat_capacity->value(room_T_K) +
              gas_constant *
                  (departure(Tr, critical->acentric_factor) - departure(room_Tr, critical->acentric_factor)),
          "value at 25 degC, Rowlinson-Bondi"};
}

Property liquid_heat_capacity(const Substance& substance, double T_K) {
  const auto critical = critical_point(substance);
  if (critical && T_K > path_leaves_at * critical->Tc_K) {
    if (const auto path = virial_path(substance)) return path->liquid_Cp(T_K);
  }
  return known_liquid_heat_capacity(substance, T_K);
}

Property liquid_viscosity(const Substance& substance, double T_K) {
  if (substance.Tc_K && T_K >= *substance.Tc_K) return absent("no liquid above the critical point");
  if (substance.liquid_viscosity) {
    return {substance.liquid_viscosity->value(T_K), substance.liquid_viscosity->source};
  }
  if (!substance.viscosity_25C_Pa_s) return absent("no liquid viscosity in the databank");
  if (std::abs(T_K - room_T_K) < 1e-9) {
    return {substance.viscosity_25C_Pa_s->value, substance.viscosity_25C_Pa_s->source};
  }
  constexpr double power = -0.2661, span_K = 233, mPa_s = 1e-3;
  const double raised = std::pow(*substance.viscosity_25C_Pa_s / mPa_s, power) + (T_K - room_T_K) / span_K;
  // The rule gives no finite viscosity far below the known point.
  if (raised < std::pow(1e5, power)) return absent("too far below 25 degC, where it is known");
  return {mPa_s * std::pow(raised, 1 / power), "value at 25 degC, Lewis-Squires rule (5 to 15 %)"};
}

std::optional<SecondVirial> second_virial(const Substance& substance, double T_K) {
  const auto critical = critical_point(substance);
  if (!critical) return std::nullopt;
  const double Tc = critical->Tc_K, omega = critical->acentric_factor, Tr = T_K / Tc,
               scale = gas_constant * Tc / critical->Pc_Pa;
  const double Tr2 = Tr * Tr, Tr3 = Tr2 * Tr, Tr8 = std::pow(Tr, 8);
  const double F0 = 0.1445 - 0.330 / Tr - 0.1385 / Tr2 - 0.0121 / Tr3 - 0.000607 / Tr8;
  const double F1 = 0.0637 + 0.331 / Tr2 - 0.423 / Tr3 - 0.008 / Tr8;
  const double dF0 = (0.330 / Tr + 2 * 0.1385 / Tr2 + 3 * 0.0121 / Tr3 + 8 * 0.000607 / Tr8) / Tr;
  const double dF1 = (-2 * 0.331 / Tr2 + 3 * 0.423 / Tr3 + 8 * 0.008 / Tr8) / Tr;
  const double d2F0 = -(2 * 0.330 / Tr + 6 * 0.1385 / Tr2 + 12 * 0.0121 / Tr3 + 72 * 0.000607 / Tr8) / Tr2;
  const double d2F1 = (6 * 0.331 / Tr2 - 12 * 0.423 / Tr3 - 72 * 0.008 / Tr8) / Tr2;
  return SecondVirial{scale * (F0 + omega * F1), scale * (dF0 + omega * dF1) / Tc,
                      scale * (d2F0 + omega * d2F1) / (Tc * Tc)};
}

std::string name_of(const Reference& reference) {
  const double celsius = reference.T_K - celsius_zero;
  switch (reference.kind) {
    case Reference::Kind::ideal_gas:
      return fmt::format("ideal gas at {:g} degC and 101.325 kPa", celsius);
    case Reference::Kind::saturated_liquid:
      return fmt::format("saturated liquid at {:g} degC", celsius);
    case Reference::Kind::elements:
      break;
  }
  return "elements at 25 degC";
}

Reference parse_reference(std::string_view text) {
  Reference reference;
  std::string_view state = trimmed(text);
  if (const std::size_t at = state.find(" at "); at != std::string_view::npos) {
    reference.T_K = parse_quantity(state.substr(at + 4), Dimension::temperature);
    state = trimmed(state.substr(0, at));
    if (state == "elements") throw RequestError("the reference 'elements' is at 25 degC; leave 'at' out");
  }
  if (state == "ideal-gas") return reference;
  if (state == "liquid") {
    reference.kind = Reference::Kind::saturated_liquid;
    return reference;
  }
  if (state == "elements") {
    reference.kind = Reference::Kind::elements;
    return reference;
  }
  throw RequestError(
      fmt::format("'{}' is not a reference state; there are ideal-gas, liquid, either of them with a "
                  "temperature (\"liquid at 0 degC\"), and elements",
                  text));
}

Property ideal_gas_enthalpy(const Substance& substance, double T_K, const Reference& reference) {
  if (!substance.gas_heat_capacity) return absent("no ideal-gas heat capacity in the databank");
  const Zero zero = zero_of(substance, reference);
  if (!zero.levels.h) return absent("on this reference its zero " + zero.why);
  return {substance.gas_heat_capacity->enthalpy_change(room_T_K, T_K) - *zero.levels.h, "ideal gas"};
}

StateProperties properties_at_saturation(const Substance& substance, double T_K, const Reference& reference) {
  demand_temperature(T_K);
  const SaturationPoint point = saturation_at_temperature(substance, T_K);
  return {T_K,
          point.P_Pa,
          true,
          liquid_at(substance, T_K, point.P_Pa, reference),
          vapour_at(substance, T_K, point.P_Pa, reference),
          point.notices};
}

StateProperties properties_at(const Substance& substance, double T_K, double P_Pa,
                              const Reference& reference) {
  demand_temperature(T_K);
  demand_pressure(P_Pa);
  StateProperties state{T_K, P_Pa, false, std::nullopt, std::nullopt, {}};
  const bool supercritical = substance.Tc_K && T_K > *substance.Tc_K;
  if (!supercritical && substance.vapour_pressure) {
    state.notices = vapour_pressure_notices(substance, T_K, T_K);
    if (P_Pa > substance.vapour_pressure->P_Pa(T_K)) {
      state.liquid = liquid_at(substance, T_K, P_Pa, reference);
      return state;
    }
  } else if (!supercritical) {
    throw CalculationError(fmt::format(
        "without a vapour pressure it is not known whether {} is liquid or vapour there", substance.name));
  }
  state.vapour = vapour_at(substance, T_K, P_Pa, reference);
  // The virial equation cut after its second coefficient holds while Z stays near one.
  const double Z = P_Pa * *state.vapour->molar_volume_m3_mol.value / (gas_constant * T_K);
  if (Z < 0.8) {
    state.notices.add("dense-vapour",
                      fmt::format("the vapour is dense (Z = {:.2f}): the virial equation with its second "
                                  "coefficient alone does not hold there",
                                  Z));
  }
  return state;
}

}  // namespace jampot
