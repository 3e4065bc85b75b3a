#include "jampot/fluid/cubic.hpp"

#include <fmt/format.h>

#include <Eigen/Core>
#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
CubicEquation::CubicEquation(Form form, const std::vector<Substance>& substances,
                             const InteractionTable& interactions, bool translated)
    : form_(form), translated_(translated) {
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
    const double Z_RA = substance.Z_RA ? *substance.Z_RA : 0.29056 - 0.08775 * w;
    c_.push_back(!translated ? 0
                             : (pr ? 0.50033 * (0.25969 - Z_RA) : 0.40768 * (0.29441 - Z_RA)) * gas_constant *
                                   Tc / Pc);
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
    notices_.add(
        "no-interaction",
        fmt::format("no k_ij for {}: 0 is assumed, which suits only similar components", joined(zero, ", ")));
  }
  for (std::vector<double>* vector : {&s_, &ds_, &dds_, &sum_, &slope_sum_}) vector->resize(n);
  unlike_.resize(n * n);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = 0; j < n; ++j) unlike_[i * n + j] = 1 - k_[i * n + j];
  }
  pull_.resize(n * n);
  D_i_.resize(n);
  D_iT_.resize(n);
}

void CubicEquation::set_temperature(double T_K) {
  if (T_K == T_K_) return;
  T_K_ = T_K;
  mixed_n_.clear();
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
  for (std::size_t i = 0; i < size(); ++i) {
    for (std::size_t j = 0; j < size(); ++j) {
      pull_[i * size() + j] = s_[i] * s_[j] * unlike_[i * size() + j];
    }
  }
}

// sum_j (1 - k_ij) n_j sqrt(a_j), of which all that mixes follows.
void CubicEquation::mix(std::span<const double> n) {
  if (std::equal(n.begin(), n.end(), mixed_n_.begin(), mixed_n_.end())) return;
  mixed_n_.assign(n.begin(), n.end());
  std::fill(sum_.begin(), sum_.end(), 0.0);
  double* const sum = sum_.data();
  for (std::size_t j = 0; j < size(); ++j) {  // by columns, so that the compiler takes several rows at once
    const double weight = n[j] * s_[j];
    const double* column = unlike_.data() + j * size();
    for (std::size_t i = 0; i < size(); ++i) sum[i] += weight * column[i];
  }
}

double CubicEquation::a(std::size_t i, double T_K) {
  set_temperature(T_K);
  const double root = s_[i];
  return root * root;
}

// F = -n ln(1 - B/V) - D/(R T B (d1 - d2)) ln((V + d1 B)/(V + d2 B)), with D = n^2 a and B = n b; the
// derivatives in the order and notation of Michelsen and Mollerup (2007), chapter 3.
void CubicEquation::evaluate(double T_K, double V, std::span<const double> n, HelmholtzWanted wanted,
                             Helmholtz& out) {
  set_temperature(T_K);
  const std::size_t N = size();
  const bool heat = wanted.T || wanted.TT;
  double total = 0, B = 0, D = 0, D_T = 0, D_TT = 0;
  mix(n);
  if (heat) {
    const auto rows = static_cast<Eigen::Index>(N);
    const auto vector = [&](const double* data) { return Eigen::Map<const Eigen::VectorXd>(data, rows); };
    Eigen::Map<Eigen::VectorXd>(slope_sum_.data(), rows).noalias() =
        Eigen::Map<const Eigen::MatrixXd>(unlike_.data(), rows, rows) *
        vector(n.data()).cwiseProduct(vector(ds_.data()));
  }
  for (std::size_t i = 0; i < N; ++i) {
    total += n[i];
    B += n[i] * b_[i];
    D_i_[i] = 2 * s_[i] * sum_[i];
    D += n[i] * s_[i] * sum_[i];
    D_T += 2 * n[i] * ds_[i] * sum_[i];
    if (!heat) continue;
    D_iT_[i] = 2 * (ds_[i] * sum_[i] + s_[i] * slope_sum_[i]);
    D_TT += 2 * n[i] * (dds_[i] * sum_[i] + ds_[i] * slope_sum_[i]);
  }
  const double R = gas_constant, T = T_K;
  const double by_V = 1 / V, by_free = 1 / (V - B), by_B = 1 / B, by_T = 1 / T;
  const double one = V + d1_ * B, two = V + d2_ * B, by_one = 1 / one, by_two = 1 / two,
               by_width = by_B / (R * (d1_ - d2_));
  const double g = std::log1p(-B * by_V), g_V = by_free - by_V, g_B = -by_free;
  const double f = std::log(one * by_two) * by_width, f_V = -by_one * by_two / R, f_B = -(f + V * f_V) * by_B;
  const double F_B = -total * g_B - D * by_T * f_B, F_D = -f * by_T;
  out.F = -total * g - D * by_T * f;
  out.V = -total * g_V - D * by_T * f_V;
  for (std::size_t i = 0; i < N; ++i) out.i[i] = -g + F_B * b_[i] + F_D * D_i_[i];
  const bool second = wanted.V || wanted.composition || heat;
  const double g_VV = by_V * by_V - by_free * by_free, g_BV = by_free * by_free, g_BB = -g_BV;
  const double f_VV = (by_two * by_two - by_one * by_one) * by_width, f_BV = -(2 * f_V + V * f_VV) * by_B,
               f_BB = -(2 * f_B + V * f_BV) * by_B;
  if (second) {
    out.VV = -total * g_VV - D * by_T * f_VV;
    const double F_BV = -total * g_BV - D * by_T * f_BV;
    for (std::size_t i = 0; i < N; ++i) out.iV[i] = -g_V + F_BV * b_[i] - f_V * by_T * D_i_[i];
  }
  out.T = D * f / (T * T) + F_D * D_T;
  if (wanted.T || wanted.TT) {
    out.TV = D * f_V / (T * T) - f_V / T * D_T;
    for (std::size_t i = 0; i < N; ++i) {
      out.iT[i] = (D * f_B / (T * T) - f_B / T * D_T) * b_[i] + f / (T * T) * D_i_[i] + F_D * D_iT_[i];
    }
    out.TT = -2 * D * f / (T * T * T) + 2 * f / (T * T) * D_T + F_D * D_TT;
  }
  if (!wanted.composition) return;
  const double F_BB = -total * g_BB - D / T * f_BB, F_BD = -f_B / T;
  for (std::size_t i = 0; i < N; ++i) {
    // -g_B (b_i + b_j) + F_BD (b_i D_j + b_j D_i) + F_BB b_i b_j + F_D D_ij
    const double b = b_[i], own = -g_B * b, with_b = -g_B + F_BD * D_i_[i] + F_BB * b, with_D = F_BD * b;
    for (std::size_t j = 0; j < N; ++j)
      out.ij[i * N + j] = own + with_b * b_[j] + with_D * D_i_[j] + 2 * F_D * pull_[i * N + j];
  }
}

CubicEquation::Mixed CubicEquation::mixed(double T_K, double P_Pa, std::span<const double> x) {
  set_temperature(T_K);
  Mixed mixed{};
  mix(x);
  for (std::size_t i = 0; i < size(); ++i) {
    mixed.b += x[i] * b_[i];
    mixed.a += x[i] * s_[i] * sum_[i];
  }
  add_cubic(mixed, T_K, P_Pa);
  return mixed;
}

void CubicEquation::add_cubic(Mixed& mixed, double T_K, double P_Pa) const {
  const double RT = gas_constant * T_K;
  const double A = mixed.A = mixed.a * P_Pa / (RT * RT);
  const double B = mixed.B = mixed.b * P_Pa / RT;
  const double u = d1_ + d2_, w = d1_ * d2_;
  mixed.cubic = {1, (u - 1) * B - 1, A + (w - u) * B * B - u * B, -(A * B + w * B * B * (1 + B))};
}

// Of the residual Gibbs energy over R T.
double CubicEquation::gibbs(const Mixed& m, double T_K, const VolumeRoot& root) const {
  const double v = root.v_m3_mol;
  return root.Z - 1 - std::log(root.Z - m.B) -
         m.a / (m.b * gas_constant * T_K * (d1_ - d2_)) * std::log((v + d1_ * m.b) / (v + d2_ * m.b));
}

std::optional<double> CubicEquation::ln_phi_pure(std::size_t i, double T_K, double P_Pa) {
  set_temperature(T_K);
  const double root_a = s_[i];
  Mixed pure{};
  pure.a = root_a * root_a;
  pure.b = b_[i];
  add_cubic(pure, T_K, P_Pa);
  const VolumeRoots found = roots(pure, T_K, P_Pa);
  if (found.empty()) return std::nullopt;
  const double value = found.size() == 1 ? gibbs(pure, T_K, found.front()) : found.stable().gibbs;
  return value - c_[i] * P_Pa / (gas_constant * T_K);
}

bool CubicEquation::vapour_like(double, double v_m3_mol, std::span<const double> x) {
  double b = 0;
  for (std::size_t i = 0; i < size(); ++i) b += x[i] * b_[i];
  // v/b of a pure fluid at its critical point.
  return v_m3_mol > (form_ == Form::peng_robinson ? 3.9514 : 3.8473) * b;
}

// Halley's method from where the cubic bends the same way all the way to the root: it cannot miss it. Of a
// liquid the cubic loses digits; the pressure itself, as a function of volume, has them.
void CubicEquation::add_root(const Mixed& m, double T_K, double P_Pa, double Z, VolumeRoots& roots) const {
  const double c2 = m.cubic[1], c1 = m.cubic[2], c0 = m.cubic[3], RT = gas_constant * T_K;
  constexpr int most_steps = 100;
  for (int k = 0; k < most_steps; ++k) {
    const double f = ((Z + c2) * Z + c1) * Z + c0, slope = (3 * Z + 2 * c2) * Z + c1, bend = 3 * Z + c2;
    const double step = f * slope / (slope * slope - f * bend);
    Z -= step;
    if (!(std::abs(step) > 1e-10 * Z)) break;  // what is left is the cube of it
  }
  VolumeRoot root;
  double& v = root.v_m3_mol = Z * RT / P_Pa;
  constexpr double liquid = 0.3;  // of greater Z the cubic has all digits
  if (Z < liquid) {
    const double one = v + d1_ * m.b, two = v + d2_ * m.b, repulsion = 1 / (v - m.b), pull = 1 / (one * two);
    const double slope = m.a * pull * pull * (one + two) - RT * repulsion * repulsion;
    const double step = (P_Pa - RT * repulsion + m.a * pull) / slope;
    constexpr double most = 1e-6;  // more would mean that this is a turning point
    if (slope < 0 && std::abs(step) < most * v) v += step;
  }
  if (!(v > m.b)) return;
  root.Z = P_Pa * v / RT;
  roots.add(root);
}

VolumeRoots CubicEquation::volumes(double T_K, double P_Pa, std::span<const double> x) {
  return roots(mixed(T_K, P_Pa, x), T_K, P_Pa);
}

VolumeRoots CubicEquation::roots(const Mixed& m, double T_K, double P_Pa) const {
  const double c2 = m.cubic[1], c1 = m.cubic[2], c0 = m.cubic[3];
  const auto value = [&](double Z) { return ((Z + c2) * Z + c1) * Z + c0; };
  VolumeRoots roots;
  const double inflection = -c2 / 3, square = c2 * c2 - 3 * c1;
  if (!(square > 0)) {
    add_root(m, T_K, P_Pa, std::max(inflection, m.B), roots);
    return roots;
  }
  // Between its stationary points the cubic falls: a root there is mechanically unstable. Outside, no root
  // lies further than twice their distance from the inflection unless it is the only one.
  const double half = std::sqrt(square) / 3, low = inflection - half, high = inflection + half;
  if (low > m.B && value(low) >= 0) add_root(m, T_K, P_Pa, std::max(m.B, inflection - 2 * half), roots);
  if (high <= m.B || value(high) < 0) {
    // A thin vapour is nearly Z = 1 - A + B, from where the root is near.
    const double thin = 1 - m.A + m.B;
    add_root(m, T_K, P_Pa, thin > high + half ? thin : std::max(m.B, inflection + 2 * half), roots);
  }
  if (roots.size() < 2) return roots;
  for (VolumeRoot& root : roots) root.gibbs = gibbs(m, T_K, root);
  return roots;
}

}  // namespace jampot
