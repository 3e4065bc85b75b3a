#pragma once
// Residuals of what is measured in liquids alone, with exact derivatives: a value of a liquid, and two
// liquids in equilibrium.
#include <Eigen/Core>
#include <optional>

#include "vle_residual.hpp"

namespace jampot {

/// (model - measured) over its uncertainty, of a value of a liquid; of a logarithmic kind both logarithms
/// over the relative uncertainty.
class LiquidValueResidual final : public ceres::CostFunction {
 public:
  LiquidValueResidual(FitContext& context, const LiquidValue& kind, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  FitContext& context_;
  const LiquidValue& kind_;
  const DataPoint& point_;
  double measured_, weight_;  ///< as they are compared
  mutable ModelValue model_;
};

/// A pair of liquids at a temperature.
struct LiquidPair {
  std::vector<double> alpha, beta;
  double T_K = 0;
};

/// Two liquids against the nearest pair of liquids in equilibrium: the sum of squares is the squared distance
/// to it, in units of the uncertainties, from the measured compositions and temperature. In two ways:
/// - to first order, from the differences F_i = ln(x_i gamma_i) at the measured compositions, weighted by
///   (J U J')^-1 of the parameters at the last `refresh`: any parameters will do, also those of a model with
///   one liquid;
/// - exactly, once `make_exact` has found the pair: the pair moves along the model's equilibria, by projected
///   steps and restoration, until nothing shortens the distance.
/// Source of both: H. I. Britt, R. H. Luecke, Technometrics 15 (1973) 233-247.
class TwoLiquidsResidual final : public ceres::CostFunction {
 public:
  TwoLiquidsResidual(FitContext& context, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;
  /// New weights from the parameters the model stands at.
  void refresh();
  /// From now on exactly, if the model as it stands has two liquids there; else as before.
  void make_exact();
  void make_first_order() { nearest_.reset(); }
  /// The nearest pair at the parameters evaluated last; nothing where the distance is that of first order.
  const std::optional<LiquidPair>& nearest() const { return nearest_; }

 private:
  struct Side {
    std::vector<double> ln_gamma, dT, dn, slopes;
  };
  // Differences F, their derivatives with the free fractions and T, and the standard uncertainties of these.
  struct Linearised {
    Eigen::VectorXd F;
    Eigen::MatrixXd B;
    Eigen::VectorXd u;
  };
  void evaluate(const std::vector<double>& x, double T_K, Side& side, bool with_slopes) const;
  Linearised linearised(const LiquidPair& at) const;
  LiquidPair moved(const LiquidPair& from, const Eigen::VectorXd& step) const;
  Eigen::VectorXd difference(const LiquidPair& from, const LiquidPair& to) const;
  bool restore(LiquidPair& line) const;
  bool approach(LiquidPair& line) const;
  std::size_t rest(const std::vector<double>& fractions) const;
  void jacobian(const Eigen::MatrixXd& weight, double T_K, double* into) const;

  FitContext& context_;
  const DataPoint& point_;
  std::vector<std::size_t> present_;
  LiquidPair measured_;                 ///< with something in place of zeros
  std::size_t rest_alpha_, rest_beta_;  ///< the fraction that follows from the others
  Eigen::MatrixXd weight_;              ///< L^-1 of the variance L L' of F
  mutable Side alpha_, beta_;
  mutable std::optional<LiquidPair> nearest_;
};

}  // namespace jampot
