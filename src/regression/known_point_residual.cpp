#include "known_point_residual.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/equilibrium/critical_solution.hpp"
#include "jampot/equilibrium/liquid_surface.hpp"
#include "jampot/equilibrium/plait_point.hpp"

namespace jampot {
namespace {

constexpr double unknown_u = 5;  // of a composition that is not known

KnownPoint completed(KnownPoint point, std::size_t n) {
  if (point.x.empty()) {
    point.x.assign(n, 1.0 / static_cast<double>(n));
    point.u_x = unknown_u;
  }
  return point;
}

// y = x at the adjusted x and T, and P.
class KnownAzeotrope final : public KnownPointResidual {
 public:
  KnownAzeotrope(FitContext& context, const KnownPoint& point)
      : KnownPointResidual(context, point, 1, present_of(point) - 1) {}

  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override {
    const std::size_t n = point_.x.size(), parameters = context_.free().size(), latent = present_.size();
    const std::size_t last = present_.back(), rows = static_cast<std::size_t>(num_residuals());
    context_.set(blocks[0]);
    double T_K = 0;
    if (!place(blocks[1], x_, T_K)) return false;
    bubble_.P_Pa = point_.P_Pa;
    if (!bubble_with_derivatives(context_, T_K, x_, jacobians != nullptr, bubble_)) return false;
    const double spring = stiffness_ / point_.u_x;
    std::copy_n(blocks[1], latent, residuals);
    residuals[latent] = (bubble_.P_Pa - point_.P_Pa) / point_.u_P_Pa;
    for (std::size_t r = latent + 1; r < rows; ++r) {
      const std::size_t i = present_[r - latent - 1];
      residuals[r] = spring * (bubble_.y[i] - x_[i]);
    }
    if (jacobians == nullptr) return true;
    const double P_weight = bubble_.P_Pa / point_.u_P_Pa;
    if (double* J = jacobians[0]) {
      std::fill_n(J, rows * parameters, 0.0);
      for (std::size_t p = 0; p < parameters; ++p) {
        J[latent * parameters + p] = P_weight * bubble_.dln_P_dp[p];
        for (std::size_t r = latent + 1; r < rows; ++r)
          J[r * parameters + p] = spring * bubble_.dy_dp[present_[r - latent - 1] * parameters + p];
      }
    }
    if (double* J = jacobians[1]) {
      std::fill_n(J, rows * latent, 0.0);
      for (std::size_t j = 0; j < latent; ++j) {
        J[j * latent + j] = 1;
        const bool is_T = j == latent - 1;
        const std::size_t k = present_[j];
        const double unit = is_T ? point_.u_T_K : point_.u_x;
        J[latent * latent + j] =
            P_weight * unit * (is_T ? bubble_.dln_P_dT : bubble_.dln_P_dz[k] - bubble_.dln_P_dz[last]);
        for (std::size_t r = latent + 1; r < rows; ++r) {
          const std::size_t i = present_[r - latent - 1];
          const double dx = !is_T && i == k ? 1 : 0;
          const double dy = is_T ? bubble_.dy_dT[i] : bubble_.dy_dz[i * n + k] - bubble_.dy_dz[i * n + last];
          J[r * latent + j] = spring * unit * (dy - dx);
        }
      }
    }
    return true;
  }

 private:
  static int present_of(const KnownPoint& point) {
    return static_cast<int>(
        std::count_if(point.x.begin(), point.x.end(), [](double fraction) { return fraction > 0; }));
  }
  mutable BubbleDerivatives bubble_;
  mutable std::vector<double> x_;
};

// Of two substances: the smallest value of the stability function over all compositions is zero, and the
// composition is where. Of more: the smallest curvature of the Gibbs energy is zero, and so is its third
// derivative along that direction (source: see mixing_third_derivative).
class KnownCriticalPoint final : public KnownPointResidual {
 public:
  KnownCriticalPoint(FitContext& context, const KnownPoint& point)
      : KnownPointResidual(context, completed(point, context.mixture().size()), 0, 2) {
    if (point.x.empty()) comparisons_ = 1;
  }

  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override {
    const std::size_t parameters = context_.free().size(), latent = present_.size();
    const auto rows = static_cast<std::size_t>(num_residuals());
    std::vector<double> scaled(blocks[0], blocks[0] + parameters), moved(blocks[1], blocks[1] + latent);
    if (!values(scaled.data(), moved.data(), residuals, false)) return false;
    if (jacobians == nullptr) return true;
    // By differences: the third derivative of gE with composition has no derivative with parameters.
    std::vector<double> above(rows), below(rows);
    for (std::size_t block = 0; block < 2; ++block) {
      if (jacobians[block] == nullptr) continue;
      std::vector<double>& numbers = block == 0 ? scaled : moved;
      for (std::size_t p = 0; p < numbers.size(); ++p) {
        const double here = numbers[p];
        // Of a composition a part of its uncertainty, which may be as wide as the whole range.
        const double step =
            block == 0 ? 1e-5 * (1 + std::abs(here)) : 1e-5 / std::max(1.0, p + 1 < latent ? u_x() / 0.1 : 1);
        numbers[p] = here + step;
        if (!values(scaled.data(), moved.data(), above.data(), true)) return false;
        numbers[p] = here - step;
        if (!values(scaled.data(), moved.data(), below.data(), true)) return false;
        numbers[p] = here;
        for (std::size_t r = 0; r < rows; ++r)
          jacobians[block][r * numbers.size() + p] = (above[r] - below[r]) / (2 * step);
      }
    }
    context_.set(blocks[0]);
    return true;
  }

 private:
  // @param nearby  after a step that is too small to move it far
  bool values(const double* scaled, const double* adjustments, double* residuals, bool nearby) const {
    context_.set(scaled);
    double T_K = 0;
    if (!place(adjustments, x_, T_K)) return false;
    ActivityModel& model = context_.liquid_alone();
    std::copy_n(adjustments, present_.size(), residuals);
    // How much each condition changes across the uncertainty of T and of a composition, in order of size.
    constexpr double widest = 0.02;
    const double by_T = stiffness_ * T_K / point_.u_T_K, by_x = stiffness_ / std::min(point_.u_x, widest);
    double* conditions = residuals + present_.size();
    if (x_.size() == 2) {
      const LeastStable least = nearby ? least_stable_near(model, T_K, least_x1_) : least_stable(model, T_K);
      if (!nearby) least_x1_ = least.x1;
      conditions[0] = by_T * least.value;
      conditions[1] = by_x * (least.x1 - x_[0]);
      return std::isfinite(conditions[0]);
    }
    model.set_temperature(T_K);
    Curvature curvature = smallest_curvature(model, x_, true);
    if (!std::isfinite(curvature.value)) return false;
    // The direction has no sign of its own: it keeps the one it had.
    if (direction_.empty()) direction_ = curvature.direction;
    double inner = 0;
    for (std::size_t i = 0; i < x_.size(); ++i) inner += curvature.direction[i] * direction_[i];
    if (inner < 0) {
      for (double& value : curvature.direction) value = -value;
    }
    direction_ = curvature.direction;
    const double third = mixing_third_derivative(model, x_, curvature.direction);
    conditions[0] = by_T * curvature.value;
    conditions[1] = by_x * third;
    return std::isfinite(third);
  }

  mutable std::vector<double> x_, direction_;
  mutable double least_x1_ = 0.5;
};

}  // namespace

KnownPointResidual::KnownPointResidual(FitContext& context, KnownPoint point, int measured, int conditions)
    : context_(context), point_(std::move(point)), comparisons_(measured + conditions) {
  for (std::size_t i = 0; i < point_.x.size(); ++i)
    if (point_.x[i] > 0) present_.push_back(i);
  const int m = static_cast<int>(present_.size());
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  mutable_parameter_block_sizes()->push_back(m);
  set_num_residuals(m + measured + conditions);
}

namespace {

constexpr double least_fraction = 1e-6;

}  // namespace

double KnownPointResidual::lowest(std::size_t number) const {
  return number + 1 < present_.size() ? (least_fraction - point_.x[present_[number]]) / point_.u_x
                                      : -HUGE_VAL;
}

double KnownPointResidual::highest(std::size_t number) const {
  return number + 1 < present_.size() ? (1 - least_fraction - point_.x[present_[number]]) / point_.u_x
                                      : HUGE_VAL;
}

bool KnownPointResidual::place(const double* adjustments, std::vector<double>& x, double& T_K) const {
  x.assign(point_.x.size(), 0.0);
  double rest = 1;
  for (std::size_t j = 0; j + 1 < present_.size(); ++j) {
    const std::size_t k = present_[j];
    x[k] = point_.x[k] + point_.u_x * adjustments[j];
    rest -= x[k];
    if (!(x[k] > 0)) return false;
  }
  x[present_.back()] = rest;
  T_K = point_.T_K + point_.u_T_K * adjustments[present_.size() - 1];
  return rest > 0 && T_K > 0.5 * point_.T_K && T_K < 2 * point_.T_K;
}

KnownRow KnownPointResidual::row(const double* parameters, const double* adjustments) const {
  KnownRow row{.known = point_};
  std::vector<double> values(static_cast<std::size_t>(num_residuals()));
  const double* blocks[] = {parameters, adjustments};
  if (!place(adjustments, row.x, row.T_K) || !Evaluate(blocks, values.data(), nullptr)) return row;
  const std::size_t latent = present_.size();
  const bool azeotrope = point_.what == SpecialPoint::azeotrope;
  const std::size_t conditions = latent + (azeotrope ? 1 : 0);
  double square = 0, broken = 0;
  for (std::size_t r = 0; r < values.size(); ++r) (r < conditions ? square : broken) += values[r] * values[r];
  if (azeotrope) row.P_Pa = point_.P_Pa + values[latent] * point_.u_P_Pa;
  row.distance = std::sqrt(square);
  constexpr double held = 0.5;  // of one standard uncertainty's worth of spring
  row.there = std::sqrt(broken) < held;
  if (point_.u_x == unknown_u) row.known.x.clear();
  return row;
}

std::unique_ptr<KnownPointResidual> known_point_residual(FitContext& context, const KnownPoint& point) {
  if (point.what == SpecialPoint::azeotrope) return std::make_unique<KnownAzeotrope>(context, point);
  return std::make_unique<KnownCriticalPoint>(context, point);
}

}  // namespace jampot
