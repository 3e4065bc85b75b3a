#include "jampot/phase/energies.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/phase/virial_vapour.hpp"

namespace jampot {

Energies::Energies(Mixture& mixture, const Reference& reference)
    : mixture_(mixture),
      reference_(reference),
      values_(mixture.size()),
      pure_values_(1),
      ln_gamma_(mixture.size()),
      dln_gamma_(mixture.size()) {
  if (mixture.one_equation()) return;
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    const Substance& substance = mixture.substances()[i];
    VapourChoice choice;
    choice.model = mixture.vapour_model();
    pure_vapours_.push_back(make_vapour(choice, {substance}).phase);
    if (!mixture.is_solute(i) && substance.vapour_pressure && !enthalpy_of_vaporisation(substance, 300).value)
      notices_.add(
          "Hvap-from-slope",
          fmt::format(
              "no enthalpy of vaporisation of {} is at hand: it is taken from the slope of the vapour "
              "pressure",
              substance.name));
  }
}

// Above the pure ideal gas on the reference, negative.
double Energies::pure_liquid(std::size_t i, double T_K) {
  const Substance& substance = mixture_.substances()[i];
  if (!substance.vapour_pressure) {
    throw CalculationError(fmt::format(
        "the enthalpy of the liquid needs a vapour pressure of {}, which has none", substance.name));
  }
  const bool beyond = substance.Tc_K && T_K >= *substance.Tc_K;
  if (beyond) return 0;
  const auto known = enthalpy_of_vaporisation(substance, T_K).value;
  const double Hvap = known ? *known : enthalpy_from_slope(substance, T_K);
  const double pure[1] = {1.0};
  pure_vapours_[i]->evaluate(T_K, substance.vapour_pressure->P_Pa(T_K), pure, {true, false, false},
                             pure_values_);
  const double departure =
      mixture_.vapour_model() == "ideal" ? 0 : -gas_constant * T_K * T_K * pure_values_.dT[0];
  return departure - Hvap;
}

double Energies::enthalpy(std::size_t kind, double T_K, double P_Pa, std::span<const double> x) {
  double h = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (!(x[i] > 0)) continue;
    const Property ideal = ideal_gas_enthalpy(mixture_.substances()[i], T_K, reference_);
    if (!ideal.value)
      throw CalculationError(
          fmt::format("no enthalpy of {}: {}", mixture_.substances()[i].name, ideal.method));
    h += x[i] * *ideal.value;
    if (liquid(kind) && !mixture_.is_solute(i)) h += x[i] * pure_liquid(i, T_K);
  }
  double slope = 0;
  if (liquid(kind)) {
    mixture_.activity().set_temperature(T_K);
    mixture_.activity().evaluate(x, ln_gamma_, dln_gamma_);
    for (std::size_t i = 0; i < x.size(); ++i) slope += x[i] > 0 ? x[i] * dln_gamma_[i] : 0;
  } else if (mixture_.one_equation() || mixture_.vapour_model() != "ideal") {
    mixture_.kinds()[kind]->evaluate(T_K, P_Pa, x, {true, false, false}, values_);
    for (std::size_t i = 0; i < x.size(); ++i) slope += x[i] > 0 ? x[i] * values_.dT[i] : 0;
  }
  return h - gas_constant * T_K * T_K * slope;
}

void Energies::heat_capacity(std::size_t kind, double T_K, double P_Pa, std::span<const double> x,
                             Property& Cp) {
  double sum = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    const Substance& substance = mixture_.substances()[i];
    const Property pure =
        liquid(kind) ? liquid_heat_capacity(substance, T_K) : gas_heat_capacity(substance, T_K);
    if (!pure.value) {
      Cp = {std::nullopt, substance.name + ": " + pure.method};
      return;
    }
    sum += x[i] * *pure.value;
  }
  if (liquid(kind)) {
    Cp = {sum, "pure liquids added, no excess"};
    return;
  }
  auto* fluid = dynamic_cast<FluidPhase*>(mixture_.kinds()[kind]);
  if (fluid != nullptr) {
    fluid->evaluate(T_K, P_Pa, x, {}, values_);
    const Helmholtz F = fluid->helmholtz(T_K, x);
    // Cp - Cv = -T (dP/dT)^2/(dP/dV); the residual Cv is -R (T^2 F_TT + 2 T F_T).
    const double v = fluid->untranslated_volume(), RT = gas_constant * T_K;
    const double dP_dT = gas_constant / v - RT * F.TV - gas_constant * F.V,
                 dP_dV = -RT * (F.VV + 1 / (v * v));
    const double Cv = sum - gas_constant - gas_constant * T_K * (T_K * F.TT + 2 * F.T);
    Cp = {Cv - T_K * dP_dT * dP_dT / dP_dV, "equation of state"};
    return;
  }
  const auto* virial = dynamic_cast<VirialVapour*>(mixture_.kinds()[kind]);
  if (virial != nullptr && virial->coefficients().dimers()) {
    Cp = {std::nullopt, "the heat of association is not in the heat capacity at hand"};
    return;
  }
  if (virial != nullptr) {
    double second = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
      for (std::size_t j = 0; j < x.size(); ++j)
        second += x[i] * x[j] * virial->coefficients().total(i, j).dTT;
    }
    Cp = {sum - T_K * second * P_Pa, "ideal gas and second virial coefficient"};
    return;
  }
  Cp = {sum, "ideal gas"};
}

PhaseEnergy Energies::of(std::size_t kind, double T_K, double P_Pa, std::span<const double> x) {
  PhaseEnergy energy;
  try {
    energy.h_J_mol = {enthalpy(kind, T_K, P_Pa, x), name_of(reference_)};
  } catch (const CalculationError& error) {
    energy.h_J_mol = {std::nullopt, error.what()};
  }
  if (liquid(kind)) {
    double volume = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
      const Property pure = liquid_molar_volume(mixture_.substances()[i], T_K);
      if (!pure.value) {
        energy.molar_volume_m3_mol = {std::nullopt, mixture_.substances()[i].name + ": " + pure.method};
        break;
      }
      volume += x[i] * *pure.value;
      energy.molar_volume_m3_mol = {volume, "pure liquids added, no excess"};
    }
  } else {
    Phase& phase = *mixture_.kinds()[kind];
    phase.evaluate(T_K, P_Pa, x, {false, true, false}, values_);
    if (const auto* fluid = dynamic_cast<const FluidPhase*>(&phase)) {
      energy.molar_volume_m3_mol = {fluid->state().v_m3_mol, "equation of state"};
    } else {
      double Z = 1;
      for (std::size_t i = 0; i < x.size(); ++i) Z += x[i] * values_.dln_P[i];
      energy.molar_volume_m3_mol = {Z * gas_constant * T_K / P_Pa, "vapour model"};
    }
  }
  heat_capacity(kind, T_K, P_Pa, x, energy.Cp_J_mol_K);
  return energy;
}

}  // namespace jampot
