#pragma once
// Would a liquid rather be two liquids? The tangent-plane test of Michelsen.
#include <optional>
#include <span>
#include <vector>

#include "jampot/phase/phase.hpp"

namespace jampot {

/// A composition whose phase would lower the Gibbs energy.
struct MoreStable {
  std::vector<double> composition;
  double excess =
      0;  ///< sum of the unnormalised mole numbers minus one: positive where it lowers the Gibbs energy
};

/// Looks for a composition w of `trial` whose tangent-plane distance from the phase with ln f_i = `ln_f`
/// (logarithm of fugacity over pressure, i.e. ln z_i + ln phi_i) is negative at T_K, P_Pa. Starts from every
/// nearly pure component and from the middle. Components with ln_f = -infinity are absent.
///
/// Source: M. L. Michelsen, Fluid Phase Equilib. 9 (1982) 1-19 (successive substitution on the mole numbers).
std::optional<MoreStable> find_more_stable(Phase& trial, double T_K, double P_Pa,
                                           std::span<const double> ln_f);

/// Whether the liquid of composition x splits at T_K (the pressure has no influence on an activity model).
bool liquid_splits(Phase& liquid, double T_K, std::span<const double> x);

}  // namespace jampot
