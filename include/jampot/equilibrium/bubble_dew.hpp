#pragma once
// Bubble and dew points of a mixture of any number of components, without a guess from the caller.
#include <span>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// One vapour-liquid equilibrium.
struct VlePoint {
  double T_K = 0;         ///< temperature, K
  double P_Pa = 0;        ///< pressure, Pa
  std::vector<double> x,  ///< mole fractions of the liquid
      y;                  ///< mole fractions of the vapour
  std::vector<double> K;  ///< y/x, with its limit where x = 0
  std::vector<double>
      gamma;  ///< activity coefficients in the liquid; empty where an equation of state describes it
  /// Of a vapour that is not ideal: its fugacity coefficients; beside an activity model also those of the
  /// pure saturated vapours and the Poynting factors. Empty else.
  std::vector<double> phi,  ///< fugacity coefficients in the vapour
      phi_saturated,        ///< fugacity coefficients of the pure saturated vapours
      poynting;             ///< Poynting factors
  double residual = 0;      ///< largest relative residual of the equilibrium equations
  Notices notices;          ///< what the reader must know
};

/// Bubble temperature of a liquid x at P_Pa.
/// @throws RequestError where x is not a composition of the mixture; CalculationError where no solution is
/// reached.
VlePoint bubble_temperature(Mixture& mixture, double P_Pa, std::span<const double> x);

/// Bubble pressure of a liquid x at T_K.
VlePoint bubble_pressure(Mixture& mixture, double T_K, std::span<const double> x);

/// Dew temperature of a vapour y at P_Pa. Where several liquids satisfy the equations (a model that splits),
/// the one that forms first on cooling is returned, and it is checked that no other would have formed before
/// it.
VlePoint dew_temperature(Mixture& mixture, double P_Pa, std::span<const double> y);

/// Dew pressure of a vapour y at T_K: the lowest pressure at which a liquid forms.
VlePoint dew_pressure(Mixture& mixture, double T_K, std::span<const double> y);

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline VlePoint bubble_temperature(const Mixture& mixture, double P_Pa, std::span<const double> x) {
  Mixture own = mixture;
  return bubble_temperature(own, P_Pa, x);
}
inline VlePoint bubble_pressure(const Mixture& mixture, double T_K, std::span<const double> x) {
  Mixture own = mixture;
  return bubble_pressure(own, T_K, x);
}
inline VlePoint dew_temperature(const Mixture& mixture, double P_Pa, std::span<const double> y) {
  Mixture own = mixture;
  return dew_temperature(own, P_Pa, y);
}
inline VlePoint dew_pressure(const Mixture& mixture, double T_K, std::span<const double> y) {
  Mixture own = mixture;
  return dew_pressure(own, T_K, y);
}

/// @throws RequestError unless `x` has one fraction in 0..1 for each component and they sum to 1 (within
/// 1e-6).
void check_composition(const Mixture& mixture, std::span<const double> x);

}  // namespace jampot
