#include "jampot/liquid/mosced.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

double mosced_ln_gamma_inf(const MoscedParameters& solute, const MoscedParameters& solvent, double T_K) {
  constexpr double R = 8.314;  // J/(mol K), as in the paper; cm3 MPa is a joule
  const double fold = 293 / T_K, strong = std::pow(fold, 0.8), weak = std::pow(fold, 0.4);
  const double alpha1 = solvent.alpha * strong, beta1 = solvent.beta * strong, tau1 = solvent.tau * weak;
  const double alpha2 = solute.alpha * strong, beta2 = solute.beta * strong, tau2 = solute.tau * weak;
  const auto square = [](double value) { return value * value; };
  const double polarity =
      square(square(solvent.q)) * 1.15 * (1 - std::exp(-0.002337 * tau1 * tau1 * tau1)) + 1;
  const double psi = polarity + 0.002629 * alpha1 * beta1;
  const double xi =
      0.68 * (polarity - 1) +
      std::pow(3.4 - 2.4 * std::exp(-0.002687 * std::pow(solvent.alpha * solvent.beta, 1.5)), fold * fold);
  const double exponent = 0.953 - 0.002314 * (tau2 * tau2 + alpha2 * beta2);
  const double size = std::pow(solute.v_cm3_mol / solvent.v_cm3_mol, exponent);
  return solute.v_cm3_mol / (R * T_K) *
             (square(solvent.lambda - solute.lambda) +
              square(solvent.q * solute.q) * square(tau1 - tau2) / psi +
              (alpha1 - alpha2) * (beta1 - beta2) / xi) +
         std::log(size) + 1 - size;
}

double mosced_ln_gamma_inf(const Substance& solute, const Substance& solvent, double T_K) {
  for (const Substance* substance : {&solute, &solvent}) {
    if (!substance->mosced)
      throw CalculationError(fmt::format("{} has no MOSCED parameters", substance->name));
  }
  return mosced_ln_gamma_inf(*solute.mosced, *solvent.mosced, T_K);
}

}  // namespace jampot
