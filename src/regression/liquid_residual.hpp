#pragma once
// Residuals of what is measured in liquids alone, with exact derivatives: limiting activity coefficients,
// excess enthalpies, and two liquids in equilibrium.
#include <Eigen/Dense>

#include "vle_residual.hpp"

namespace jampot {

/// (ln gamma - ln measured) over its relative uncertainty.
class LimitingGammaResidual final : public ceres::CostFunction {
 public:
  LimitingGammaResidual(FitContext& context, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  FitContext& context_;
  const DataPoint& point_;
  mutable std::vector<double> ln_gamma_, slopes_;
};

/// (hE - measured) over its uncertainty, hE = -R T^2 sum_t slope_t dterm_t/dT.
class ExcessEnthalpyResidual final : public ceres::CostFunction {
 public:
  ExcessEnthalpyResidual(FitContext& context, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  FitContext& context_;
  const DataPoint& point_;
  mutable std::vector<double> slope_, slope_dT_;
};

/// Two liquids: the differences F_i = ln(x_i gamma_i) between them, weighted so that the sum of squares is
/// the squared distance, in units of the uncertainties, from the measured compositions and temperature to the
/// nearest pair of liquids in equilibrium: F' (J U J')^-1 F, to first order. The weights belong to the
/// parameters at the last `refresh`.
class TwoLiquidsResidual final : public ceres::CostFunction {
 public:
  TwoLiquidsResidual(FitContext& context, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;
  /// New weights from the parameters the model stands at.
  void refresh();

 private:
  struct Side {
    std::vector<double> ln_gamma, dT, dn, slopes;
  };
  void evaluate(const std::vector<double>& x, Side& side, bool with_slopes) const;

  FitContext& context_;
  const DataPoint& point_;
  std::vector<std::size_t> present_;
  Eigen::MatrixXd weight_;  ///< L^-1 of the variance L L' of F
  mutable Side alpha_, beta_;
};

/// Excess enthalpy of the model at a composition, J/mol.
double model_excess_enthalpy(ActivityModel& model, double T_K, const std::vector<double>& x);

}  // namespace jampot
