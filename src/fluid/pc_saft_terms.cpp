#include "pc_saft_terms.hpp"

#include <algorithm>

namespace jampot::pc_saft {

// a_0..a_2, b_0..b_2 of each power: J. Gross, G. Sadowski, Ind. Eng. Chem. Res. 40 (2001) 1244-1260, table 1.
const std::array<std::array<double, 6>, 7> universal{{
    {0.9105631445, -0.3084016918, -0.0906148351, 0.7240946941, -0.5755498075, 0.0976883116},
    {0.6361281449, 0.1860531159, 0.4527842806, 2.2382791861, 0.6995095521, -0.2557574982},
    {2.6861347891, -2.5030047259, 0.5962700728, -4.0025849485, 3.8925673390, -9.1558561530},
    {-26.547362491, 21.419793629, -1.7241829131, -21.003576815, -17.215471648, 20.642075974},
    {97.759208784, -65.255885330, -4.1302112531, 26.855641363, 192.67226447, -38.804430052},
    {-159.59154087, 83.318680481, 13.776631870, 206.55133841, -161.82646165, 93.626774077},
    {91.297774084, -33.746922930, -8.6728470368, -355.60235612, -165.20769346, -29.666905585},
}};

namespace {

// Derivatives of the residuals with X.
Eigen::MatrixXd jacobian(const Parameters& p, const std::vector<double>& n, double v,
                         const std::vector<double>& delta, const std::vector<double>& X) {
  const std::size_t size = p.sites.size();
  Eigen::MatrixXd J(static_cast<Eigen::Index>(size), static_cast<Eigen::Index>(size));
  for (std::size_t a = 0; a < size; ++a) {
    for (std::size_t b = 0; b < size; ++b) {
      const Site &one = p.sites[a], &two = p.sites[b];
      double value = a == b ? -1 / (X[a] * X[a]) : 0;
      if (bond(one, two))
        value -= two.number * n[two.component] * delta[one.component * p.n + two.component] / v;
      J(static_cast<Eigen::Index>(a), static_cast<Eigen::Index>(b)) = value;
    }
  }
  return J;
}

}  // namespace

void solve_sites(const Parameters& p, const std::vector<double>& n, double v,
                 const std::vector<double>& delta, std::vector<double>& X) {
  const std::size_t size = p.sites.size();
  std::fill(X.begin(), X.end(), 1.0);
  std::vector<double> next(size);
  // Half steps of substitution come near from wherever they start; Newton's method finishes.
  constexpr int substitutions = 6, most_steps = 60;
  for (int step = 0; step < substitutions; ++step) {
    for (std::size_t a = 0; a < size; ++a) {
      const double sum = 1 / X[a] - site_residual(p, n, v, delta, X, a);
      next[a] = (X[a] + 1 / sum) / 2;
    }
    X = next;
  }
  Eigen::VectorXd residual(static_cast<Eigen::Index>(size));
  for (int step = 0; step < most_steps; ++step) {
    for (std::size_t a = 0; a < size; ++a)
      residual[static_cast<Eigen::Index>(a)] = site_residual(p, n, v, delta, X, a);
    const Eigen::VectorXd change = jacobian(p, n, v, delta, X).partialPivLu().solve(residual);
    double most = 0;
    for (std::size_t a = 0; a < size; ++a) {
      const double moved = std::clamp(X[a] - change[static_cast<Eigen::Index>(a)], X[a] / 5, 1.0);
      most = std::max(most, std::abs(moved / X[a] - 1));
      X[a] = moved;
    }
    if (most < 1e-15) return;
  }
}

Eigen::VectorXd sites_change(const Parameters& p, const std::vector<double>& n, double v,
                             const std::vector<double>& delta, const std::vector<double>& X,
                             const Eigen::VectorXd& change) {
  return -jacobian(p, n, v, delta, X).partialPivLu().solve(change);
}

}  // namespace jampot::pc_saft
