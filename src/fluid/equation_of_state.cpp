#include "jampot/fluid/equation_of_state.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

void add_derivatives(double T_K, double v_m3_mol, const Helmholtz& F, FluidDerivatives wanted,
                     FluidState& out) {
  const double RT = gas_constant * T_K;
  const std::size_t n = out.ln_phi.size();
  const double dP_dV = -RT * (F.VV + 1 / (v_m3_mol * v_m3_mol));
  const double dP_dT = wanted.T ? out.P_Pa / T_K - RT * F.TV : 0;
  const auto dP_dn = [&](std::size_t i) { return RT * (1 / v_m3_mol - F.iV[i]); };
  for (std::size_t i = 0; i < n; ++i) {
    const double own = dP_dn(i), partial_volume = -own / dP_dV;
    if (wanted.T) out.dT[i] = F.iT[i] + 1 / T_K - partial_volume * dP_dT / RT;
    if (wanted.ln_P) out.dln_P[i] = out.P_Pa * partial_volume / RT - 1;
    if (!wanted.composition) continue;
    const double by = own / dP_dV, constant = 1 + by / v_m3_mol;
    for (std::size_t k = 0; k < n; ++k) out.dn[i * n + k] = F.ij[i * n + k] + constant - by * F.iV[k];
  }
}

}  // namespace

const VolumeRoot& VolumeRoots::stable() const {
  return *std::min_element(begin(), end(),
                           [](const VolumeRoot& a, const VolumeRoot& b) { return a.gibbs < b.gibbs; });
}

void fluid_state(EquationOfState& equation, double T_K, double v_m3_mol, std::span<const double> x,
                 FluidDerivatives derivatives, FluidState& out, double P_Pa) {
  const std::size_t n = x.size();
  Helmholtz& F = out.helmholtz;
  HelmholtzWanted wanted;
  const bool any = derivatives.T || derivatives.ln_P || derivatives.composition;
  wanted.V = any;
  wanted.T = derivatives.T;
  wanted.composition = derivatives.composition;
  equation.evaluate(T_K, v_m3_mol, x, wanted, F);
  const double RT = gas_constant * T_K;
  // Of a liquid the pressure is a small difference of great numbers: where it is known, that is used.
  out.P_Pa = P_Pa > 0 ? P_Pa : RT * (1 / v_m3_mol - F.V);
  out.Z = out.P_Pa * v_m3_mol / RT;
  out.v_m3_mol = v_m3_mol;
  const double ln_Z = std::log(out.Z);
  for (std::size_t i = 0; i < n; ++i) out.ln_phi[i] = F.i[i] - ln_Z;
  out.h_residual_J_mol = -RT * T_K * F.T + RT * (out.Z - 1);
  out.s_residual_J_mol_K = -gas_constant * (F.F + T_K * F.T) + gas_constant * ln_Z;
  if (any) add_derivatives(T_K, v_m3_mol, F, derivatives, out);
  if (!equation.translated()) return;
  for (std::size_t i = 0; i < n; ++i) {
    const double c = equation.translation(i);
    const double shift = c * out.P_Pa / RT;
    out.ln_phi[i] -= shift;
    out.Z -= x[i] * shift;
    out.v_m3_mol -= x[i] * c;
    out.h_residual_J_mol -= x[i] * c * out.P_Pa;
    if (!any) continue;
    out.dT[i] += shift / T_K;
    out.dln_P[i] -= shift;
  }
}

}  // namespace jampot
