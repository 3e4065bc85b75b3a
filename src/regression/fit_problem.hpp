#pragma once
// The optimisation behind a fit: which numbers are free, and one descent from one starting point.
#include <ceres/loss_function.h>
#include <ceres/problem.h>
#include <ceres/solver.h>

#include <memory>
#include <optional>
#include <vector>

#include "jampot/regression/fit.hpp"
#include "known_point_residual.hpp"
#include "liquid_residual.hpp"
#include "parameter_plan.hpp"
#include "vle_residual.hpp"

namespace jampot {

/// Where one descent ended.
struct Descent {
  std::vector<double> scaled;  ///< free parameters
  /// Of all boiling points, then of the known points, one block of n after the other (maximum likelihood).
  std::vector<double> adjustments;
  double objective = 0;    ///< sum of squares
  bool converged = false;  ///< false: the search was cut short where it crept along a flat valley
};

/// What one point says of the free (scaled) parameters, its own adjustments eliminated.
struct PointInformation {
  Eigen::MatrixXd information;  ///< its part of the information matrix
  Eigen::VectorXd gradient;     ///< half the derivative of its part of the objective
  double square = 0;            ///< its part of the objective
};
/// @param adjustments  nullptr where the residual has none
PointInformation information_of(const ceres::CostFunction& residual, const double* parameters,
                                const double* adjustments);

class FitProblem {
 public:
  /// @param points of vapour-liquid equilibria
  /// @param liquids points without a vapour, each with its kind
  FitProblem(Mixture mixture, const ParameterPlan& plan, const FitOptions& options,
             std::vector<const DataPoint*> points,
             const std::vector<std::pair<DataKind, const DataPoint*>>& liquids);

  /// Descends from a starting point to a minimum, near enough to tell it from others; nothing where the model
  /// could not be evaluated. The parameters of the numbers `held` stay where they are.
  std::optional<Descent> descend(const std::vector<double>& start, const std::vector<std::size_t>& held = {});

  /// Takes a minimum found by `descend` to the last digits; nothing where that did not converge. Distances to
  /// two liquids are exact from then on, until the next `descend`.
  /// @param relative_change of the objective in an iteration, at which the search ends
  std::optional<Descent> polish(const Descent& found, double relative_change = last_digits);
  static constexpr double last_digits = 1e-11;  ///< below it rounding decides

  /// Derivatives at a solution: the information matrix of the free (scaled) parameters, the adjustments
  /// eliminated.
  Eigen::MatrixXd information(const Descent& solution);

  /// Of the points of vapour-liquid equilibria in their order, then of those of liquids.
  std::vector<PointInformation> informations(const Descent& solution);

  /// Descends from `from` with the parameters of the numbers `held` at their values there: for profiles of
  /// the objective.
  std::optional<Descent> descend_held(const Descent& from, const std::vector<std::size_t>& held);
  /// Some residuals are exact after `polish` alone.
  bool needs_polish() const { return with_two_liquids() || !known_.empty(); }

  /// The standardised residuals of each liquid point at a solution.
  std::vector<std::vector<double>> liquid_residuals(const Descent& solution);

  /// Of each liquid point the nearest pair of liquids that the model has; nothing where it has none there, or
  /// where the point is none of two liquids.
  std::vector<std::optional<LiquidPair>> nearest_liquids(const Descent& solution);
  /// What became of the special points that are known.
  std::vector<KnownRow> known_rows(const Descent& solution);
  bool with_two_liquids() const { return !reweighted_.empty(); }

  FitContext& context() { return context_; }

 private:
  void hold(const std::vector<std::size_t>& held);
  void release();
  void add_adjusted(const DataPoint& point, double* adjustment);
  void add_priors(const ParameterPlan& plan, const std::vector<Prior>& priors);
  void add_known(const std::vector<KnownPoint>& known);
  void set_stiffness(bool hard);
  void add_one_liquid();
  void add_liquids(const std::vector<std::pair<DataKind, const DataPoint*>>& liquids);
  std::optional<Descent> minimise(double tolerance, int most_iterations);
  std::optional<Descent> minimise_once(double tolerance, int most_iterations);
  bool with_adjustments() const { return objective_ == Objective::maximum_likelihood; }

  FitContext context_;
  Objective objective_;
  std::stop_token stop_;
  std::vector<const DataPoint*> points_, liquid_points_;
  std::vector<std::unique_ptr<ceres::CostFunction>> residuals_;  ///< of the points, in their order
  std::vector<std::unique_ptr<ceres::CostFunction>> parts_;      ///< of them, as the problem sees them
  std::vector<std::unique_ptr<ceres::CostFunction>> liquid_residuals_;
  std::vector<TwoLiquidsResidual*> reweighted_;
  std::vector<std::unique_ptr<ceres::CostFunction>> priors_;
  std::vector<std::unique_ptr<KnownPointResidual>> known_;
  std::unique_ptr<ceres::CostFunction> one_liquid_;
  std::unique_ptr<ceres::LossFunction> loss_;
  std::vector<double> scaled_, adjustments_;  ///< what the problem's blocks point to
  std::unique_ptr<ceres::Problem> problem_;
};

}  // namespace jampot
