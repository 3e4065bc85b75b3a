#include "vle_residual.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/eigen.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {

FitContext::FitContext(Mixture mixture, std::vector<FreeParameter> free)
    : mixture_(std::move(mixture)),
      free_(std::move(free)),
      offsets_(free_.size()),
      solver_(mixture_.liquid(), mixture_.vapour()) {}

FitContext::Offsets FitContext::offsets_of(const DataPoint& point) const {
  Offsets found;
  for (std::size_t p = 0; p < free_.size(); ++p) {
    const auto& set = free_[p].offset_of;
    if (set.empty() || &point < &set.front() || &point > &set.back()) continue;
    (free_[p].of_pressure ? found.P : found.T) = p;
  }
  return found;
}

DataPoint FitContext::without_offsets(const DataPoint& point) const {
  const Offsets offsets = offsets_of(point);
  DataPoint result = point;
  if (offsets.T) result.T_K -= offset(*offsets.T);
  if (offsets.P) result.P_Pa *= 1 - offset(*offsets.P);
  return result;
}

ActivityModel& FitContext::liquid_alone() {
  ActivityModel& model = mixture_.activity();
  auto* scaled = dynamic_cast<ScaledPureModel*>(&model);
  return scaled != nullptr ? scaled->base() : model;
}

void FitContext::set(const double* scaled) {
  for (std::size_t p = 0; p < free_.size(); ++p) {
    const FreeParameter& free = free_[p];
    const double value = free.scale * scaled[p];
    if (free.is_offset()) {
      offsets_[p] = value;
      continue;
    }
    mixture_.activity().set_coefficient(free.term, free.coefficient, value);
    for (const std::size_t other : free.tied)
      mixture_.activity().set_coefficient(other, free.coefficient, value);
  }
}

namespace {

bool solve_bubble(FitContext& context, const std::vector<double>& x, IncipientState& state) {
  state.w = x;
  return context.solver().solve(Sought::pressure, x, state);
}

// At a bubble point that is solved, at the parameters set last.
void differentiate_bubble(FitContext& context, const std::vector<double>& x, const IncipientState& state,
                          BubbleDerivatives& out) {
  const std::size_t n = x.size(), parameters = context.free().size();
  const double T_K = state.T_K;
  const auto s = to_eigen(context.solver().sensitivity(Sought::pressure, x, state));
  const auto N = static_cast<Eigen::Index>(n);
  const auto with_parameter = [&](Eigen::Index row, std::size_t p) {
    return context.derivative(
        p, T_K, [&](std::size_t term) { return s(row, N + 1 + static_cast<Eigen::Index>(term)); });
  };
  out.dln_P_dT = s(N, N);
  out.dln_P_dz.resize(n);
  out.dln_P_dp.resize(parameters);
  out.dy_dT.resize(n);
  out.dy_dz.resize(n * n);
  out.dy_dp.resize(n * parameters);
  for (std::size_t k = 0; k < n; ++k) out.dln_P_dz[k] = s(N, static_cast<Eigen::Index>(k));
  for (std::size_t p = 0; p < parameters; ++p) out.dln_P_dp[p] = with_parameter(N, p);
  for (std::size_t i = 0; i < n; ++i) {  // y_i = x_i K_i
    const auto row = static_cast<Eigen::Index>(i);
    out.dy_dT[i] = state.w[i] * s(row, N);
    for (std::size_t k = 0; k < n; ++k) {
      out.dy_dz[i * n + k] =
          state.w[i] * s(row, static_cast<Eigen::Index>(k)) + (i == k ? std::exp(state.ln_K[i]) : 0);
    }
    for (std::size_t p = 0; p < parameters; ++p) {
      out.dy_dp[i * parameters + p] = state.w[i] * with_parameter(row, p);
    }
  }
}

}  // namespace

bool bubble_with_derivatives(FitContext& context, double T_K, const std::vector<double>& x,
                             bool with_derivatives, BubbleDerivatives& out) {
  IncipientState state(x.size());
  state.T_K = T_K;
  state.P_Pa = out.P_Pa > 0 ? out.P_Pa : 1e5;
  if (!solve_bubble(context, x, state)) return false;
  out.P_Pa = state.P_Pa;
  out.y = state.w;
  if (with_derivatives) differentiate_bubble(context, x, state, out);
  return true;
}

AdjustedPointResidual::AdjustedPointResidual(FitContext& context, const DataPoint& point)
    : context_(context),
      point_(point),
      present_(point.present()),
      offsets_(context.offsets_of(point)),
      state_(point.x.size()),
      x_(point.x.size()) {
  const int m = static_cast<int>(present_.size());
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  mutable_parameter_block_sizes()->push_back(m);
  set_num_residuals(m + 1 + (point.y.empty() ? 0 : m - 1));
}

bool AdjustedPointResidual::Evaluate(double const* const* blocks, double* residuals,
                                     double** jacobians) const {
  const std::size_t parameters = context_.free().size(), latent = present_.size();
  std::copy_n(blocks[1], latent, residuals);
  if (jacobians == nullptr) return equilibrium(blocks, residuals + latent, nullptr);
  double* below[2] = {nullptr, nullptr};
  if (double* J = jacobians[0]) {
    std::fill_n(J, latent * parameters, 0.0);
    below[0] = J + latent * parameters;
  }
  if (double* J = jacobians[1]) {
    std::fill_n(J, latent * latent, 0.0);
    for (std::size_t j = 0; j < latent; ++j) J[j * latent + j] = 1;
    below[1] = J + latent * latent;
  }
  return equilibrium(blocks, residuals + latent, below);
}

// Ceres asks for the same point up to three times: for the length of a step, for its worth, and for the
// derivatives where it is taken.
bool AdjustedPointResidual::solve(double const* const* blocks) const {
  const std::size_t parameters = context_.free().size(), latent = present_.size();
  const double* adjustment = blocks[1];
  if (std::equal(solved_at_.begin(), solved_at_.end(), blocks[0], blocks[0] + parameters) &&
      std::equal(solved_for_.begin(), solved_for_.end(), adjustment, adjustment + latent))
    return true;
  solved_at_.clear();
  solved_for_.clear();
  context_.set(blocks[0]);
  const std::size_t last = present_.back();
  double rest = 1;
  for (std::size_t j = 0; j + 1 < latent; ++j) {
    const std::size_t k = present_[j];
    x_[k] = point_.x[k] + point_.u_x * adjustment[j];
    rest -= x_[k];
    if (!(x_[k] > 0)) return false;
  }
  if (!(rest > 0)) return false;
  x_[last] = rest;
  state_.T_K = point_.T_K + point_.u_T_K * adjustment[latent - 1];
  P_Pa_ = point_.P_Pa;
  if (offsets_.T) state_.T_K -= context_.offset(*offsets_.T);
  if (offsets_.P) P_Pa_ *= 1 - context_.offset(*offsets_.P);
  state_.P_Pa = point_.P_Pa;
  if (!solve_bubble(context_, x_, state_)) return false;
  solved_at_.assign(blocks[0], blocks[0] + parameters);
  solved_for_.assign(adjustment, adjustment + latent);
  return true;
}

bool AdjustedPointResidual::equilibrium(double const* const* blocks, double* residuals,
                                        double** jacobians) const {
  if (!solve(blocks)) return false;
  const std::size_t n = point_.x.size(), parameters = context_.free().size(), latent = present_.size();
  const std::size_t last = present_.back(), rows = static_cast<std::size_t>(num_residuals()) - latent;
  residuals[0] = (state_.P_Pa - P_Pa_) / point_.u_P_Pa;
  for (std::size_t r = 1; r < rows; ++r) {
    const std::size_t i = present_[r - 1];
    residuals[r] = (state_.w[i] - point_.y[i]) / point_.u_y;
  }
  if (jacobians == nullptr) return true;

  context_.set(blocks[0]);
  differentiate_bubble(context_, x_, state_, bubble_);
  const double P_weight = state_.P_Pa / point_.u_P_Pa;
  if (double* J = jacobians[0]) {
    std::fill_n(J, rows * parameters, 0.0);
    for (std::size_t p = 0; p < parameters; ++p) {
      J[p] = P_weight * bubble_.dln_P_dp[p];
      for (std::size_t r = 1; r < rows; ++r)
        J[r * parameters + p] = bubble_.dy_dp[present_[r - 1] * parameters + p] / point_.u_y;
    }
    if (offsets_.T) {
      const double scale = context_.free()[*offsets_.T].scale;
      J[*offsets_.T] = -scale * P_weight * bubble_.dln_P_dT;
      for (std::size_t r = 1; r < rows; ++r)
        J[r * parameters + *offsets_.T] = -scale * bubble_.dy_dT[present_[r - 1]] / point_.u_y;
    }
    if (offsets_.P) J[*offsets_.P] = context_.free()[*offsets_.P].scale * point_.P_Pa / point_.u_P_Pa;
  }
  if (double* J = jacobians[1]) {
    for (std::size_t j = 0; j < latent; ++j) {
      const bool is_T = j == latent - 1;
      const std::size_t k = present_[j];
      const double unit = is_T ? point_.u_T_K : point_.u_x;
      J[j] = P_weight * unit * (is_T ? bubble_.dln_P_dT : bubble_.dln_P_dz[k] - bubble_.dln_P_dz[last]);
      for (std::size_t r = 1; r < rows; ++r) {
        const std::size_t i = present_[r - 1];
        J[r * latent + j] =
            unit / point_.u_y *
            (is_T ? bubble_.dy_dT[i] : bubble_.dy_dz[i * n + k] - bubble_.dy_dz[i * n + last]);
      }
    }
  }
  return true;
}

AdjustmentRows::AdjustmentRows(int count) {
  mutable_parameter_block_sizes()->push_back(count);
  set_num_residuals(count);
}

bool AdjustmentRows::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  const auto count = static_cast<std::size_t>(num_residuals());
  std::copy_n(blocks[0], count, residuals);
  if (jacobians == nullptr || jacobians[0] == nullptr) return true;
  std::fill_n(jacobians[0], count * count, 0.0);
  for (std::size_t j = 0; j < count; ++j) jacobians[0][j * count + j] = 1;
  return true;
}

EquilibriumRows::EquilibriumRows(const AdjustedPointResidual& point) : point_(point) {
  *mutable_parameter_block_sizes() = point.parameter_block_sizes();
  set_num_residuals(point.parameter_block_sizes()[1]);
}

bool EquilibriumRows::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  const int count = num_residuals();
  std::fill_n(residuals, count, 0.0);
  for (std::size_t block = 0; jacobians != nullptr && block < 2; ++block) {
    if (jacobians[block] != nullptr)
      std::fill_n(jacobians[block], count * parameter_block_sizes()[block], 0.0);
  }
  return point_.equilibrium(blocks, residuals, jacobians);
}

BubblePointResidual::BubblePointResidual(FitContext& context, const DataPoint& point, Sought sought)
    : context_(context), point_(point), sought_(sought) {
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(1);
}

bool BubblePointResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  context_.set(blocks[0]);
  const bool T_sought = sought_ == Sought::temperature;
  double T_K = point_.T_K;
  if (T_sought) {
    IncipientState state(point_.x.size());
    state.T_K = T_K;
    state.P_Pa = point_.P_Pa;
    state.w = point_.x;
    if (!context_.solver().solve(Sought::temperature, point_.x, state)) return false;
    T_K = state.T_K;
  }
  bubble_.P_Pa = point_.P_Pa;
  if (!bubble_with_derivatives(context_, T_K, point_.x, jacobians != nullptr, bubble_)) return false;
  residuals[0] = T_sought ? T_K - point_.T_K : bubble_.P_Pa / point_.P_Pa - 1;
  if (jacobians != nullptr && jacobians[0] != nullptr) {
    for (std::size_t p = 0; p < context_.free().size(); ++p) {
      // At constant P: dT/dp = -(d ln P/dp) / (d ln P/dT)
      jacobians[0][p] = T_sought ? -bubble_.dln_P_dp[p] / bubble_.dln_P_dT
                                 : bubble_.P_Pa / point_.P_Pa * bubble_.dln_P_dp[p];
    }
  }
  return true;
}

}  // namespace jampot
