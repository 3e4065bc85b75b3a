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

// Few kinds of sites: kept on the stack.
constexpr int most_sites = 16;
using Square = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, most_sites, most_sites>;
using Column = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, most_sites, 1>;

// n_b Delta_ab/v for every two sites that bond.
Square bonds(const Parameters& p, const std::vector<double>& n, double v, const std::vector<double>& delta) {
  const auto size = static_cast<Eigen::Index>(p.sites.size());
  Square B(size, size);
  for (Eigen::Index a = 0; a < size; ++a) {
    for (Eigen::Index b = 0; b < size; ++b) {
      const Site &one = p.sites[static_cast<std::size_t>(a)], &two = p.sites[static_cast<std::size_t>(b)];
      B(a, b) =
          bond(one, two) ? two.number * n[two.component] * delta[one.component * p.n + two.component] / v : 0;
    }
  }
  return B;
}

// Derivatives of 1/X_a - 1 - sum_b B_ab X_b with X.
Square jacobian(const Square& B, const Column& X) {
  Square J = -B;
  J.diagonal().array() -= X.array().square().inverse();
  return J;
}

}  // namespace

void solve_sites(const Parameters& p, const std::vector<double>& n, double v,
                 const std::vector<double>& delta, std::vector<double>& X) {
  const Square B = bonds(p, n, v, delta);
  Column x = Column::Ones(B.rows());
  // Half steps of substitution come near from wherever they start; Newton's method finishes.
  constexpr int substitutions = 5, most_steps = 60;
  for (int step = 0; step < substitutions; ++step) x = 0.5 * (x.array() + (1 + (B * x).array()).inverse());
  for (int step = 0; step < most_steps; ++step) {
    const Column residual = x.array().inverse() - 1 - (B * x).array();
    const Column change = jacobian(B, x).partialPivLu().solve(residual);
    double most = 0;
    for (Eigen::Index a = 0; a < x.size(); ++a) {
      const double moved = std::clamp(x[a] - change[a], x[a] / 5, 1.0);
      most = std::max(most, std::abs(moved / x[a] - 1));
      x[a] = moved;
    }
    if (most < 1e-9) break;  // the next step would be its square
  }
  std::copy(x.begin(), x.end(), X.begin());
}

Eigen::VectorXd sites_change(const Parameters& p, const std::vector<double>& n, double v,
                             const std::vector<double>& delta, const std::vector<double>& X,
                             const Eigen::VectorXd& change) {
  const Column x = Eigen::Map<const Eigen::VectorXd>(X.data(), static_cast<Eigen::Index>(X.size()));
  const Column right = change;
  return -jacobian(bonds(p, n, v, delta), x).partialPivLu().solve(right);
}

}  // namespace jampot::pc_saft
