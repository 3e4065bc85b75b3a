#include "jampot/phase/fluid_phase.hpp"

#include <algorithm>

#include "jampot/basis/error.hpp"

namespace jampot {

void FluidPhase::do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                             PhaseValues& out) {
  std::optional<VolumeRoot> found;
  if (root_ == Root::stable) {
    const VolumeRoots roots = equation_->volumes(T_K, P_Pa, w);
    if (!roots.empty()) found = roots.stable();
  } else {
    found = equation_->outermost_volume(T_K, P_Pa, w, root_ == Root::vapour);
  }
  if (!found) throw CalculationError("the equation of state has no volume at this temperature and pressure");
  const VolumeRoot& root = *found;
  volume_ = out.v_m3_mol = root.v_m3_mol;
  fluid_state(*equation_, T_K, root.v_m3_mol, w, {wanted.T, wanted.ln_P, wanted.composition}, state_, P_Pa);
  std::copy(state_.ln_phi.begin(), state_.ln_phi.end(), out.ln_phi.begin());
  if (wanted.T) std::copy(state_.dT.begin(), state_.dT.end(), out.dT.begin());
  if (wanted.ln_P) std::copy(state_.dln_P.begin(), state_.dln_P.end(), out.dln_P.begin());
  if (wanted.composition) std::copy(state_.dn.begin(), state_.dn.end(), out.dn.begin());
}

Helmholtz FluidPhase::helmholtz(double T_K, std::span<const double> x) {
  Helmholtz F(size());
  equation_->evaluate(T_K, volume_, x, {true, true, true, false}, F);
  return F;
}

}  // namespace jampot
