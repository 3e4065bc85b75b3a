#include "fluid_working.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/fluid/pc_saft.hpp"

namespace jampot {
namespace {

std::vector<std::string> cubic_working(CubicEquation& cubic, const std::vector<Substance>& substances,
                                       double T, double P, const std::vector<double>& x) {
  const auto m = cubic.mixed(T, P, x);
  std::vector<std::string> lines;
  const bool pr = cubic.name() == "pr";
  lines.push_back(pr ? "P = R T/(v - b) - a/(v^2 + 2 b v - b^2)" : "P = R T/(v - b) - a/(v (v + b))");
  lines.push_back(
      pr ? "a_i = 0.45724 (R Tc)^2/Pc alpha,  b_i = 0.07780 R Tc/Pc,  alpha = (1 + m (1 - sqrt(T/Tc)))^2"
         : "a_i = 0.42748 (R Tc)^2/Pc alpha,  b_i = 0.08664 R Tc/Pc,  alpha = (1 + m (1 - sqrt(T/Tc)))^2");
  for (std::size_t i = 0; i < substances.size(); ++i) {
    lines.push_back(fmt::format(
        "{}: Tc = {:.2f} K, Pc = {:.1f} kPa, w = {:.4f}: a = {:.5f} Pa m6/mol2, b = {:.4f} cm3/mol",
        substances[i].short_name(), double(*substances[i].Tc_K), *substances[i].Pc_Pa / 1000,
        double(*substances[i].acentric_factor), cubic.a(i, T), 1e6 * cubic.b(i)));
  }
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j)
      lines.push_back(fmt::format("k({}, {}) = {:.4f}", substances[i].short_name(),
                                  substances[j].short_name(), cubic.k(i, j)));
  }
  lines.push_back(
      fmt::format("mixture: a = sum x_i x_j sqrt(a_i a_j) (1 - k_ij) = {:.5f} Pa m6/mol2, b = sum x_i b_i "
                  "= {:.4f} cm3/mol",
                  m.a, 1e6 * m.b));
  lines.push_back(fmt::format("A = a P/(R T)^2 = {:.6f}, B = b P/(R T) = {:.6f}", m.A, m.B));
  lines.push_back(fmt::format("Z^3 {:+.6f} Z^2 {:+.6f} Z {:+.6f} = 0", m.cubic[1], m.cubic[2], m.cubic[3]));
  return lines;
}

std::vector<std::string> saft_working(PcSaft& saft, const std::vector<Substance>& substances, double T,
                                      double P, const std::vector<double>& x) {
  std::vector<std::string> lines{
      "F = A^r/(R T) = F(hard chain) + F(dispersion) + F(association)",
      "d_i = sigma_i (1 - 0.12 exp(-3 epsilon_i/(k T))),  packing fraction = pi/6 N_A/v sum x_i m_i d_i^3"};
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const PcSaftParameters& p = *substances[i].pc_saft;
    std::string line =
        fmt::format("{}: m = {:.4f}, sigma = {:.4f} A, epsilon/k = {:.2f} K: d = {:.4f} A",
                    substances[i].short_name(), p.segments, p.diameter_A, p.energy_K, saft.diameter_A(i, T));
    if (!p.association_scheme.empty())
      line += fmt::format("; {}: epsilon(AB)/k = {:.1f} K, kappa(AB) = {:.6f}", p.association_scheme,
                          p.association_energy_K, p.association_volume);
    lines.push_back(std::move(line));
  }
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j)
      lines.push_back(fmt::format("k({}, {}) = {:.4f}", substances[i].short_name(),
                                  substances[j].short_name(), saft.k(i, j)));
  }
  const VolumeRoots roots = saft.volumes(T, P, x);
  lines.push_back(
      fmt::format("packing fraction sought with P = {:.6g} kPa, {} steps:", P / 1000, saft.steps().size()));
  for (const PcSaft::Step& step : saft.steps())
    lines.push_back(
        fmt::format("  packing fraction {:.8f}: P = {:.6g} kPa", step.packing_fraction, step.P_Pa / 1000));
  Helmholtz F(x.size());
  for (const VolumeRoot& root : roots) {
    saft.evaluate(T, root.v_m3_mol, x, {}, F);
    for (const PcSaft::FreeSites& sites : saft.free_sites())
      lines.push_back(fmt::format("packing fraction {:.6f}: {:.4f} of the {} sites of {} are free",
                                  saft.packing_fraction(T, root.v_m3_mol, x), sites.share, sites.kind,
                                  substances[sites.component].short_name()));
  }
  return lines;
}

}  // namespace

std::vector<std::string> fluid_working(EquationOfState& equation, const std::vector<Substance>& substances,
                                       double T, double P, const std::vector<double>& x) {
  std::vector<std::string> lines;
  if (auto* cubic = dynamic_cast<CubicEquation*>(&equation))
    lines = cubic_working(*cubic, substances, T, P, x);
  if (auto* saft = dynamic_cast<PcSaft*>(&equation)) lines = saft_working(*saft, substances, T, P, x);
  std::string list = "roots with dP/dv < 0:";
  const VolumeRoots roots = equation.volumes(T, P, x);
  FluidState state(x.size());
  for (const VolumeRoot& root : roots) {
    fluid_state(equation, T, root.v_m3_mol, x, false, state, P);
    double gibbs = 0;
    for (std::size_t i = 0; i < x.size(); ++i) gibbs += x[i] * state.ln_phi[i];
    list += fmt::format(" Z = {:.6f} (sum x ln phi = {:.6f})", root.Z, gibbs);
  }
  lines.push_back(list + "; the lowest sum x ln phi is stable");
  fluid_state(equation, T, roots.stable().v_m3_mol, x, false, state, P);
  for (std::size_t i = 0; i < x.size(); ++i) {
    lines.push_back(fmt::format("ln phi({0}) = F_i - ln Z = {1:.6f} - {2:.6f} = {3:.6f}{4}",
                                substances[i].short_name(), state.helmholtz.i[i], std::log(roots.stable().Z),
                                state.ln_phi[i], equation.translation(i) != 0 ? " after translation" : ""));
  }
  return lines;
}

}  // namespace jampot
