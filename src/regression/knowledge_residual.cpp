#include "knowledge_residual.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace jampot {

bool is_about(const Prior& prior, const FittedParameter& parameter) {
  if (prior.name == parameter.name) return true;
  return prior.name == parameter.term ||
         prior.name == fmt::format("{}.{}", parameter.term, name_of(parameter.coefficient));
}

PriorResidual::PriorResidual(std::size_t parameters, std::size_t number, double scale, const Prior& prior)
    : number_(number), scale_(scale), value_(prior.value), u_(prior.u) {
  mutable_parameter_block_sizes()->push_back(static_cast<int>(parameters));
  set_num_residuals(1);
}

bool PriorResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  residuals[0] = (scale_ * blocks[0][number_] - value_) / u_;
  if (jacobians == nullptr || jacobians[0] == nullptr) return true;
  std::fill_n(jacobians[0], parameter_block_sizes()[0], 0.0);
  jacobians[0][number_] = scale_ / u_;
  return true;
}

OneLiquidResidual::OneLiquidResidual(FitContext& context, std::vector<double> T_K)
    : context_(context), T_K_(std::move(T_K)) {
  constexpr int steps = 40;  // closer at the ends, where a dilute liquid parts
  for (int k = 1; k < steps; ++k) x1_.push_back(0.5 - 0.5 * std::cos(std::numbers::pi * k / steps));
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(static_cast<int>(T_K_.size() * x1_.size()));
}

void OneLiquidResidual::springs(const double* scaled, double* residuals) const {
  context_.set(scaled);
  ActivityModel& model = context_.mixture().activity();
  std::array<double, 2> ln_gamma{};
  std::array<double, 4> dn{};
  for (const double T_K : T_K_) {
    model.set_temperature(T_K);
    for (const double x1 : x1_) {
      model.evaluate(std::array{x1, 1 - x1}, ln_gamma, {}, dn);
      constexpr double margin = 0.01, stiffness = 1e3;
      const double stability = 1 + x1 * (dn[0] - dn[1]);
      *residuals++ = stiffness * std::max(0.0, margin - stability);
    }
  }
}

bool OneLiquidResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  springs(blocks[0], residuals);
  const auto rows = static_cast<std::size_t>(num_residuals());
  if (!std::all_of(residuals, residuals + rows, [](double value) { return std::isfinite(value); }))
    return false;
  if (jacobians == nullptr || jacobians[0] == nullptr) return true;
  // By differences: the springs only keep the search on one side and enter no standard error.
  const std::size_t parameters = context_.free().size();
  std::vector<double> scaled(blocks[0], blocks[0] + parameters), above(rows), below(rows);
  for (std::size_t p = 0; p < parameters; ++p) {
    const double here = scaled[p], step = 1e-6 * (1 + std::abs(here));
    scaled[p] = here + step;
    springs(scaled.data(), above.data());
    scaled[p] = here - step;
    springs(scaled.data(), below.data());
    scaled[p] = here;
    for (std::size_t r = 0; r < rows; ++r)
      jacobians[0][r * parameters + p] = (above[r] - below[r]) / (2 * step);
  }
  context_.set(blocks[0]);
  return true;
}

}  // namespace jampot
