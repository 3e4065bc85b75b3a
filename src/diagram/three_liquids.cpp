#include "three_liquids.hpp"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

namespace jampot {

std::optional<ThreeLiquids> three_liquids_near(ActivityModel& model, double T_K, const ThreeLiquids& guess) {
  model.set_temperature(T_K);
  ThreeLiquids x = guess;
  std::array<std::size_t, 3> base{};  // of each liquid the component that the ratios are taken to
  for (std::size_t p = 0; p < 3; ++p)
    base[p] = static_cast<std::size_t>(std::max_element(x[p].begin(), x[p].end()) - x[p].begin());
  std::array<std::array<double, 3>, 3> ln_a{};
  Eigen::Matrix<double, 6, 6> J;
  Eigen::Matrix<double, 6, 1> F;
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
    const Eigen::Matrix<double, 6, 1> step = J.fullPivLu().solve(-F);
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

}  // namespace jampot
