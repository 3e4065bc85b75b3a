#include "jampot/equilibrium/boiling_liquids.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"

namespace jampot {

struct BoilingLiquidsSolver::Work {
  std::vector<Eigen::Index> there;  // components that are there
  Eigen::MatrixXd J;
  Eigen::VectorXd f, change;
  LuSolver lu;
};

BoilingLiquidsSolver::BoilingLiquidsSolver(Phase& liquid, Phase& vapour, double P_Pa)
    : liquid_(liquid),
      vapour_(vapour),
      P_Pa_(P_Pa),
      a_(liquid.size()),
      b_(liquid.size()),
      v_(liquid.size()) {}

// Unknowns: alpha, beta and y of the m components that are there, T, the share of beta. Rows: m equalities
// between the liquids, m between alpha and the vapour, m of the tie line, two sums. Where the whole liquid is
// given, one of the m rows of the tie line follows from the others and the sums; the sum of the vapour takes
// its place.
void BoilingLiquidsSolver::assemble(const BoilingLiquids& s, std::span<const double> z) {
  Work& work = *work_;
  const std::size_t n = liquid_.size();
  work.there.clear();
  for (std::size_t i = 0; i < n; ++i) {
    if (s.alpha[i] > 0) work.there.push_back(static_cast<Eigen::Index>(i));
  }
  const auto m = std::ssize(work.there), size = 3 * m + 2, T = 3 * m, share = 3 * m + 1;
  work.J.setZero(size, size);
  work.f.setZero(size);
  const Wanted wanted{true, false, true};
  liquid_.evaluate(s.T_K, P_Pa_, s.alpha, wanted, a_);
  liquid_.evaluate(s.T_K, P_Pa_, s.beta, wanted, b_);
  vapour_.evaluate(s.T_K, P_Pa_, s.y, wanted, v_);
  for (Eigen::Index r = 0; r < m; ++r) {
    const auto i = static_cast<std::size_t>(work.there[static_cast<std::size_t>(r)]);
    const double potential = std::log(s.alpha[i]) + a_.ln_phi[i];
    work.f[r] = potential - std::log(s.beta[i]) - b_.ln_phi[i];
    work.f[m + r] = potential - std::log(s.y[i]) - v_.ln_phi[i];
    work.f[2 * m + r] = (z.empty() ? s.y[i] : z[i]) - (1 - s.share) * s.alpha[i] - s.share * s.beta[i];
    for (Eigen::Index c = 0; c < m; ++c) {
      const std::size_t k = i * n + static_cast<std::size_t>(work.there[static_cast<std::size_t>(c)]);
      const double own = r == c ? 1 : 0;
      work.J(r, c) = work.J(m + r, c) = own / s.alpha[i] + a_.dn[k];
      work.J(r, m + c) = -own / s.beta[i] - b_.dn[k];
      work.J(m + r, 2 * m + c) = -own / s.y[i] - v_.dn[k];
    }
    work.J(2 * m + r, r) = -(1 - s.share);
    work.J(2 * m + r, m + r) = -s.share;
    if (z.empty()) work.J(2 * m + r, 2 * m + r) = 1;
    work.J(r, T) = a_.dT[i] - b_.dT[i];
    work.J(m + r, T) = a_.dT[i] - v_.dT[i];
    work.J(2 * m + r, share) = s.alpha[i] - s.beta[i];
    work.J(T, r) = work.J(share, m + r) = 1;
    work.f[T] += s.alpha[i];
    work.f[share] += s.beta[i];
  }
  work.f[T] -= 1;
  work.f[share] -= 1;
  if (z.empty()) return;
  const Eigen::Index last = 3 * m - 1;
  work.J.row(last).setZero();
  work.J.row(last).segment(2 * m, m).setOnes();
  work.f[last] = -1;
  for (const Eigen::Index i : work.there) work.f[last] += s.y[static_cast<std::size_t>(i)];
}

bool BoilingLiquidsSolver::newton(BoilingLiquids& s, std::span<const double> z) {
  Work& work = *work_;
  constexpr int most_steps = 60;
  for (int step = 0; step < most_steps; ++step) {
    assemble(s, z);
    s.residual = work.f.cwiseAbs().maxCoeff();
    if (!std::isfinite(s.residual)) return false;
    if (s.residual < 1e-11) break;
    work.lu.factor(work.J);
    work.lu.solve(work.f, work.change);
    if (!work.change.allFinite()) return false;
    const auto m = std::ssize(work.there);
    double length = std::min(1.0, 15 / std::max(1e-300, std::abs(work.change[3 * m])));
    length = std::min(length, 0.3 / std::max(1e-300, std::abs(work.change[3 * m + 1])));
    const auto fractions = [&](Eigen::Index k) -> double& {
      std::vector<double>& x = k < m ? s.alpha : k < 2 * m ? s.beta : s.y;
      return x[static_cast<std::size_t>(work.there[static_cast<std::size_t>(k % m)])];
    };
    for (Eigen::Index k = 0; k < 3 * m; ++k) {
      const double here = fractions(k);
      if (work.change[k] > 0) length = std::min(length, 0.7 * here / work.change[k]);
      length = std::min(length, 0.2 / std::max(1e-300, std::abs(work.change[k])));
    }
    for (Eigen::Index k = 0; k < 3 * m; ++k) fractions(k) -= length * work.change[k];
    s.T_K -= length * work.change[3 * m];
    s.share -= length * work.change[3 * m + 1];
    if (!(s.T_K > 100 && s.T_K < 1500)) return false;
  }
  double apart = 0, least = 1;
  for (const Eigen::Index i : work.there) {
    const double alpha = s.alpha[static_cast<std::size_t>(i)], beta = s.beta[static_cast<std::size_t>(i)];
    apart = std::max(apart, std::abs(alpha - beta));
    least = std::min({least, alpha, beta});
  }
  return s.residual < 1e-9 && apart > 1e-4 && least > 1e-12;
}

std::optional<BoilingLiquids> BoilingLiquidsSolver::azeotrope(BoilingLiquids start) {
  if (!newton(start, {}) || !(start.share > 0 && start.share < 1)) return std::nullopt;
  return start;
}

bool BoilingLiquidsSolver::through(std::span<const double> z, BoilingLiquids& state) {
  return newton(state, z);
}

std::vector<double> BoilingLiquidsSolver::eigenvalues(const BoilingLiquids& s) {
  Work& work = *work_;
  assemble(s, s.y);
  const auto m = std::ssize(work.there);
  Eigen::MatrixXd right = Eigen::MatrixXd::Zero(work.J.rows(), m - 1);
  for (Eigen::Index c = 0; c + 1 < m; ++c) right(2 * m + c, c) = -1;  // the last component gives way
  const Eigen::MatrixXd change = solved_carefully(work.J, right);
  Eigen::MatrixXd M(m - 1, m - 1);
  for (Eigen::Index c = 0; c + 1 < m; ++c) {
    for (Eigen::Index r = 0; r + 1 < m; ++r) M(r, c) = (r == c ? 1 : 0) - change(2 * m + r, c);
  }
  return real_eigenvalues(M);
}

}  // namespace jampot
