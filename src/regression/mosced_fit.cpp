#include "jampot/regression/mosced_fit.hpp"

#include <ceres/autodiff_cost_function.h>
#include <fmt/format.h>

#include <cmath>

#include "../basis/dense.hpp"
#include "../basis/sobol.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/liquid/mosced.hpp"
#include "quiet_solver.hpp"

namespace jampot {
namespace {

constexpr int unknowns = 4;  // lambda, tau, alpha, beta

struct Residual {
  const MoscedPoint& point;
  double v_cm3_mol, q;

  template <class T>
  bool operator()(const T* p, T* residual) const {
    const MoscedValues<T> own{T(v_cm3_mol), p[0], p[1], T(q), p[2], p[3]};
    const MoscedParameters& known = *point.partner.mosced;
    const MoscedValues<T> other{T(known.v_cm3_mol), T(known.lambda), T(known.tau),
                                T(known.q),         T(known.alpha),  T(known.beta)};
    const T ln_gamma =
        point.as_solute ? mosced_ln_gamma(own, other, point.T_K) : mosced_ln_gamma(other, own, point.T_K);
    residual[0] = (ln_gamma - std::log(point.gamma)) * (point.gamma / point.u_gamma);
    return true;
  }
};

}  // namespace

MoscedFit fit_mosced(const std::vector<MoscedPoint>& points, double v_cm3_mol, double q) {
  if (points.size() <= unknowns) {
    throw CalculationError(
        fmt::format("{} infinite-dilution activity coefficients cannot determine lambda, tau, alpha and "
                    "beta; at least five "
                    "are needed, in solvents of different kinds",
                    points.size()));
  }
  std::vector<std::unique_ptr<ceres::CostFunction>> residuals;
  for (const MoscedPoint& point : points) {
    if (!point.partner.mosced)
      throw CalculationError(fmt::format("{} has no MOSCED parameters", point.partner.name));
    residuals.push_back(std::make_unique<ceres::AutoDiffCostFunction<Residual, 1, unknowns>>(
        new Residual{point, v_cm3_mol, q}));
  }
  const std::array<double, unknowns> low{10, 0, 0, 0}, high{22, 15, 20, 20};
  SobolSequence sequence(unknowns);
  std::array<double, unknowns> best{};
  double least = HUGE_VAL;
  for (int start = 0; start < 24; ++start) {
    std::array<double, unknowns> p{};
    for (std::size_t k = 0; k < unknowns; ++k) p[k] = low[k] + sequence.next() * (high[k] - low[k]);
    ceres::Problem problem = borrowing_problem();
    for (auto& residual : residuals) problem.AddResidualBlock(residual.get(), nullptr, p.data());
    for (std::size_t k = 0; k < unknowns; ++k) {
      problem.SetParameterLowerBound(p.data(), static_cast<int>(k), k == 0 ? 5.0 : 1e-6);
      problem.SetParameterUpperBound(p.data(), static_cast<int>(k), 60);
    }
    ceres::Solver::Summary summary;
    if (!solve_quietly(quiet_options(300, 1e-14), problem, summary) || !(summary.final_cost < least))
      continue;
    least = summary.final_cost;
    best = p;
  }
  if (!std::isfinite(least))
    throw CalculationError("no MOSCED parameters could be fitted to these infinite-dilution values");

  MoscedFit result;
  result.parameters = {
      v_cm3_mol, best[0],
      best[1],   q,
      best[2],   best[3],
      '-',       fmt::format("fitted to {} infinite-dilution activity coefficients", points.size())};
  Eigen::MatrixXd J(static_cast<Eigen::Index>(points.size()), unknowns);
  double square = 0;
  for (std::size_t k = 0; k < points.size(); ++k) {
    double value = 0;
    Eigen::Matrix<double, 1, unknowns, Eigen::RowMajor> row;
    const double* blocks[] = {best.data()};
    double* jacobians[] = {row.data()};
    residuals[k]->Evaluate(blocks, &value, jacobians);
    J.row(static_cast<Eigen::Index>(k)) = row;
    const double off = value * points[k].u_gamma / points[k].gamma;
    square += off * off;
    result.model.push_back(points[k].gamma * std::exp(off));
  }
  const double n = static_cast<double>(points.size());
  result.rms_ln_gamma = std::sqrt(square / n);
  const Eigen::MatrixXd information = product(J.transpose(), J);
  const Eigen::VectorXd strength = symmetric_eigen(information).values;
  const bool determined = strength[0] > 1e-10 * strength[unknowns - 1];
  if (determined) {
    const Eigen::MatrixXd covariance = inverse_of(information) * (2 * least / std::max(1.0, n - unknowns));
    for (Eigen::Index k = 0; k < unknowns; ++k)
      result.std_error[static_cast<std::size_t>(k)] = std::sqrt(covariance(k, k));
  } else {
    result.notices.add("undetermined",
                       "these solvents do not tell lambda, tau, alpha and beta apart; others, of different "
                       "polarity, acidity "
                       "and basicity, are needed");
  }
  const char* const names[] = {"lambda", "tau", "alpha", "beta"};
  for (std::size_t k = 1; k < unknowns; ++k) {
    if (best[k] < 1e-3)
      result.notices.add("parameter-at-bound", fmt::format("{} is at zero, the end of its range", names[k]));
  }
  return result;
}

}  // namespace jampot
