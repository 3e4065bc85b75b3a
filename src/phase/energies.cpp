#include "jampot/phase/energies.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/phase/virial_vapour.hpp"

namespace jampot {

namespace {

// Of the pure vapour by a model.
EnthalpyPath::Departure departure_of(const std::string& model, const Substance& substance) {
  if (model == "ideal") return [](double, double) { return EnthalpyPath::Levels{}; };
  VapourChoice choice;
  choice.model = model;
  struct Pure {
    std::unique_ptr<Phase> vapour;
    PhaseValues values{1};
  };
  auto pure = std::make_shared<Pure>();
  pure->vapour = make_vapour(choice, {substance}).phase;
  return [pure](double T_K, double P_Pa) {
    const double alone[1] = {1.0};
    pure->vapour->evaluate(T_K, P_Pa, alone, {true, false, false}, pure->values);
    const double h = -gas_constant * T_K * T_K * pure->values.dT[0];
    return EnthalpyPath::Levels{h, h / T_K - gas_constant * pure->values.ln_phi[0]};
  };
}

}  // namespace

Energies::Energies(Mixture& mixture, const Reference& reference)
    : mixture_(mixture),
      reference_(reference),
      paths_(mixture.size()),
      values_(mixture.size()),
      ln_gamma_(mixture.size()),
      dln_gamma_(mixture.size()) {
  if (mixture.one_equation()) return;
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    const Substance& substance = mixture.substances()[i];
    if (!substance.vapour_pressure) continue;
    paths_[i].emplace(substance, departure_of(mixture.vapour_model(), substance));
    if (!mixture.is_solute(i) && !enthalpy_of_vaporisation(substance, 300).value)
      notices_.add("Hvap-from-slope", fmt::format("no enthalpy of vaporisation of {} is known: it is "
                                                  "calculated from the slope of the vapour pressure",
                                                  substance.name));
  }
}

const EnthalpyPath& Energies::path(std::size_t i) const {
  if (paths_[i]) return *paths_[i];
  throw CalculationError(
      fmt::format("the enthalpy of the liquid needs a vapour pressure of {}, which has none",
                  mixture_.substances()[i].name));
}

double Energies::enthalpy(std::size_t kind, double T_K, double P_Pa, std::span<const double> x) {
  demand_size(x.size(), mixture_.size(), "mole fractions");
  if (kind >= mixture_.kinds().size())
    throw RequestError(fmt::format("kind of phase {} of {}", kind, mixture_.kinds().size()));
  double h = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (!(x[i] > 0)) continue;
    const Property ideal = ideal_gas_enthalpy(mixture_.substances()[i], T_K, reference_);
    if (!ideal.value)
      throw CalculationError(
          fmt::format("no enthalpy of {}: {}", mixture_.substances()[i].name, ideal.method));
    h += x[i] * *ideal.value;
    if (liquid(kind) && !mixture_.is_solute(i)) h += x[i] * path(i).liquid(T_K).h;
    if (!liquid(kind) && on_a_path(i)) h += x[i] * path(i).vapour(T_K, x[i] * P_Pa).h;
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
    if (!(x[i] > 0)) continue;
    const Substance& substance = mixture_.substances()[i];
    Property pure = !liquid(kind)  ? gas_heat_capacity(substance, T_K)
                    : on_a_path(i) ? path(i).liquid_Cp(T_K)
                                   : liquid_heat_capacity(substance, T_K);
    if (!pure.value) {
      Cp = {std::nullopt, substance.name + ": " + pure.method};
      return;
    }
    if (!liquid(kind) && on_a_path(i)) *pure.value += path(i).vapour_Cp(T_K, x[i] * P_Pa);
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
    Cp = {std::nullopt, "the available heat capacity does not include the heat of association"};
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
