#pragma once
// MOSCED: limiting activity coefficients from parameters of the pure substances.
#include <cmath>
#include <string>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// The parameters as numbers of any kind: plain ones, or dual ones where a fit wants derivatives.
template <class T>
struct MoscedValues {
  T v_cm3_mol,  ///< molar volume, cm3/mol
      lambda,   ///< dispersion, MPa^0.5
      tau,      ///< polarity, MPa^0.5
      q,        ///< induction
      alpha,    ///< acidity, MPa^0.5
      beta;     ///< basicity, MPa^0.5
};

/// The equation itself, for a solute at infinite dilution in a solvent.
template <class T>
T mosced_ln_gamma(const MoscedValues<T>& solute, const MoscedValues<T>& solvent, double T_K) {
  using std::exp;
  using std::log;
  using std::pow;
  constexpr double R = 8.314;  // J/(mol K), as in the paper; cm3 MPa is a joule
  const double fold = 293 / T_K, strong = std::pow(fold, 0.8), weak = std::pow(fold, 0.4);
  const T alpha1 = solvent.alpha * strong, beta1 = solvent.beta * strong, tau1 = solvent.tau * weak;
  const T alpha2 = solute.alpha * strong, beta2 = solute.beta * strong, tau2 = solute.tau * weak;
  const auto square = [](const T& value) { return value * value; };
  const T polarity = square(square(solvent.q)) * 1.15 * (1.0 - exp(-0.002337 * tau1 * tau1 * tau1)) + 1.0;
  const T psi = polarity + 0.002629 * alpha1 * beta1;
  const T product = solvent.alpha * solvent.beta;
  // x^1.5 has no derivative that a dual number could take at zero
  const T bonding = product > 0.0 ? T(pow(product, 1.5)) : T(0.0);
  const T xi = 0.68 * (polarity - 1.0) + pow(3.4 - 2.4 * exp(-0.002687 * bonding), fold * fold);
  const T exponent = 0.953 - 0.002314 * (tau2 * tau2 + alpha2 * beta2);
  const T size = pow(solute.v_cm3_mol / solvent.v_cm3_mol, exponent);
  return solute.v_cm3_mol / (R * T_K) *
             (square(solvent.lambda - solute.lambda) +
              square(solvent.q * solute.q) * square(tau1 - tau2) / psi +
              (alpha1 - alpha2) * (beta1 - beta2) / xi) +
         log(size) + 1.0 - size;
}

/// ln gamma of a solute at infinite dilution in a solvent at T_K.
///
/// Source: M. J. Lazzaroni, D. Bush, C. A. Eckert, T. C. Frank, S. Gupta, J. D. Olson, Ind. Eng. Chem. Res.
/// 44 (2005) 4075-4083.
double mosced_ln_gamma_inf(const MoscedParameters& solute, const MoscedParameters& solvent, double T_K);

/// The same for substances of the bank.
/// @throws CalculationError naming the substance without MOSCED parameters
double mosced_ln_gamma_inf(const Substance& solute, const Substance& solvent, double T_K);

}  // namespace jampot
