#include "jampot/phase/saturation_correction.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {

SaturationCorrection::SaturationCorrection(const VapourChoice& choice,
                                           const std::vector<Substance>& substances, Notices& notices)
    : poynting_(choice.poynting.value_or(choice.model != "ideal")), substances_(substances) {
  const bool phi = choice.saturation_fugacity.value_or(true) && choice.model != "ideal";
  std::vector<std::string> unknown;
  for (const Substance& substance : substances) {
    OfSubstance entry;
    if (substance.vapour_pressure) {
      if (phi) entry.vapour = make_vapour(choice, {substance}).phase;
      if (poynting_ && !liquid_molar_volume(substance, substance.Tc_K ? 0.5 * *substance.Tc_K : 300).value)
        unknown.push_back(substance.name);
    }
    of_.push_back(std::move(entry));
  }
  if (!unknown.empty())
    notices.add("no-poynting",
                fmt::format("the liquid volume of {} is not known: its Poynting factor is taken as 1",
                            joined(unknown, ", ")));
}

SaturationCorrection::SaturationCorrection(const SaturationCorrection& other)
    : poynting_(other.poynting_), substances_(other.substances_), of_(other.of_.size()) {
  for (std::size_t i = 0; i < of_.size(); ++i) {
    if (other.of_[i].vapour) of_[i].vapour = other.of_[i].vapour->clone();
  }
}

void SaturationCorrection::set_temperature(double T_K, std::span<const double> ln_Psat,
                                           std::span<const double> dln_Psat) {
  if (T_K == T_K_) return;
  T_K_ = T_K;
  PhaseValues values(1);
  const double pure[1] = {1.0};
  for (std::size_t i = 0; i < of_.size(); ++i) {
    OfSubstance& of = of_[i];
    const Substance& substance = substances_[i];
    if (!substance.vapour_pressure) continue;
    // Beyond the critical point there is no saturation; what a solver meets there on its way stays finite.
    const double limit = substance.Tc_K ? 0.99 * *substance.Tc_K : T_K;
    const bool beyond = T_K > limit;
    const double T = std::min(T_K, limit);
    const double ln_P = beyond ? substance.vapour_pressure->ln_P(T) : ln_Psat[i];
    of.Psat = std::exp(ln_Psat[i]);
    of.Psat_dT = of.Psat * dln_Psat[i];
    if (of.vapour) {
      of.vapour->evaluate(T, std::exp(ln_P), pure, {true, true, false}, values);
      of.ln_phi = values.ln_phi[0];
      of.ln_phi_dT = beyond ? 0 : values.dT[0] + values.dln_P[0] * dln_Psat[i];
    }
    if (poynting_) {
      of.v = liquid_molar_volume(substance, T).value.value_or(0);
      of.v_dT = beyond ? 0 : of.v * liquid_expansion(substance, T).value_or(0);
    }
  }
}

double SaturationCorrection::ln_poynting(std::size_t i, double P_Pa) const {
  return of_[i].v * (P_Pa - of_[i].Psat) / (gas_constant * T_K_);
}

double SaturationCorrection::dT(std::size_t i, double P_Pa) const {
  const OfSubstance& of = of_[i];
  const double RT = gas_constant * T_K_;
  return of.ln_phi_dT + (of.v_dT - of.v / T_K_) * (P_Pa - of.Psat) / RT - of.v * of.Psat_dT / RT;
}

double SaturationCorrection::dln_P(std::size_t i, double P_Pa) const {
  return of_[i].v * P_Pa / (gas_constant * T_K_);
}

}  // namespace jampot
