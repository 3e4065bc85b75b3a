#pragma once
// Residuals of what is known in addition to the data: priors, and that there is one liquid.
#include <ceres/cost_function.h>

#include "jampot/regression/fit.hpp"
#include "vle_residual.hpp"

namespace jampot {

/// Whether a prior speaks of a parameter: of its term, of its term and coefficient, or of it alone.
bool is_about(const Prior& prior, const FittedParameter& parameter);

/// (value - prior) over its uncertainty.
class PriorResidual final : public ceres::CostFunction {
 public:
  PriorResidual(std::size_t parameters, std::size_t number, double scale, const Prior& prior);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  std::size_t number_;
  double scale_, value_, u_;
};

/// Stiff springs against every composition at which a liquid of two components is not stable:
/// 1 + x1 d ln gamma_1/dx1 falls below a small margin.
class OneLiquidResidual final : public ceres::CostFunction {
 public:
  OneLiquidResidual(FitContext& context, std::vector<double> T_K);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  void springs(const double* scaled, double* residuals) const;
  FitContext& context_;
  std::vector<double> T_K_, x1_;
};

}  // namespace jampot
