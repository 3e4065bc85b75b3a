#pragma once
// Residuals of special points that are known in addition to the data: errors in variables, like a measured
// point.
#include <memory>

#include "jampot/regression/known_point.hpp"
#include "vle_residual.hpp"

namespace jampot {

/// Blocks: the free parameters; the adjustments of the fractions of all present components but the last, and
/// of T, in units of their uncertainty. Residuals: those adjustments, what else was measured, and the
/// conditions of the special point under a stiff spring, so that they hold at the adjusted point.
class KnownPointResidual : public ceres::CostFunction {
 public:
  KnownPointResidual(FitContext& context, KnownPoint point, int measured, int conditions);

  /// How much stiffer the springs are than the uncertainties: soft for a search, hard for the last digits.
  void set_stiffness(double stiffness) { stiffness_ = stiffness; }
  const KnownPoint& point() const { return point_; }
  std::size_t adjustments() const { return present_.size(); }
  /// Numbers that it adds to what is compared.
  int comparisons() const { return comparisons_; }
  /// Bounds of adjustment `number`, which keep a fraction inside 0..1.
  double lowest(std::size_t number) const;
  double highest(std::size_t number) const;
  /// The point after adjustment and how well it is met.
  KnownRow row(const double* parameters, const double* adjustments) const;

 protected:
  bool place(const double* adjustments, std::vector<double>& x, double& T_K) const;
  double u_x() const { return point_.u_x; }

  FitContext& context_;
  KnownPoint point_;
  std::vector<std::size_t> present_;
  double stiffness_ = 10;
  int comparisons_;
};

/// @pre demand_known_point
std::unique_ptr<KnownPointResidual> known_point_residual(FitContext& context, const KnownPoint& point);

}  // namespace jampot
