#include "jampot/equilibrium/three_liquids.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/equilibrium/incipient.hpp"

namespace jampot {

std::optional<ThreeLiquids> three_liquids_near(ActivityModel& model, double T_K, const ThreeLiquids& guess) {
  model.set_temperature(T_K);
  ThreeLiquids x = guess;
  std::array<std::size_t, 3> base{};  // of each liquid the component that the ratios are taken to
  for (std::size_t p = 0; p < 3; ++p)
    base[p] = static_cast<std::size_t>(std::max_element(x[p].begin(), x[p].end()) - x[p].begin());
  std::array<std::array<double, 3>, 3> ln_a{};
  Eigen::MatrixXd J(6, 6);
  Eigen::VectorXd F(6);
  constexpr int most_iterations = 50;
  double residual = HUGE_VAL;
  for (int iteration = 0; iteration < most_iterations; ++iteration) {
    J.setZero();
    for (std::size_t p = 0; p < 3; ++p) {
      std::array<double, 3> ln_gamma{};
      std::array<double, 9> dn{};
      model.evaluate(x[p], ln_gamma, {}, dn);
      std::size_t column = 2 * p;
      for (std::size_t k = 0; k < 3; ++k) {
        ln_a[p][k] = std::log(x[p][k]) + ln_gamma[k];
        if (k == base[p]) continue;
        // A step of the ratio ln(x_k/x_base) by dt changes x_j by x_j (delta_jk - x_k) dt.
        for (std::size_t i = 0; i < 3; ++i) {
          double slope = (i == k ? 1 : 0) - x[p][k];
          for (std::size_t j = 0; j < 3; ++j) slope += dn[i * 3 + j] * x[p][j] * ((j == k ? 1 : 0) - x[p][k]);
          const auto row = static_cast<Eigen::Index>(i), col = static_cast<Eigen::Index>(column);
          if (p < 2) J(row + 3 * static_cast<Eigen::Index>(p), col) += slope;
          if (p == 2) {
            J(row, col) -= slope;
            J(row + 3, col) -= slope;
          }
        }
        ++column;
      }
    }
    for (std::size_t i = 0; i < 3; ++i) {
      F[static_cast<Eigen::Index>(i)] = ln_a[0][i] - ln_a[2][i];
      F[static_cast<Eigen::Index>(i) + 3] = ln_a[1][i] - ln_a[2][i];
    }
    const double now = F.cwiseAbs().maxCoeff();
    if (!std::isfinite(now)) return std::nullopt;
    if (now < 1e-14 || (now < 1e-12 && now >= residual)) {
      residual = now;
      break;
    }
    residual = now;
    const Eigen::VectorXd step = solved_carefully(J, Eigen::VectorXd(-F));
    constexpr double longest = 0.5;
    const double factor = std::min(1.0, longest / std::max(1e-300, step.cwiseAbs().maxCoeff()));
    for (std::size_t p = 0; p < 3; ++p) {
      std::size_t column = 2 * p;
      double sum = 0;
      for (std::size_t k = 0; k < 3; ++k) {
        if (k != base[p]) x[p][k] *= std::exp(factor * step[static_cast<Eigen::Index>(column++)]);
        sum += x[p][k];
      }
      for (double& value : x[p]) value /= sum;
    }
  }
  if (!(residual < 1e-11)) return std::nullopt;
  for (std::size_t a = 0; a < 3; ++a) {
    for (std::size_t b = a + 1; b < 3; ++b) {
      double most = 0;
      for (std::size_t i = 0; i < 3; ++i) most = std::max(most, std::abs(x[a][i] - x[b][i]));
      constexpr double same = 1e-5;
      if (most < same) return std::nullopt;
    }
  }
  return x;
}

std::array<double, 3> ThreeBoilingLiquids::shares(const std::array<double, 3>& x) const {
  Eigen::Matrix3d M;
  for (Eigen::Index p = 0; p < 3; ++p) {
    for (Eigen::Index i = 0; i < 3; ++i)
      M(i, p) = liquids[static_cast<std::size_t>(p)][static_cast<std::size_t>(i)];
  }
  const Eigen::Vector3d share = M.inverse() * Eigen::Vector3d(x[0], x[1], x[2]);
  return {share[0], share[1], share[2]};
}

bool ThreeBoilingLiquids::contain(const std::array<double, 3>& x) const {
  const auto share = shares(x);
  return share[0] >= 0 && share[1] >= 0 && share[2] >= 0;
}

std::optional<ThreeBoilingLiquids> three_boiling_near(Mixture& mixture, double P_Pa, double T_K,
                                                      const ThreeLiquids& guess) {
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  IncipientState state(3);
  ThreeBoilingLiquids found;
  found.liquids = guess;
  double slope = -5000, T_before = 0, before = 0;  // K; d ln P/d(1/T), replaced by the secant
  constexpr int most_steps = 40;
  for (int step = 0; step < most_steps; ++step) {
    const auto liquids = three_liquids_near(mixture.activity(), T_K, found.liquids);
    if (!liquids) return std::nullopt;
    found.liquids = *liquids;
    state.T_K = T_K;
    state.P_Pa = P_Pa;
    state.w.assign(found.liquids[0].begin(), found.liquids[0].end());
    if (!solver.solve(Sought::pressure, found.liquids[0], state)) return std::nullopt;
    const double error = std::log(state.P_Pa / P_Pa);
    if (std::abs(error) < 1e-12) {
      found.y = {state.w[0], state.w[1], state.w[2]};
      found.T_K = T_K;
      return found;
    }
    if (T_before > 0 && T_before != T_K) slope = (error - before) / (1 / T_K - 1 / T_before);
    T_before = T_K;
    before = error;
    T_K = 1 / (1 / T_K - error / slope);
    if (!(T_K > 100 && T_K < 1500)) return std::nullopt;
  }
  return std::nullopt;
}

}  // namespace jampot
