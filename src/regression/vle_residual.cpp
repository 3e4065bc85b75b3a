#include "vle_residual.hpp"

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

bool bubble_with_derivatives(FitContext& context, double T_K, const std::vector<double>& x,
                             bool with_derivatives, BubbleDerivatives& out) {
  const std::size_t n = x.size(), parameters = context.free().size();
  IncipientState state(n);
  state.T_K = T_K;
  state.P_Pa = out.P_Pa > 0 ? out.P_Pa : 1e5;
  state.w = x;
  if (!context.solver().solve(Sought::pressure, x, state)) return false;
  out.P_Pa = state.P_Pa;
  out.y = state.w;
  if (!with_derivatives) return true;

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
  return true;
}

AdjustedPointResidual::AdjustedPointResidual(FitContext& context, const DataPoint& point)
    : context_(context),
      point_(point),
      present_(point.present()),
      offsets_(context.offsets_of(point)),
      x_(point.x.size()) {
  const int m = static_cast<int>(present_.size());
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  mutable_parameter_block_sizes()->push_back(m);
  set_num_residuals(m + 1 + (point.y.empty() ? 0 : m - 1));
}

bool AdjustedPointResidual::Evaluate(double const* const* blocks, double* residuals,
                                     double** jacobians) const {
  const std::size_t n = point_.x.size(), parameters = context_.free().size(), latent = present_.size();
  const std::size_t last = present_.back();
  const double* adjustment = blocks[1];
  context_.set(blocks[0]);
  double rest = 1;
  for (std::size_t j = 0; j + 1 < latent; ++j) {
    const std::size_t k = present_[j];
    x_[k] = point_.x[k] + point_.u_x * adjustment[j];
    rest -= x_[k];
    if (!(x_[k] > 0)) return false;
  }
  if (!(rest > 0)) return false;
  x_[last] = rest;
  double T_K = point_.T_K + point_.u_T_K * adjustment[latent - 1], P_Pa = point_.P_Pa;
  if (offsets_.T) T_K -= context_.offset(*offsets_.T);
  if (offsets_.P) P_Pa *= 1 - context_.offset(*offsets_.P);
  bubble_.P_Pa = point_.P_Pa;
  if (!bubble_with_derivatives(context_, T_K, x_, jacobians != nullptr, bubble_)) return false;

  for (std::size_t j = 0; j < latent; ++j) residuals[j] = adjustment[j];
  residuals[latent] = (bubble_.P_Pa - P_Pa) / point_.u_P_Pa;
  const std::size_t first_y = latent + 1, rows = static_cast<std::size_t>(num_residuals());
  for (std::size_t r = first_y; r < rows; ++r) {
    const std::size_t i = present_[r - first_y];
    residuals[r] = (bubble_.y[i] - point_.y[i]) / point_.u_y;
  }
  if (jacobians == nullptr) return true;

  const double P_weight = bubble_.P_Pa / point_.u_P_Pa;
  if (double* J = jacobians[0]) {
    std::fill(J, J + rows * parameters, 0.0);
    for (std::size_t p = 0; p < parameters; ++p) {
      J[latent * parameters + p] = P_weight * bubble_.dln_P_dp[p];
      for (std::size_t r = first_y; r < rows; ++r) {
        J[r * parameters + p] = bubble_.dy_dp[present_[r - first_y] * parameters + p] / point_.u_y;
      }
    }
    if (offsets_.T) {
      const double scale = context_.free()[*offsets_.T].scale;
      J[latent * parameters + *offsets_.T] = -scale * P_weight * bubble_.dln_P_dT;
      for (std::size_t r = first_y; r < rows; ++r)
        J[r * parameters + *offsets_.T] = -scale * bubble_.dy_dT[present_[r - first_y]] / point_.u_y;
    }
    if (offsets_.P)
      J[latent * parameters + *offsets_.P] = context_.free()[*offsets_.P].scale * point_.P_Pa / point_.u_P_Pa;
  }
  if (double* J = jacobians[1]) {
    std::fill(J, J + rows * latent, 0.0);
    for (std::size_t j = 0; j < latent; ++j) {
      J[j * latent + j] = 1;
      const bool is_T = j == latent - 1;
      const std::size_t k = present_[j];
      const double unit = is_T ? point_.u_T_K : point_.u_x;
      J[latent * latent + j] =
          P_weight * unit * (is_T ? bubble_.dln_P_dT : bubble_.dln_P_dz[k] - bubble_.dln_P_dz[last]);
      for (std::size_t r = first_y; r < rows; ++r) {
        const std::size_t i = present_[r - first_y];
        J[r * latent + j] =
            unit / point_.u_y *
            (is_T ? bubble_.dy_dT[i] : bubble_.dy_dz[i * n + k] - bubble_.dy_dz[i * n + last]);
      }
    }
  }
  return true;
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
