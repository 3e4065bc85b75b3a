#pragma once
// The Helmholtz energy of PC-SAFT and its first derivatives, for plain and for dual numbers. Volumes here are
// in cubic angstroms for each molecule of a mole; equation numbers (A.n) are those of Gross and Sadowski
// (2001).
#include <ceres/jet.h>

#include <array>
#include <cmath>
#include <cstddef>
#include <vector>

#include "../basis/dense.hpp"

namespace jampot::pc_saft {

constexpr double pi = 3.14159265358979323846;
using Dual = ceres::Jet<double, 1>;

enum class SiteKind { donor, acceptor, both };
struct Site {
  std::size_t component;
  SiteKind kind;
  double number;      ///< of such sites on one molecule
  double copies = 1;  ///< 2: donors and acceptors that are equally many, with the same share of free ones
};
inline bool bond(const Site& a, const Site& b) {
  return a.kind == SiteKind::both || b.kind == SiteKind::both || a.kind != b.kind;
}

struct Parameters {
  std::size_t n = 0;
  std::vector<double> m, sigma;                  ///< by component
  std::vector<double> k, sigma3, epsilon;        ///< by pair, [i*n + j]
  std::vector<double> bond_volume, bond_energy;  ///< kappa sigma^3 and energy of association
  std::vector<Site> sites;
};

/// Radial distribution function at contact (A.7) and what it changes with; a = d_i d_j/(d_i + d_j).
template <class S>
struct Contact {
  S g, with_2, with_3, with_a;
};
template <class S>
Contact<S> contact(const S& a, const S& zeta2, const S& inverse) {  // inverse = 1/(1 - zeta_3)
  const S i2 = inverse * inverse, i3 = i2 * inverse, az = a * zeta2;
  return {inverse + 3.0 * az * i2 + 2.0 * az * az * i3, 3.0 * a * i2 + 4.0 * a * az * i3,
          i2 + 6.0 * az * i3 + 6.0 * az * az * i2 * i2, 3.0 * zeta2 * i2 + 4.0 * az * zeta2 * i3};
}

/// Shares of the sites that are left free, 1/X_a = 1 + sum_b n_b X_b Delta_ab/v, in plain numbers. Keeps its
/// memory from one evaluation to the next.
class SiteSolver {
 public:
  explicit SiteSolver(const Parameters& p);
  void solve(const Parameters& p, const std::vector<double>& n, double v,
             const std::vector<double>& strength_with_g, std::vector<double>& X);
  /// d X at the solution X, in the place of the change of each equation.
  void change(const Parameters& p, const std::vector<double>& n, double v,
              const std::vector<double>& strength_with_g, const std::vector<double>& X,
              std::vector<double>& equations);

 private:
  void set_bonds(const Parameters& p, const std::vector<double>& n, double v,
                 const std::vector<double>& delta);
  void factor_jacobian();

  Eigen::MatrixXd bonds_, jacobian_;
  Eigen::VectorXd x_, bonded_, residual_, change_;
  LuSolver lu_;
};

/// Everything that one evaluation needs and gives.
template <class S>
struct Work {
  explicit Work(const Parameters& p)
      : n(p.n),
        F_n(p.n),
        d(p.n),
        d_T(p.n),
        E1_n(p.n),
        E2_n(p.n),
        F_d(p.n),
        X(p.sites.size(), S(1.0)),
        strength(p.n * p.n),
        strength_T(p.n * p.n),
        delta(p.n * p.n),
        contacts(p.n * p.n),
        sites(p) {}
  std::vector<S> n;  ///< amounts: the input
  S F{}, F_v{}, F_T{};
  std::vector<S> F_n;
  std::vector<S> d, d_T;                ///< segment diameter and its derivative
  std::vector<S> E1_n, E2_n;            ///< derivatives of the sums of the dispersion term
  std::vector<S> F_d;                   ///< of F with the diameters
  std::vector<S> X;                     ///< share of sites that are not bonded
  std::vector<S> strength, strength_T;  ///< kappa sigma^3 (exp(epsilon/kT) - 1), by pair
  double known_T = 0;
  std::vector<S> delta;              ///< bond strength at contact, by pair
  std::vector<Contact<S>> contacts;  ///< by pair
  SiteSolver sites;
};

// (A.9)
template <class S>
S diameter(const Parameters& p, std::size_t i, const S& T) {
  using std::exp;
  return p.sigma[i] * (1.0 - 0.12 * exp(-3.0 * p.epsilon[i * p.n + i] / T));
}

inline bool same_temperature(double T, double known) {
  return T == known;
}
inline bool same_temperature(const Dual&, double) {
  return false;
}
inline double plain(double value) {
  return value;
}
inline double plain(const Dual& value) {
  return value.a;
}

template <class S>
void set_temperature(const Parameters& p, Work<S>& w, const S& T) {
  using std::exp;
  if (same_temperature(T, w.known_T)) return;
  w.known_T = plain(T);
  for (std::size_t i = 0; i < p.n; ++i) {
    w.d[i] = diameter(p, i, T);
    w.d_T[i] = (w.d[i] - p.sigma[i]) * 3.0 * p.epsilon[i * p.n + i] / (T * T);
  }
  if (p.sites.empty()) return;
  for (std::size_t ij = 0; ij < p.n * p.n; ++ij) {
    const S factor = p.bond_volume[ij] * exp(p.bond_energy[ij] / T);
    w.strength[ij] = factor - p.bond_volume[ij];
    w.strength_T[ij] = -factor * p.bond_energy[ij] / (T * T);
  }
}

/// The power series in the packing fraction (A.16, A.17) and their coefficients in m (A.18, A.19).
extern const std::array<std::array<double, 6>, 7> universal;

/// Derivatives of F with zeta_0..zeta_3 at constant volume, gathered from all terms.
template <class S>
struct Moments {
  std::array<S, 4> zeta;
  std::array<S, 4> F{};
};

// Hard chains: (A.4) with (A.6).
template <class S>
void add_chain(const Parameters& p, Work<S>& w, const S& v, Moments<S>& moments) {
  using std::log;
  const auto& z = moments.zeta;
  const S q = 1.0 - z[3], i = 1.0 / q, L = log(q), z22 = z[2] * z[2], z23 = z22 * z[2], r = 1.0 / z[3];
  const S cube = z23 * r * r - z[0];
  const S h = 3.0 * z[1] * z[2] * i + z23 * r * i * i + cube * L;
  const S scale = (6.0 / pi) * v;
  w.F += scale * h;
  w.F_v += (6.0 / pi) * h;
  moments.F[0] -= scale * L;
  moments.F[1] += scale * 3.0 * z[2] * i;
  moments.F[2] += scale * (3.0 * z[1] * i + 3.0 * z22 * r * (i * i + r * L));
  moments.F[3] += scale * (3.0 * z[1] * z[2] * i * i + z23 * r * i * i * (2.0 * i - r) -
                           2.0 * z23 * r * r * r * L - cube * i);
  for (std::size_t c = 0; c < p.n; ++c) {
    if (p.m[c] == 1) continue;
    const S a = 0.5 * w.d[c];
    const Contact<S> g = contact(a, z[2], i);
    const S ln_g = log(g.g), weight = (1 - p.m[c]) * w.n[c] / g.g;
    w.F += (1 - p.m[c]) * w.n[c] * ln_g;
    w.F_n[c] += (1 - p.m[c]) * ln_g;
    moments.F[2] += weight * g.with_2;
    moments.F[3] += weight * g.with_3;
    w.F_d[c] += 0.5 * weight * g.with_a;
  }
}

// Dispersion: (A.10) to (A.19).
template <class S>
void add_dispersion(const Parameters& p, Work<S>& w, const S& T, const S& v, Moments<S>& moments) {
  S total(0.0), M(0.0), E1(0.0), E2(0.0);
  const S inverse_T = 1.0 / T;
  for (std::size_t i = 0; i < p.n; ++i) {
    total += w.n[i];
    M += p.m[i] * w.n[i];
    S one(0.0), two(0.0);
    for (std::size_t j = 0; j < p.n; ++j) {
      const std::size_t ij = i * p.n + j;
      const S term = w.n[j] * (p.m[j] * p.sigma3[ij] * p.epsilon[ij]);
      one += term;
      two += term * p.epsilon[ij];
    }
    one *= p.m[i] * inverse_T;
    two *= p.m[i] * inverse_T * inverse_T;
    w.E1_n[i] = 2.0 * one;
    w.E2_n[i] = 2.0 * two;
    E1 += w.n[i] * one;
    E2 += w.n[i] * two;
  }
  const S m = M / total, im = 1.0 / m, eta = moments.zeta[3];
  const S first = 1.0 - im, second = first * (1.0 - 2.0 * im);  // (m - 1)/m, (m - 1)(m - 2)/m^2
  const S first_m = im * im, second_m = im * im * (3.0 - 4.0 * im);
  S I1(0.0), I2(0.0), I1_eta(0.0), I2_eta(0.0), I1_m(0.0), I2_m(0.0);
  for (std::size_t k = universal.size(); k-- > 0;) {  // Horner's scheme, with the derivative
    const auto& u = universal[k];
    I1_eta = I1_eta * eta + I1;
    I2_eta = I2_eta * eta + I2;
    I1 = I1 * eta + u[0] + first * u[1] + second * u[2];
    I2 = I2 * eta + u[3] + first * u[4] + second * u[5];
    I1_m = I1_m * eta + first_m * u[1] + second_m * u[2];
    I2_m = I2_m * eta + first_m * u[4] + second_m * u[5];
  }
  const S i = 1.0 / (1.0 - eta), j = 1.0 / (2.0 - eta), i4 = i * i * i * i, ij2 = i * i * j * j;
  const S chains = eta * (8.0 - 2.0 * eta) * i4;
  const S chains_eta = (8.0 - 4.0 * eta) * i4 + 4.0 * chains * i;
  const S spheres = eta * (20.0 + eta * (-27.0 + eta * (12.0 - 2.0 * eta))) * ij2;
  const S spheres_eta = (20.0 + eta * (-54.0 + eta * (36.0 - 8.0 * eta))) * ij2 + 2.0 * spheres * (i + j);
  const S C = 1.0 / (1.0 + m * chains + (1.0 - m) * spheres);
  const S C_eta = -C * C * (m * chains_eta + (1.0 - m) * spheres_eta), C_m = -C * C * (chains - spheres);

  const S by_1 = -2.0 * pi / v, by_2 = -pi / v;
  const S with_E1 = by_1 * I1, with_E2 = by_2 * m * C * I2;
  const S F = with_E1 * E1 + with_E2 * E2;
  const S F_m = by_1 * E1 * I1_m + by_2 * E2 * (C * I2 + m * C_m * I2 + m * C * I2_m);
  w.F += F;
  w.F_v -= F / v;
  w.F_T -= (with_E1 * E1 + 2.0 * with_E2 * E2) * inverse_T;
  moments.F[3] += by_1 * E1 * I1_eta + by_2 * E2 * m * (C_eta * I2 + C * I2_eta);
  for (std::size_t c = 0; c < p.n; ++c)
    w.F_n[c] += with_E1 * w.E1_n[c] + with_E2 * w.E2_n[c] + F_m * (p.m[c] - m) / total;
}

// What is left of 1/X_a - 1 - sum_b n_b X_b Delta_ab/v.
template <class S>
S site_residual(const Parameters& p, const std::vector<S>& n, const S& v, const std::vector<S>& delta,
                const std::vector<S>& X, std::size_t a) {
  S sum(0.0);
  for (std::size_t b = 0; b < p.sites.size(); ++b) {
    if (bond(p.sites[a], p.sites[b]))
      sum += p.sites[b].number * n[p.sites[b].component] * X[b] *
             delta[p.sites[a].component * p.n + p.sites[b].component];
  }
  return 1.0 / X[a] - 1.0 - sum / v;
}

inline void find_sites(const Parameters& p, Work<double>& w, double v, const std::vector<double>& delta,
                       const std::vector<double>*) {
  w.sites.solve(p, w.n, v, delta, w.X);
}

// The plain solution is known; one step of Newton's method carries the derivative over.
inline void find_sites(const Parameters& p, Work<Dual>& w, const Dual& v, const std::vector<Dual>& delta,
                       const std::vector<double>* solved) {
  std::vector<double> n(p.n), plain_delta(delta.size()), change(p.sites.size());
  for (std::size_t i = 0; i < p.n; ++i) n[i] = w.n[i].a;
  for (std::size_t k = 0; k < delta.size(); ++k) plain_delta[k] = delta[k].a;
  for (std::size_t a = 0; a < p.sites.size(); ++a) w.X[a] = Dual((*solved)[a]);
  for (std::size_t a = 0; a < p.sites.size(); ++a) change[a] = site_residual(p, w.n, v, delta, w.X, a).v[0];
  w.sites.change(p, n, v.a, plain_delta, *solved, change);
  for (std::size_t a = 0; a < p.sites.size(); ++a) w.X[a].v[0] = change[a];
}

// Association. F is stationary in X, so that only what stands beside X is differentiated: M. L. Michelsen, E.
// M. Hendriks, Fluid Phase Equilib. 180 (2001) 165-174.
template <class S>
void add_association(const Parameters& p, Work<S>& w, const S& v, Moments<S>& moments,
                     const std::vector<double>* solved) {
  using std::log;
  const S inverse = 1.0 / (1.0 - moments.zeta[3]);
  std::vector<S>& delta = w.delta;
  std::vector<Contact<S>>& g = w.contacts;
  for (const Site& a : p.sites) {
    for (const Site& b : p.sites) {
      const std::size_t i = a.component, j = b.component, ij = i * p.n + j;
      g[ij] = contact(S(w.d[i] * w.d[j] / (w.d[i] + w.d[j])), moments.zeta[2], inverse);
      delta[ij] = g[ij].g * w.strength[ij];
    }
  }
  find_sites(p, w, v, delta, solved);
  for (std::size_t a = 0; a < p.sites.size(); ++a) {
    const Site& site = p.sites[a];
    const S ln_X = log(w.X[a]);
    w.F += site.copies * site.number * w.n[site.component] * (ln_X - 0.5 * w.X[a] + 0.5);
    w.F_n[site.component] += site.copies * site.number * ln_X;
    for (std::size_t b = 0; b < p.sites.size(); ++b) {
      const Site& other = p.sites[b];
      if (!bond(site, other)) continue;
      const std::size_t i = site.component, j = other.component, ij = i * p.n + j;
      const S bonds =
          -0.5 * site.copies / v * (site.number * other.number) * w.n[i] * w.n[j] * w.X[a] * w.X[b];
      w.F_v -= bonds * delta[ij] / v;
      w.F_T += bonds * g[ij].g * w.strength_T[ij];
      const S by_g = bonds * w.strength[ij], sum = w.d[i] + w.d[j];
      moments.F[2] += by_g * g[ij].with_2;
      moments.F[3] += by_g * g[ij].with_3;
      w.F_d[i] += by_g * g[ij].with_a * w.d[j] * w.d[j] / (sum * sum);
      w.F_d[j] += by_g * g[ij].with_a * w.d[i] * w.d[i] / (sum * sum);
    }
  }
}

/// F and its first derivatives at w.n. @param solved shares of free sites at the same state, where S is dual
template <class S>
void gradient(const Parameters& p, Work<S>& w, const S& T, const S& v, const std::vector<double>* solved) {
  set_temperature(p, w, T);
  w.F = w.F_v = w.F_T = S(0.0);
  Moments<S> moments;
  moments.zeta.fill(S(0.0));
  moments.F.fill(S(0.0));
  const S unit = (pi / 6) / v;
  for (std::size_t i = 0; i < p.n; ++i) {
    w.F_n[i] = w.F_d[i] = S(0.0);
    S term = unit * p.m[i] * w.n[i];
    for (S& zeta : moments.zeta) {
      zeta += term;
      term *= w.d[i];
    }
  }
  add_chain(p, w, v, moments);
  add_dispersion(p, w, T, v, moments);
  if (!p.sites.empty()) add_association(p, w, v, moments, solved);
  const auto& Z = moments.F;
  for (std::size_t i = 0; i < p.n; ++i) {
    const S d = w.d[i];
    w.F_n[i] += unit * p.m[i] * (Z[0] + d * (Z[1] + d * (Z[2] + d * Z[3])));
    w.F_d[i] += unit * p.m[i] * w.n[i] * (Z[1] + d * (2.0 * Z[2] + 3.0 * d * Z[3]));
    w.F_T += w.F_d[i] * w.d_T[i];
  }
  for (std::size_t k = 0; k < 4; ++k) w.F_v -= Z[k] * moments.zeta[k] / v;
}

}  // namespace jampot::pc_saft
