#include "jampot/equilibrium/boiling_liquids.hpp"

#include <algorithm>
#include <cmath>

namespace jampot {

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
  const std::size_t n = liquid_.size();
  there_.clear();
  for (std::size_t i = 0; i < n; ++i) {
    if (s.alpha[i] > 0) there_.push_back(static_cast<Eigen::Index>(i));
  }
  const auto m = std::ssize(there_), size = 3 * m + 2, T = 3 * m, share = 3 * m + 1;
  J_.setZero(size, size);
  f_.setZero(size);
  const Wanted wanted{true, false, true};
  liquid_.evaluate(s.T_K, P_Pa_, s.alpha, wanted, a_);
  liquid_.evaluate(s.T_K, P_Pa_, s.beta, wanted, b_);
  vapour_.evaluate(s.T_K, P_Pa_, s.y, wanted, v_);
  for (Eigen::Index r = 0; r < m; ++r) {
    const auto i = static_cast<std::size_t>(there_[static_cast<std::size_t>(r)]);
    const double potential = std::log(s.alpha[i]) + a_.ln_phi[i];
    f_[r] = potential - std::log(s.beta[i]) - b_.ln_phi[i];
    f_[m + r] = potential - std::log(s.y[i]) - v_.ln_phi[i];
    f_[2 * m + r] = (z.empty() ? s.y[i] : z[i]) - (1 - s.share) * s.alpha[i] - s.share * s.beta[i];
    for (Eigen::Index c = 0; c < m; ++c) {
      const std::size_t k = i * n + static_cast<std::size_t>(there_[static_cast<std::size_t>(c)]);
      const double own = r == c ? 1 : 0;
      J_(r, c) = J_(m + r, c) = own / s.alpha[i] + a_.dn[k];
      J_(r, m + c) = -own / s.beta[i] - b_.dn[k];
      J_(m + r, 2 * m + c) = -own / s.y[i] - v_.dn[k];
    }
    J_(2 * m + r, r) = -(1 - s.share);
    J_(2 * m + r, m + r) = -s.share;
    if (z.empty()) J_(2 * m + r, 2 * m + r) = 1;
    J_(r, T) = a_.dT[i] - b_.dT[i];
    J_(m + r, T) = a_.dT[i] - v_.dT[i];
    J_(2 * m + r, share) = s.alpha[i] - s.beta[i];
    J_(T, r) = J_(share, m + r) = 1;
    f_[T] += s.alpha[i];
    f_[share] += s.beta[i];
  }
  f_[T] -= 1;
  f_[share] -= 1;
  if (z.empty()) return;
  const Eigen::Index last = 3 * m - 1;
  J_.row(last).setZero();
  J_.row(last).segment(2 * m, m).setOnes();
  f_[last] = -1;
  for (const Eigen::Index i : there_) f_[last] += s.y[static_cast<std::size_t>(i)];
}

bool BoilingLiquidsSolver::newton(BoilingLiquids& s, std::span<const double> z) {
  constexpr int most_steps = 60;
  for (int step = 0; step < most_steps; ++step) {
    assemble(s, z);
    s.residual = f_.cwiseAbs().maxCoeff();
    if (!std::isfinite(s.residual)) return false;
    if (s.residual < 1e-11) break;
    lu_.compute(J_);
    change_ = lu_.solve(f_);
    if (!change_.allFinite()) return false;
    const auto m = std::ssize(there_);
    double length = std::min(1.0, 15 / std::max(1e-300, std::abs(change_[3 * m])));
    length = std::min(length, 0.3 / std::max(1e-300, std::abs(change_[3 * m + 1])));
    const auto fractions = [&](Eigen::Index k) -> double& {
      std::vector<double>& x = k < m ? s.alpha : k < 2 * m ? s.beta : s.y;
      return x[static_cast<std::size_t>(there_[static_cast<std::size_t>(k % m)])];
    };
    for (Eigen::Index k = 0; k < 3 * m; ++k) {
      const double here = fractions(k);
      if (change_[k] > 0) length = std::min(length, 0.7 * here / change_[k]);
      length = std::min(length, 0.2 / std::max(1e-300, std::abs(change_[k])));
    }
    for (Eigen::Index k = 0; k < 3 * m; ++k) fractions(k) -= length * change_[k];
    s.T_K -= length * change_[3 * m];
    s.share -= length * change_[3 * m + 1];
    if (!(s.T_K > 100 && s.T_K < 1500)) return false;
  }
  double apart = 0, least = 1;
  for (const Eigen::Index i : there_) {
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
  assemble(s, s.y);
  const auto m = std::ssize(there_);
  const Eigen::FullPivLU<Matrix> lu(J_);
  Eigen::MatrixXd M(m - 1, m - 1);
  for (Eigen::Index c = 0; c + 1 < m; ++c) {
    Vector right = Vector::Zero(J_.rows());
    right[2 * m + c] = -1;  // the last component gives way
    const Vector change = lu.solve(right);
    for (Eigen::Index r = 0; r + 1 < m; ++r) M(r, c) = (r == c ? 1 : 0) - change[2 * m + r];
  }
  std::vector<double> list;
  const Eigen::VectorXcd found = M.eigenvalues();
  for (Eigen::Index i = 0; i < found.size(); ++i) list.push_back(found[i].real());
  return list;
}

}  // namespace jampot
