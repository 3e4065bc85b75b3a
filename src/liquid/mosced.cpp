#include "jampot/liquid/mosced.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"

namespace jampot {

double mosced_ln_gamma_inf(const MoscedParameters& solute, const MoscedParameters& solvent, double T_K) {
  const auto values = [](const MoscedParameters& p) {
    return MoscedValues<double>{p.v_cm3_mol, p.lambda, p.tau, p.q, p.alpha, p.beta};
  };
  return mosced_ln_gamma(values(solute), values(solvent), T_K);
}

double mosced_ln_gamma_inf(const Substance& solute, const Substance& solvent, double T_K) {
  for (const Substance* substance : {&solute, &solvent}) {
    if (!substance->mosced)
      throw CalculationError(fmt::format("{} has no MOSCED parameters", substance->name));
  }
  return mosced_ln_gamma_inf(*solute.mosced, *solvent.mosced, T_K);
}

}  // namespace jampot
