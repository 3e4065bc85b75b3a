#pragma once
// The residuals of one measured point, with exact derivatives, as Ceres takes them.
#include <ceres/cost_function.h>

#include <optional>
#include <span>
#include <vector>

#include "jampot/equilibrium/incipient.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// One number that is fitted: a coefficient of a term, scaled to be of order one at a reference temperature,
/// or an offset of a data set.
struct FreeParameter {
  std::size_t term;
  Coefficient coefficient;
  double scale;                            ///< coefficient = scale * (what the optimiser sees)
  std::vector<std::size_t> tied{};         ///< further terms that take the same coefficient
  std::span<const DataPoint> offset_of{};  ///< not empty: by how much these were measured too high
  bool of_pressure = false;                ///< relative; else of the temperature, in K
  bool is_offset() const { return !offset_of.empty(); }
};

/// The model being fitted and the scratch space of its residuals; shared by all of them, so one thread each.
class FitContext {
 public:
  FitContext(Mixture mixture, std::vector<FreeParameter> free);

  void set(const double* scaled);
  Mixture& mixture() { return mixture_; }
  /// The liquid model without factors of vapour pressures, for what is measured in a liquid alone.
  ActivityModel& liquid_alone();
  IncipientSolver& solver() { return solver_; }
  const std::vector<FreeParameter>& free() const { return free_; }
  /// Numbers of the offsets of the set that a point belongs to; nothing where there is none.
  struct Offsets {
    std::optional<std::size_t> T, P;
  };
  Offsets offsets_of(const DataPoint& point) const;
  /// What was measured too high, at the parameters set last: in K, or relative.
  double offset(std::size_t parameter) const { return offsets_[parameter]; }
  /// A point as it would have been measured without the offsets of its set.
  DataPoint without_offsets(const DataPoint& point) const;
  /// Derivative with a scaled parameter of something whose derivative with the value of a term at T_K is
  /// `by_term(term)`: through every term that takes this parameter.
  template <class ByTerm>
  double derivative(std::size_t parameter, double T_K, const ByTerm& by_term) const {
    const FreeParameter& free = free_[parameter];
    if (free.is_offset()) return 0;
    double sum = by_term(free.term);
    for (const std::size_t term : free.tied) sum += by_term(term);
    return sum * free.scale * TemperatureFunction::basis(free.coefficient, T_K);
  }

 private:
  Mixture mixture_;
  std::vector<FreeParameter> free_;
  std::vector<double> offsets_;  ///< one for each free parameter; 0 of those that are none
  IncipientSolver solver_;
};

/// A bubble point at (T, x) with the derivatives of ln P and y.
struct BubbleDerivatives {
  double P_Pa = 0;
  std::vector<double> y;
  double dln_P_dT = 0;
  std::vector<double> dln_P_dz;      ///< with the amount of each component in the liquid; n
  std::vector<double> dln_P_dp;      ///< per free parameter
  std::vector<double> dy_dT;         ///< n
  std::vector<double> dy_dz, dy_dp;  ///< n rows
};

/// @returns false where the model gives no bubble point there
bool bubble_with_derivatives(FitContext& context, double T_K, const std::vector<double>& x,
                             bool with_derivatives, BubbleDerivatives& out);

/// Errors in variables. Blocks: the free parameters; the adjustments of the fractions of all present
/// components but the last, and of T, in units of their uncertainty. Residuals: those adjustments, then (P -
/// measured)/u_P, then (y_k - measured)/u_y of all present components but the last.
class AdjustedPointResidual final : public ceres::CostFunction {
 public:
  AdjustedPointResidual(FitContext& context, const DataPoint& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

  /// The rows of P and y alone, with their derivatives.
  bool equilibrium(double const* const* blocks, double* residuals, double** jacobians) const;

 private:
  bool solve(double const* const* blocks) const;

  FitContext& context_;
  const DataPoint& point_;
  std::vector<std::size_t> present_;
  FitContext::Offsets offsets_;
  // The bubble point solved last, the measured pressure without its offset, and the blocks they belong to;
  // those are empty where it was not found.
  mutable IncipientState state_;
  mutable double P_Pa_ = 0;
  mutable std::vector<double> x_, solved_at_, solved_for_;
  mutable BubbleDerivatives bubble_;
};

/// The same point in two parts of as many rows as it has adjustments: where all blocks of a problem are of
/// one size the linear solver has code for this size, and takes a fifth of the time. For problems without a
/// loss function, which would have to see the point as a whole.
class AdjustmentRows final : public ceres::CostFunction {
 public:
  explicit AdjustmentRows(int count);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;
};

/// The other part: P and y, then zeros where fewer were measured.
class EquilibriumRows final : public ceres::CostFunction {
 public:
  /// The point is borrowed.
  explicit EquilibriumRows(const AdjustedPointResidual& point);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  const AdjustedPointResidual& point_;
};

/// The plain objectives: one residual a point, relative deviation of P or deviation of T in K.
class BubblePointResidual final : public ceres::CostFunction {
 public:
  BubblePointResidual(FitContext& context, const DataPoint& point, Sought sought);
  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override;

 private:
  FitContext& context_;
  const DataPoint& point_;
  Sought sought_;
  mutable BubbleDerivatives bubble_;
};

}  // namespace jampot
