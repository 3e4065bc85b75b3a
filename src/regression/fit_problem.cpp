#include "fit_problem.hpp"

#include <ceres/manifold.h>
#include <ceres/ordered_groups.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "knowledge_residual.hpp"
#include "quiet_solver.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {
FitProblem::FitProblem(Mixture mixture, const ParameterPlan& plan, const FitOptions& fit_options,
                       std::vector<const DataPoint*> points,
                       const std::vector<std::pair<DataKind, const DataPoint*>>& liquids)
    : context_(std::move(mixture), plan.free),
      objective_(fit_options.objective),
      stop_(fit_options.stop),
      points_(std::move(points)) {
  if (!points_.empty()) context_.mixture().demand_volatilities();
  for (const FittedParameter& parameter : plan.all) {
    if (is_offset(parameter)) continue;
    // A term starts as a pure constant at its neutral value; what is fitted or held replaces it.
    for (const Coefficient coefficient : all_coefficients) {
      context_.mixture().activity().set_coefficient(parameter.term_index, coefficient, 0);
    }
  }
  for (const FittedParameter& parameter : plan.all) {
    if (parameter.held) {
      context_.mixture().activity().set_coefficient(parameter.term_index, parameter.coefficient,
                                                    parameter.value);
    }
  }
  const std::size_t n = context_.mixture().size();
  scaled_.resize(plan.free.size());
  adjustments_.resize(with_adjustments() ? n * (points_.size() + fit_options.known.size()) : 0);

  // Beyond three standard uncertainties a point pulls no harder than there.
  constexpr double bend = 3;
  if (fit_options.robust) loss_ = std::make_unique<ceres::HuberLoss>(bend);
  ceres::Problem::Options options;
  options.cost_function_ownership = ceres::DO_NOT_TAKE_OWNERSHIP;
  options.loss_function_ownership = ceres::DO_NOT_TAKE_OWNERSHIP;
  options.disable_all_safety_checks = true;
  problem_ = std::make_unique<ceres::Problem>(options);
  problem_->AddParameterBlock(scaled_.data(), static_cast<int>(scaled_.size()));
  for (std::size_t p = 0; p < scaled_.size(); ++p) {
    problem_->SetParameterLowerBound(scaled_.data(), static_cast<int>(p), plan.lowest[p]);
    problem_->SetParameterUpperBound(scaled_.data(), static_cast<int>(p), plan.highest[p]);
  }
  for (std::size_t k = 0; k < points_.size(); ++k) {
    const DataPoint& point = *points_[k];
    if (!with_adjustments()) {
      const Sought sought =
          objective_ == Objective::bubble_temperature ? Sought::temperature : Sought::pressure;
      residuals_.push_back(std::make_unique<BubblePointResidual>(context_, point, sought));
      problem_->AddResidualBlock(residuals_.back().get(), loss_.get(), scaled_.data());
      continue;
    }
    double* adjustment = &adjustments_[n * k];
    add_adjusted(point, adjustment);
    const std::vector<std::size_t> present = point.present();
    for (std::size_t j = 0; j + 1 < present.size(); ++j) {  // an adjusted fraction stays inside 0..1
      constexpr double inside = 1e-9, near = 8;
      const double x = point.x[present[j]];
      if (x < near * point.u_x)
        problem_->SetParameterLowerBound(adjustment, static_cast<int>(j), (inside - x) / point.u_x);
      if (1 - x < near * point.u_x) {
        problem_->SetParameterUpperBound(adjustment, static_cast<int>(j), (1 - inside - x) / point.u_x);
      }
    }
  }
  add_liquids(liquids);
  add_priors(plan, fit_options.priors);
  add_known(fit_options.known);
  if (fit_options.no_split) add_one_liquid();
}

void FitProblem::add_adjusted(const DataPoint& point, double* adjustment) {
  auto whole = std::make_unique<AdjustedPointResidual>(context_, point);
  if (loss_) {
    problem_->AddResidualBlock(whole.get(), loss_.get(), scaled_.data(), adjustment);
  } else {
    parts_.push_back(std::make_unique<AdjustmentRows>(whole->parameter_block_sizes()[1]));
    problem_->AddResidualBlock(parts_.back().get(), nullptr, adjustment);
    parts_.push_back(std::make_unique<EquilibriumRows>(*whole));
    problem_->AddResidualBlock(parts_.back().get(), nullptr, scaled_.data(), adjustment);
  }
  residuals_.push_back(std::move(whole));
}

void FitProblem::add_priors(const ParameterPlan& plan, const std::vector<Prior>& priors) {
  for (const Prior& prior : priors) {
    std::size_t p = 0;
    for (const FittedParameter& parameter : plan.all) {
      if (!parameter.is_free()) continue;
      if (is_about(prior, parameter)) {
        priors_.push_back(std::make_unique<PriorResidual>(plan.free.size(), p, plan.free[p].scale, prior));
        problem_->AddResidualBlock(priors_.back().get(), nullptr, scaled_.data());
      }
      ++p;
    }
  }
}

void FitProblem::add_known(const std::vector<KnownPoint>& known) {
  const std::size_t n = context_.mixture().size();
  for (const KnownPoint& point : known) {
    double* adjustment = &adjustments_[n * (points_.size() + known_.size())];
    known_.push_back(known_point_residual(context_, point));
    const KnownPointResidual& residual = *known_.back();
    problem_->AddResidualBlock(known_.back().get(), nullptr, scaled_.data(), adjustment);
    for (std::size_t j = 0; j + 1 < residual.adjustments(); ++j) {
      problem_->SetParameterLowerBound(adjustment, static_cast<int>(j), residual.lowest(j));
      problem_->SetParameterUpperBound(adjustment, static_cast<int>(j), residual.highest(j));
    }
  }
}

std::vector<KnownRow> FitProblem::known_rows(const Descent& solution) {
  std::vector<KnownRow> rows;
  const std::size_t n = context_.mixture().size();
  for (std::size_t k = 0; k < known_.size(); ++k)
    rows.push_back(known_[k]->row(solution.scaled.data(), &solution.adjustments[n * (points_.size() + k)]));
  return rows;
}

// Springs that are hard from the start would make a search creep.
void FitProblem::set_stiffness(bool hard) {
  constexpr double soft_spring = 10, hard_spring = 1000;
  for (const auto& residual : known_) residual->set_stiffness(hard ? hard_spring : soft_spring);
}

void FitProblem::add_one_liquid() {
  double cold = HUGE_VAL, hot = 0;
  const auto take = [&](double T_K) {
    cold = std::min(cold, T_K);
    hot = std::max(hot, T_K);
  };
  for (const DataPoint* point : points_) take(point->T_K);
  for (const DataPoint* point : liquid_points_) take(point->T_K);
  one_liquid_ = std::make_unique<OneLiquidResidual>(context_, std::vector<double>{cold, hot});
  problem_->AddResidualBlock(one_liquid_.get(), nullptr, scaled_.data());
}

void FitProblem::add_liquids(const std::vector<std::pair<DataKind, const DataPoint*>>& liquids) {
  for (const auto& [kind, point] : liquids) {
    liquid_points_.push_back(point);
    if (const LiquidValue* value = describe(kind).value) {
      liquid_residuals_.push_back(std::make_unique<LiquidValueResidual>(context_, *value, *point));
    } else {
      auto residual = std::make_unique<TwoLiquidsResidual>(context_, *point);
      reweighted_.push_back(residual.get());
      liquid_residuals_.push_back(std::move(residual));
    }
    problem_->AddResidualBlock(liquid_residuals_.back().get(), loss_.get(), scaled_.data());
  }
}

void FitProblem::hold(const std::vector<std::size_t>& held) {
  if (held.size() == scaled_.size()) {
    problem_->SetParameterBlockConstant(scaled_.data());
  } else {
    problem_->SetManifold(scaled_.data(),
                          new ceres::SubsetManifold(static_cast<int>(scaled_.size()),
                                                    std::vector<int>(held.begin(), held.end())));
  }
}

void FitProblem::release() {
  problem_->SetParameterBlockVariable(scaled_.data());
  problem_->SetManifold(scaled_.data(), nullptr);
}

std::optional<Descent> FitProblem::descend_held(const Descent& from, const std::vector<std::size_t>& held) {
  scaled_ = from.scaled;
  adjustments_ = from.adjustments;
  hold(held);
  // Of the objective: what an end of a profile can show. Of many points a smaller part of it is as much.
  constexpr std::size_t many = 300;
  const double relative_change = points_.size() > many ? 1e-7 : 1e-8;
  constexpr int most_iterations = 100;
  auto found = minimise(relative_change, most_iterations);
  release();
  return found;
}

std::vector<std::vector<double>> FitProblem::liquid_residuals(const Descent& solution) {
  std::vector<std::vector<double>> all;
  const double* blocks[] = {solution.scaled.data()};
  for (const auto& residual : liquid_residuals_) {
    all.emplace_back(static_cast<std::size_t>(residual->num_residuals()));
    residual->Evaluate(blocks, all.back().data(), nullptr);
  }
  return all;
}

std::optional<Descent> FitProblem::descend(const std::vector<double>& start,
                                           const std::vector<std::size_t>& held) {
  for (TwoLiquidsResidual* residual : reweighted_) residual->make_first_order();
  set_stiffness(false);
  scaled_ = start;
  std::fill(adjustments_.begin(), adjustments_.end(), 0.0);
  constexpr double relative_change = 1e-7;  // of the objective; the best minimum is polished afterwards
  constexpr int most_iterations = 40;
  if (held.empty()) return minimise(relative_change, most_iterations);
  hold(held);
  auto found = minimise(relative_change, most_iterations);
  release();
  return found;
}

std::optional<Descent> FitProblem::polish(const Descent& found, double relative_change) {
  scaled_ = found.scaled;
  if (found.adjustments.empty())
    std::fill(adjustments_.begin(), adjustments_.end(), 0.0);
  else
    adjustments_ = found.adjustments;
  constexpr int most_iterations = 500;
  for (TwoLiquidsResidual* residual : reweighted_) residual->make_first_order();
  if (!known_.empty()) {
    set_stiffness(false);
    minimise(1e-7, most_iterations);
    set_stiffness(true);
  }
  const auto polished = minimise(relative_change, most_iterations);
  if (!polished) return std::nullopt;
  if (reweighted_.empty()) return polished->converged ? polished : std::nullopt;
  // Weights that keep moving do not matter to the exact distances.
  context_.set(scaled_.data());
  for (TwoLiquidsResidual* residual : reweighted_) residual->make_exact();
  const auto exact = minimise(relative_change, most_iterations);
  if (exact && exact->converged) return exact;
  for (TwoLiquidsResidual* residual : reweighted_) residual->make_first_order();
  scaled_ = polished->scaled;
  adjustments_ = polished->adjustments;
  return polished->converged ? polished : std::nullopt;
}

std::vector<std::optional<LiquidPair>> FitProblem::nearest_liquids(const Descent& solution) {
  std::vector<std::optional<LiquidPair>> all;
  const double* blocks[] = {solution.scaled.data()};
  for (const auto& residual : liquid_residuals_) {
    std::vector<double> values(static_cast<std::size_t>(residual->num_residuals()));
    residual->Evaluate(blocks, values.data(), nullptr);
    const auto* two = dynamic_cast<const TwoLiquidsResidual*>(residual.get());
    all.push_back(two != nullptr ? two->nearest() : std::nullopt);
  }
  return all;
}

// Two liquids are weighted at the parameters of the round before; a few rounds settle that.
std::optional<Descent> FitProblem::minimise(double tolerance, int most_iterations) {
  const bool first_order = std::any_of(reweighted_.begin(), reweighted_.end(),
                                       [](const auto* residual) { return !residual->nearest(); });
  if (!first_order) return minimise_once(tolerance, most_iterations);
  std::optional<Descent> found;
  constexpr int most_rounds = 25;
  for (int round = 0; round < most_rounds; ++round) {
    context_.set(scaled_.data());
    for (TwoLiquidsResidual* residual : reweighted_) {
      if (!residual->nearest()) residual->refresh();
    }
    const std::vector<double> before = scaled_;
    found = minimise_once(tolerance, most_iterations);
    if (!found) return found;
    double moved = 0;
    for (std::size_t p = 0; p < scaled_.size(); ++p)
      moved = std::max(moved, std::abs(scaled_[p] - before[p]) / (1 + std::abs(before[p])));
    if (moved < 1e-6) break;
    found->converged = false;  // unless a later round says otherwise
  }
  return found;
}

std::optional<Descent> FitProblem::minimise_once(double tolerance, int most_iterations) {
  if (stop_.stop_requested()) throw CalculationError("the fit was stopped before it was done");
  ceres::Solver::Options options;
  options.logging_type = ceres::SILENT;
  options.max_num_iterations = most_iterations;
  options.function_tolerance = tolerance;
  options.gradient_tolerance = 1e-9;
  options.parameter_tolerance = 1e-9;
  // How long a step is that would leave the bounds: by the objective alone. A cubic asks for its gradient at
  // every step, which is more than half of all the work.
  options.line_search_interpolation_type = ceres::QUADRATIC;
  if (!adjustments_.empty()) {
    // The adjustments of a point touch no other point: eliminated first, they leave a system of the
    // parameters alone.
    options.linear_solver_type = ceres::DENSE_SCHUR;
    auto ordering = std::make_shared<ceres::ParameterBlockOrdering>();
    const std::size_t n = context_.mixture().size();
    for (std::size_t k = 0; n * k < adjustments_.size(); ++k)
      ordering->AddElementToGroup(&adjustments_[n * k], 0);
    ordering->AddElementToGroup(scaled_.data(), 1);
    options.linear_solver_ordering = std::move(ordering);
  } else {
    options.linear_solver_type = ceres::DENSE_QR;
  }
  ceres::Solver::Summary summary;
  if (!solve_quietly(options, *problem_, summary)) return std::nullopt;
  return Descent{scaled_, adjustments_, 2 * summary.final_cost,
                 summary.termination_type == ceres::CONVERGENCE};
}

PointInformation information_of(const ceres::CostFunction& residual, const double* parameters,
                                const double* adjustments) {
  using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  const Eigen::Index rows = residual.num_residuals(), free = residual.parameter_block_sizes()[0];
  const Eigen::Index adjusted = adjustments != nullptr ? residual.parameter_block_sizes()[1] : 0;
  Eigen::VectorXd values(rows);
  RowMajor A(rows, free), B(rows, adjusted);
  const double* blocks[] = {parameters, adjustments};
  double* jacobians[] = {A.data(), B.data()};
  residual.Evaluate(blocks, values.data(), jacobians);
  PointInformation one{product(A.transpose(), A), transposed_times(A, values), values.squaredNorm()};
  if (adjusted == 0) return one;
  const Eigen::MatrixXd BtA = product(B.transpose(), A), BtB = product(B.transpose(), B);
  one.information -= product(BtA.transpose(), solved_symmetric(BtB, BtA));
  one.gradient -= transposed_times(BtA, solved_symmetric(BtB, transposed_times(B, values)));
  return one;
}

std::vector<PointInformation> FitProblem::informations(const Descent& solution) {
  const std::size_t n = context_.mixture().size();
  std::vector<PointInformation> all;
  for (std::size_t k = 0; k < residuals_.size(); ++k) {
    const double* adjustments = with_adjustments() ? &solution.adjustments[n * k] : nullptr;
    all.push_back(information_of(*residuals_[k], solution.scaled.data(), adjustments));
  }
  for (const auto& residual : liquid_residuals_)
    all.push_back(information_of(*residual, solution.scaled.data(), nullptr));
  return all;
}

Eigen::MatrixXd FitProblem::information(const Descent& solution) {
  const auto parameters = static_cast<Eigen::Index>(solution.scaled.size());
  Eigen::MatrixXd information = Eigen::MatrixXd::Zero(parameters, parameters);
  for (const PointInformation& one : informations(solution)) information += one.information;
  for (const auto& prior : priors_) {
    double value = 0;
    std::vector<double> row(solution.scaled.size());
    const double* blocks[] = {solution.scaled.data()};
    double* jacobians[] = {row.data()};
    prior->Evaluate(blocks, &value, jacobians);
    const Eigen::Map<const Eigen::VectorXd> slope(row.data(), parameters);
    information += slope * slope.transpose();
  }
  const auto n = context_.mixture().size();
  for (std::size_t k = 0; k < known_.size(); ++k)
    information +=
        information_of(*known_[k], solution.scaled.data(), &solution.adjustments[n * (points_.size() + k)])
            .information;
  return information;
}

}  // namespace jampot
