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

SiteSolver::SiteSolver(const Parameters& p) : lu_(static_cast<Eigen::Index>(p.sites.size())) {}

// n_b Delta_ab/v for every two sites that bond.
void SiteSolver::set_bonds(const Parameters& p, const std::vector<double>& n, double v,
                           const std::vector<double>& delta) {
  const auto size = static_cast<Eigen::Index>(p.sites.size());
  bonds_.resize(size, size);
  for (Eigen::Index a = 0; a < size; ++a) {
    for (Eigen::Index b = 0; b < size; ++b) {
      const Site &one = p.sites[static_cast<std::size_t>(a)], &two = p.sites[static_cast<std::size_t>(b)];
      bonds_(a, b) =
          bond(one, two) ? two.number * n[two.component] * delta[one.component * p.n + two.component] / v : 0;
    }
  }
}

// Derivatives of 1/X_a - 1 - sum_b B_ab X_b with X.
void SiteSolver::factor_jacobian() {
  jacobian_ = -bonds_;
  jacobian_.diagonal().array() -= x_.array().square().inverse();
  lu_.factor(jacobian_);
}

void SiteSolver::solve(const Parameters& p, const std::vector<double>& n, double v,
                       const std::vector<double>& delta, std::vector<double>& X) {
  set_bonds(p, n, v, delta);
  x_.setOnes(bonds_.rows());
  // Half steps of substitution come near from wherever they start; Newton's method finishes.
  constexpr int substitutions = 5, most_steps = 60;
  for (int step = 0; step < substitutions; ++step) {
    bonded_ = bonds_.lazyProduct(x_);
    x_ = 0.5 * (x_.array() + (1 + bonded_.array()).inverse());
  }
  for (int step = 0; step < most_steps; ++step) {
    bonded_ = bonds_.lazyProduct(x_);
    residual_ = x_.array().inverse() - 1 - bonded_.array();
    factor_jacobian();
    lu_.solve(residual_, change_);
    double most = 0;
    for (Eigen::Index a = 0; a < x_.size(); ++a) {
      const double moved = std::clamp(x_[a] - change_[a], x_[a] / 5, 1.0);
      most = std::max(most, std::abs(moved / x_[a] - 1));
      x_[a] = moved;
    }
    if (most < 1e-9) break;  // the next step would be its square
  }
  std::copy(x_.begin(), x_.end(), X.begin());
}

void SiteSolver::change(const Parameters& p, const std::vector<double>& n, double v,
                        const std::vector<double>& delta, const std::vector<double>& X,
                        std::vector<double>& equations) {
  set_bonds(p, n, v, delta);
  x_ = Eigen::Map<const Eigen::VectorXd>(X.data(), bonds_.rows());
  residual_ = Eigen::Map<const Eigen::VectorXd>(equations.data(), bonds_.rows());
  factor_jacobian();
  lu_.solve(residual_, change_);
  for (std::size_t a = 0; a < equations.size(); ++a) equations[a] = -change_[static_cast<Eigen::Index>(a)];
}

}  // namespace jampot::pc_saft
