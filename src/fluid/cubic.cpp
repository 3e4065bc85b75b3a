#include "jampot/fluid/cubic.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

std::pair<std::string, std::string> ordered(const std::string& a, const std::string& b) {
  return a < b ? std::pair(a, b) : std::pair(b, a);
}

}  // namespace

void InteractionTable::set(const std::string& first, const std::string& second, double value) {
  values_[ordered(first, second)] = value;
}

std::optional<double> InteractionTable::find(const std::string& first, const std::string& second) const {
  const auto found = values_.find(ordered(first, second));
  return found == values_.end() ? std::nullopt : std::optional(found->second);
}

CubicEquation::CubicEquation(Form form, const std::vector<Substance>& substances,
                             const InteractionTable& interactions)
    : form_(form) {
  const bool pr = form == Form::peng_robinson;
  d1_ = pr ? 1 + std::sqrt(2.0) : 1;
  d2_ = pr ? 1 - std::sqrt(2.0) : 0;
  // The values at which the isotherm has its horizontal inflection at the critical point.
  const double Omega_a = pr ? 0.457235528921 : 0.427480233540;
  const double Omega_b = pr ? 0.0777960739039 : 0.0866403499650;
  std::vector<std::string> missing;
  for (const Substance& substance : substances) {
    if (!substance.Tc_K || !substance.Pc_Pa || !substance.acentric_factor) missing.push_back(substance.name);
  }
  if (!missing.empty()) {
    throw CalculationError(
        fmt::format("{} needs critical temperature, critical pressure and acentric factor; not known of: {}",
                    pr ? "Peng-Robinson" : "Soave-Redlich-Kwong", joined(missing, ", ")));
  }
  const std::size_t n = substances.size();
  k_.resize(n * n);
  std::vector<std::string> zero;
  for (std::size_t i = 0; i < n; ++i) {
    const Substance& substance = substances[i];
    const double Tc = *substance.Tc_K, Pc = *substance.Pc_Pa, w = *substance.acentric_factor;
    Tc_.push_back(Tc);
    root_ac_.push_back(std::sqrt(Omega_a / Pc) * gas_constant * Tc);
    b_.push_back(Omega_b * gas_constant * Tc / Pc);
    m_.push_back(pr ? 0.37464 + w * (1.54226 - 0.26992 * w) : 0.480 + w * (1.574 - 0.176 * w));
    hydrogen_.push_back(!pr && substance.name == "hydrogen");
    if (hydrogen_.back())
      notices_.add("hydrogen-alpha",
                   "the alpha function of hydrogen is that of Graboski and Daubert, "
                   "1.202 exp(-0.30288 T/Tc)");
    for (std::size_t j = 0; j < i; ++j) {
      const auto value = interactions.find(substance.name, substances[j].name);
      k_[i * n + j] = k_[j * n + i] = value.value_or(0);
      if (!value) zero.push_back(fmt::format("{} - {}", substances[j].name, substance.name));
    }
  }
  if (!zero.empty()) {
    notices_.add("no-interaction",
                 fmt::format("no k_ij is at hand for {}: taken as 0, which suits alike substances only",
                             joined(zero, ", ")));
  }
  s_.resize(n);
  ds_.resize(n);
  dds_.resize(n);
  D_i_.resize(n);
  D_iT_.resize(n);
}

void CubicEquation::set_temperature(double T_K) {
  if (T_K == T_K_) return;
  T_K_ = T_K;
  for (std::size_t i = 0; i < size(); ++i) {
    if (hydrogen_[i]) {
      constexpr double half_rate = 0.30288 / 2;
      s_[i] = root_ac_[i] * std::sqrt(1.202) * std::exp(-half_rate * T_K / Tc_[i]);
      ds_[i] = -half_rate / Tc_[i] * s_[i];
      dds_[i] = half_rate / Tc_[i] * half_rate / Tc_[i] * s_[i];
      continue;
    }
    const double root = std::sqrt(T_K / Tc_[i]);
    s_[i] = root_ac_[i] * (1 + m_[i] * (1 - root));
    ds_[i] = -root_ac_[i] * m_[i] * root / (2 * T_K);
    dds_[i] = root_ac_[i] * m_[i] * root / (4 * T_K * T_K);
  }
}

double CubicEquation::a(std::size_t i, double T_K) {
  set_temperature(T_K);
  return s_[i] * s_[i];
}

// F = -n ln(1 - B/V) - D/(R T B (d1 - d2)) ln((V + d1 B)/(V + d2 B)), with D = n^2 a and B = n b; the
// derivatives in the order and notation of Michelsen and Mollerup (2007), chapter 3.
void CubicEquation::evaluate(double T_K, double V, std::span<const double> n, HelmholtzWanted wanted,
                             Helmholtz& out) {
  set_temperature(T_K);
  const std::size_t N = size();
  double total = 0, B = 0, D = 0, D_T = 0, D_TT = 0;
  for (std::size_t i = 0; i < N; ++i) {
    total += n[i];
    B += n[i] * b_[i];
    double sum = 0, sum_T = 0, sum_TT = 0;
    for (std::size_t j = 0; j < N; ++j) {
      const double weight = n[j] * (1 - k_[i * N + j]);
      sum += weight * s_[j];
      sum_T += weight * ds_[j];
      sum_TT += weight * dds_[j];
    }
    D_i_[i] = 2 * s_[i] * sum;
    D_iT_[i] = 2 * (ds_[i] * sum + s_[i] * sum_T);
    D += n[i] * s_[i] * sum;
    D_T += n[i] * (ds_[i] * sum + s_[i] * sum_T);
    D_TT += n[i] * (dds_[i] * sum + 2 * ds_[i] * sum_T + s_[i] * sum_TT);
  }
  const double R = gas_constant, T = T_K;
  const double g = std::log1p(-B / V), g_V = B / (V * (V - B)), g_B = -1 / (V - B);
  const double g_VV = -1 / ((V - B) * (V - B)) + 1 / (V * V), g_BV = 1 / ((V - B) * (V - B)), g_BB = -g_BV;
  const double one = V + d1_ * B, two = V + d2_ * B, width = R * B * (d1_ - d2_);
  const double f = std::log(one / two) / width, f_V = -1 / (R * one * two), f_B = -(f + V * f_V) / B;
  const double f_VV = (1 / (two * two) - 1 / (one * one)) / width, f_BV = -(2 * f_V + V * f_VV) / B,
               f_BB = -(2 * f_B + V * f_BV) / B;
  const double F_B = -total * g_B - D / T * f_B, F_D = -f / T;
  out.F = -total * g - D / T * f;
  out.V = -total * g_V - D / T * f_V;
  out.VV = -total * g_VV - D / T * f_VV;
  const double F_BV = -total * g_BV - D / T * f_BV;
  for (std::size_t i = 0; i < N; ++i) {
    out.i[i] = -g + F_B * b_[i] + F_D * D_i_[i];
    out.iV[i] = -g_V + F_BV * b_[i] - f_V / T * D_i_[i];
  }
  if (wanted.T || wanted.TT) {
    out.T = D * f / (T * T) + F_D * D_T;
    out.TV = D * f_V / (T * T) - f_V / T * D_T;
    for (std::size_t i = 0; i < N; ++i) {
      out.iT[i] = (D * f_B / (T * T) - f_B / T * D_T) * b_[i] + f / (T * T) * D_i_[i] + F_D * D_iT_[i];
    }
    out.TT = -2 * D * f / (T * T * T) + 2 * f / (T * T) * D_T + F_D * D_TT;
  }
  if (!wanted.composition) return;
  const double F_BB = -total * g_BB - D / T * f_BB, F_BD = -f_B / T;
  for (std::size_t i = 0; i < N; ++i) {
    for (std::size_t j = 0; j <= i; ++j) {
      out.ij[i * N + j] = out.ij[j * N + i] =
          -g_B * (b_[i] + b_[j]) + F_BD * (b_[i] * D_i_[j] + b_[j] * D_i_[i]) + F_BB * b_[i] * b_[j] +
          F_D * 2 * s_[i] * s_[j] * (1 - k_[i * N + j]);
    }
  }
}

CubicEquation::Mixed CubicEquation::mixed(double T_K, double P_Pa, std::span<const double> x) {
  set_temperature(T_K);
  Mixed mixed{};
  for (std::size_t i = 0; i < size(); ++i) {
    mixed.b += x[i] * b_[i];
    for (std::size_t j = 0; j < size(); ++j)
      mixed.a += x[i] * x[j] * s_[i] * s_[j] * (1 - k_[i * size() + j]);
  }
  const double RT = gas_constant * T_K;
  const double A = mixed.A = mixed.a * P_Pa / (RT * RT);
  const double B = mixed.B = mixed.b * P_Pa / RT;
  const double u = d1_ + d2_, w = d1_ * d2_;
  mixed.cubic = {1, (u - 1) * B - 1, A + (w - u) * B * B - u * B, -(A * B + w * B * B * (1 + B))};
  return mixed;
}

// The cubic loses digits of a liquid's volume; the pressure itself, as a function of volume, has them.
void CubicEquation::polish(double T_K, double P_Pa, std::span<const double> x, double& v) {
  Helmholtz F(size());
  const double RT = gas_constant * T_K;
  for (int k = 0; k < 2; ++k) {
    evaluate(T_K, v, x, {}, F);
    const double slope = -RT * (F.VV + 1 / (v * v));
    const double step = (P_Pa - RT * (1 / v - F.V)) / slope;
    constexpr double most = 1e-6;  // more would mean that this is a turning point
    if (!(slope < 0) || !(std::abs(step) < most * v)) return;
    v += step;
  }
}

// The cubic is searched between and beyond its stationary points, so that no root is lost to rounding of a
// formula.
std::vector<VolumeRoot> CubicEquation::volumes(double T_K, double P_Pa, std::span<const double> x) {
  const Mixed m = mixed(T_K, P_Pa, x);
  const double c2 = m.cubic[1], c1 = m.cubic[2], c0 = m.cubic[3];
  const auto value = [&](double Z) { return ((Z + c2) * Z + c1) * Z + c0; };
  std::vector<double> ends{m.B};
  const double square = c2 * c2 - 3 * c1;
  if (square > 0) {
    for (const double sign : {-1.0, 1.0}) {
      const double Z = (-c2 + sign * std::sqrt(square)) / 3;
      if (Z > m.B) ends.push_back(Z);
    }
  }
  double high = std::max(2.0, 2 * ends.back() + 1);
  while (value(high) <= 0) high *= 2;
  ends.push_back(high);
  std::vector<VolumeRoot> roots;
  FluidState state(size());
  for (std::size_t k = 1; k < ends.size(); ++k) {
    const double low_value = value(ends[k - 1]), high_value = value(ends[k]);
    if ((low_value < 0) == (high_value < 0)) continue;
    if (low_value > 0) continue;  // falling with Z: between liquid and vapour, mechanically unstable
    std::uintmax_t most = 200;
    const auto bracket = boost::math::tools::toms748_solve(value, ends[k - 1], ends[k], low_value, high_value,
                                                           boost::math::tools::eps_tolerance<double>(), most);
    VolumeRoot root;
    root.v_m3_mol = (bracket.first + bracket.second) / 2 * gas_constant * T_K / P_Pa;
    polish(T_K, P_Pa, x, root.v_m3_mol);
    root.Z = P_Pa * root.v_m3_mol / (gas_constant * T_K);
    fluid_state(*this, T_K, root.v_m3_mol, x, false, state, P_Pa);
    for (std::size_t i = 0; i < x.size(); ++i) root.gibbs += x[i] * state.ln_phi[i];
    roots.push_back(root);
  }
  return roots;
}

}  // namespace jampot
