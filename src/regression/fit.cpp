#include "jampot/regression/fit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <boost/math/distributions/students_t.hpp>
#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>
#include <cmath>
#include <filesystem>
#include <numeric>

#include "../basis/eigen.hpp"
#include "fit_notices.hpp"
#include "fit_problem.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/liquid_comparison.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/plausibility.hpp"

namespace jampot {
namespace {

constexpr std::array<std::string_view, 3> objective_names{"maximum-likelihood", "bubble-pressure",
                                                          "bubble-temperature"};

std::vector<const DataPoint*> mixed_points(const std::vector<DataSet>& sets) {
  std::vector<const DataPoint*> points;
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind)) continue;
    for (const DataPoint& point : set.points) {
      if (!point.is_pure() && point.excluded.empty()) points.push_back(&point);
    }
  }
  return points;
}

std::vector<std::pair<DataKind, const DataPoint*>> liquid_points(const std::vector<DataSet>& sets) {
  std::vector<std::pair<DataKind, const DataPoint*>> points;
  for (const DataSet& set : sets) {
    if (vapour_liquid(set.kind)) continue;
    for (const DataPoint& point : set.points) {
      if (point.excluded.empty()) points.emplace_back(set.kind, &point);
    }
  }
  return points;
}

std::vector<std::vector<double>> starting_points(const ParameterPlan& plan, int starts) {
  std::vector<std::vector<double>> points{plan.neutral};
  const std::size_t dimensions = plan.free.size();
  boost::random::sobol sequence(dimensions);
  boost::random::uniform_01<double> uniform;
  while (points.size() < static_cast<std::size_t>(std::max(1, starts))) {
    std::vector<double> point(dimensions);
    for (std::size_t p = 0; p < dimensions; ++p) {
      point[p] = plan.start_low[p] + uniform(sequence) * (plan.start_high[p] - plan.start_low[p]);
    }
    points.push_back(std::move(point));
  }
  return points;
}

// Groups the ends of the descents; two are the same minimum where objective and parameters agree.
std::vector<std::pair<Descent, int>> distinct(std::vector<Descent> descents) {
  std::sort(descents.begin(), descents.end(),
            [](const Descent& a, const Descent& b) { return a.objective < b.objective; });
  std::vector<std::pair<Descent, int>> groups;
  for (Descent& descent : descents) {
    const auto same = [&](const std::pair<Descent, int>& group) {
      if (std::abs(group.first.objective - descent.objective) > 1e-4 * descent.objective) return false;
      for (std::size_t p = 0; p < descent.scaled.size(); ++p) {
        if (std::abs(group.first.scaled[p] - descent.scaled[p]) > 0.01 * (1 + std::abs(descent.scaled[p])))
          return false;
      }
      return true;
    };
    const auto found = std::find_if(groups.begin(), groups.end(), same);
    if (found != groups.end()) {
      ++found->second;
    } else {
      groups.emplace_back(std::move(descent), 1);
    }
  }
  return groups;
}

void check_count(const Fit& result, std::size_t free, int measured) {
  if (measured > static_cast<int>(free)) return;
  throw RequestError(
      fmt::format("{} mixed point{} with {} measured quantit{} to compare cannot determine {} parameters; "
                  "more points are needed, or some parameters held (pure substances do not count)",
                  result.points, result.points == 1 ? "" : "s", measured, measured == 1 ? "y" : "ies", free));
}

void set_values(Fit& result, const ParameterPlan& plan, const Descent& best) {
  std::size_t p = 0;
  for (FittedParameter& parameter : result.parameters) {
    if (!parameter.is_free()) continue;
    parameter.value = plan.free[p].scale * best.scaled[p];
    const double width = plan.highest[p] - plan.lowest[p];
    parameter.at_bound =
        best.scaled[p] - plan.lowest[p] < 1e-6 * width || plan.highest[p] - best.scaled[p] < 1e-6 * width;
    ++p;
  }
}

void set_covariance(Fit& result, const ParameterPlan& plan, const Eigen::MatrixXd& information) {
  const Eigen::Index free = information.rows();
  // Judged after scaling to unit diagonal, so that units play no part.
  const Eigen::VectorXd scale = information.diagonal().cwiseMax(1e-300).cwiseSqrt().cwiseInverse();
  const Eigen::MatrixXd scaled = scale.asDiagonal() * information * scale.asDiagonal();
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(scaled);
  if (!(eigen.eigenvalues()[0] > 1e-13)) {
    throw CalculationError(
        "the data cannot tell the fitted parameters apart: a combination of them has no influence on "
        "any measured quantity. Hold one of them (--hold), or use fewer coefficients of temperature "
        "(--form).");
  }
  const Eigen::MatrixXd inverse = eigen.eigenvectors() * eigen.eigenvalues().cwiseInverse().asDiagonal() *
                                  eigen.eigenvectors().transpose();
  Eigen::VectorXd unit(free);
  for (Eigen::Index p = 0; p < free; ++p) unit[p] = scale[p] * plan.free[static_cast<std::size_t>(p)].scale;
  Eigen::MatrixXd covariance = unit.asDiagonal() * inverse * unit.asDiagonal();
  // Where no uncertainty is taken as known, the scatter of the points sets the scale.
  if (result.options.objective != Objective::maximum_likelihood) {
    covariance *= result.objective / std::max(1.0, result.degrees_of_freedom);
  }
  const Eigen::VectorXd error = covariance.diagonal().cwiseSqrt();
  result.covariance = from_eigen(covariance);
  result.correlation =
      from_eigen(error.cwiseInverse().asDiagonal() * covariance * error.cwiseInverse().asDiagonal());
  Eigen::Index p = 0;
  for (FittedParameter& parameter : result.parameters) {
    if (parameter.is_free()) parameter.std_error = error[p++];
  }
}

// The deviations of ln P and y at measured T and x, each over the standard uncertainty that T, P, x and y
// give it.
void standardise(FitContext& context, ResidualRow& row) {
  const DataPoint& point = row.measured;
  const std::size_t n = point.x.size();
  BubbleDerivatives bubble;
  if (!bubble_with_derivatives(context, point.T_K, point.x, true, bubble)) return;
  const auto square = [](double value) { return value * value; };
  double variance = square(point.u_P_Pa / point.P_Pa) + square(bubble.dln_P_dT * point.u_T_K);
  const std::vector<std::size_t> present = point.present();
  const std::size_t last = present.back();
  for (std::size_t j = 0; j + 1 < present.size(); ++j) {
    variance += square((bubble.dln_P_dz[present[j]] - bubble.dln_P_dz[last]) * point.u_x);
  }
  row.standardised_P = std::log(point.P_Pa / bubble.P_Pa) / std::sqrt(variance);
  for (std::size_t r = 0; !point.y.empty() && r + 1 < present.size(); ++r) {
    const std::size_t i = present[r];
    double y_variance = square(point.u_y) + square(bubble.dy_dT[i] * point.u_T_K);
    for (std::size_t j = 0; j + 1 < present.size(); ++j) {
      y_variance += square((bubble.dy_dz[i * n + present[j]] - bubble.dy_dz[i * n + last]) * point.u_x);
    }
    row.standardised_y.push_back((point.y[i] - bubble.y[i]) / std::sqrt(y_variance));
  }
}

// What the model says at the measured composition, with the held quantity as measured.
void predict(FitContext& context, DataKind kind, ResidualRow& row) {
  const Sought sought = isobaric(kind) ? Sought::temperature : Sought::pressure;
  IncipientState state(row.measured.x.size());
  state.T_K = row.measured.T_K;
  state.P_Pa = row.measured.P_Pa;
  state.w = row.measured.x;
  if (!context.solver().solve(sought, row.measured.x, state)) {
    throw CalculationError("the fitted model has no bubble point at a measured composition");
  }
  row.T_K = state.T_K;
  row.P_Pa = state.P_Pa;
  row.y = state.w;
  for (std::size_t i = 0; i < row.y.size(); ++i) {
    if (!context.mixture().substances()[i].vapour_pressure) row.y[i] = 0;  // non-volatile, exactly
  }
}

DataPoint adjusted_point(FitContext& context, const DataPoint& measured, const double* adjustment) {
  DataPoint point = measured;
  const std::vector<std::size_t> present = point.present();
  double rest = 1;
  for (std::size_t j = 0; j + 1 < present.size(); ++j) {
    point.x[present[j]] += point.u_x * adjustment[j];
    rest -= point.x[present[j]];
  }
  point.x[present.back()] = rest;
  point.T_K += point.u_T_K * adjustment[present.size() - 1];
  BubbleDerivatives bubble;
  bubble.P_Pa = point.P_Pa;
  bubble_with_derivatives(context, point.T_K, point.x, false, bubble);
  point.P_Pa = bubble.P_Pa;
  if (!point.y.empty()) point.y = bubble.y;
  return point;
}

void fill_residuals(Fit& result, const std::vector<DataSet>& sets, FitContext& context, const Descent& best) {
  std::size_t used = 0;
  for (std::size_t s = 0; s < sets.size(); ++s) {
    if (!vapour_liquid(sets[s].kind)) continue;
    for (const DataPoint& point : sets[s].points) {
      ResidualRow row;
      row.set = s;
      row.measured = row.adjusted = point;
      row.pure = point.is_pure();
      predict(context, sets[s].kind, row);
      if (!row.pure) standardise(context, row);
      if (row.used()) {
        if (!best.adjustments.empty()) {
          row.adjusted = adjusted_point(context, point, &best.adjustments[used * point.x.size()]);
        }
        ++used;
      }
      result.residuals.push_back(std::move(row));
    }
  }
}

class MeanSquare {
 public:
  void add(double value) { sum_ += value * value, ++count_; }
  std::optional<double> root() const {
    return count_ == 0 ? std::nullopt : std::optional(std::sqrt(sum_ / count_));
  }

 private:
  double sum_ = 0;
  int count_ = 0;
};

void fill_rms(Fit& result, const std::vector<DataSet>& sets) {
  MeanSquare T, P, x, y, dT, dP, dy;
  for (const ResidualRow& row : result.residuals) {
    if (!row.used()) continue;
    const DataPoint &measured = row.measured, &adjusted = row.adjusted;
    if (isobaric(sets[row.set].kind)) {
      dT.add(row.T_K - measured.T_K);
    } else {
      dP.add(row.P_Pa - measured.P_Pa);
    }
    T.add(adjusted.T_K - measured.T_K);
    P.add(adjusted.P_Pa - measured.P_Pa);
    for (std::size_t i = 0; i + 1 < measured.x.size(); ++i) {
      x.add(adjusted.x[i] - measured.x[i]);
      if (measured.y.empty()) continue;
      y.add(adjusted.y[i] - measured.y[i]);
      dy.add(row.y[i] - measured.y[i]);
    }
  }
  result.deviation = {dT.root(), dP.root(), std::nullopt, dy.root()};
  if (result.options.objective == Objective::maximum_likelihood) {
    result.adjustment = {T.root(), P.root(), x.root(), y.root()};
  }
}

void fill_tests(Fit& result) {
  std::vector<const ResidualRow*> rows;
  for (const ResidualRow& row : result.residuals) {
    if (row.used()) rows.push_back(&row);
  }
  std::stable_sort(rows.begin(), rows.end(), [](const ResidualRow* a, const ResidualRow* b) {
    return std::pair(a->set, a->measured.x[0]) < std::pair(b->set, b->measured.x[0]);
  });
  std::vector<double> P, y;
  for (const ResidualRow* row : rows) {
    P.push_back(row->standardised_P);
    if (!row->standardised_y.empty()) y.push_back(row->standardised_y[0]);
  }
  result.runs_P = runs_test(P);
  result.runs_y = runs_test(y);
  if (result.options.objective == Objective::maximum_likelihood) {
    result.chi_square_probability = chi_square_probability(result.objective, result.degrees_of_freedom);
  }
}

void fill_ranges(Fit& result) {
  result.T_range_K = result.P_range_Pa = {HUGE_VAL, 0};
  auto& T = result.T_range_K;
  auto& P = result.P_range_Pa;
  for (const ResidualRow& row : result.residuals) {
    if (!row.used()) continue;
    T = {std::min(T[0], row.measured.T_K), std::max(T[1], row.measured.T_K)};
    P = {std::min(P[0], row.measured.P_Pa), std::max(P[1], row.measured.P_Pa)};
  }
  for (const LiquidRow& row : result.liquid_residuals) {
    T = {std::min(T[0], row.measured.T_K), std::max(T[1], row.measured.T_K)};
  }
  if (P[1] == 0) P = {0, 0};
}

void fill_liquids(Fit& result, const std::vector<DataSet>& sets, FitProblem& problem, const Descent& best) {
  const auto standardised = problem.liquid_residuals(best);
  const auto nearest = problem.nearest_liquids(best);
  ActivityModel& model = problem.context().mixture().activity();
  std::size_t used = 0;
  for (std::size_t s = 0; s < sets.size(); ++s) {
    if (vapour_liquid(sets[s].kind)) continue;
    for (const DataPoint& point : sets[s].points) {
      LiquidRow row{s, sets[s].kind, point, 0, {}, {}, {}};
      std::optional<LiquidPair> line;
      if (point.excluded.empty()) {
        line = nearest.at(used);
        row.standardised = standardised.at(used++);
      }
      if (row.kind == DataKind::gamma_inf) {
        std::vector<double> ln_gamma(point.x.size());
        model.set_temperature(point.T_K);
        model.evaluate(point.x, ln_gamma);
        row.model = std::exp(ln_gamma[point.solute]);
      } else if (row.kind == DataKind::excess_enthalpy) {
        row.model = model_excess_enthalpy(model, point.T_K, point.x);
      } else if (line) {
        row.alpha = line->alpha;
        row.beta = line->beta;
      } else {
        if (const auto liquids = nearest_liquids(model, point)) {
          row.alpha = liquids->alpha;
          row.beta = liquids->beta;
        }
      }
      result.liquid_residuals.push_back(std::move(row));
    }
  }
}

double aicc(const Fit& fit, double k) {
  const double n = fit.comparisons;
  const bool known = fit.options.objective == Objective::maximum_likelihood;
  if (!known) k += 1;  // the scale of the scatter
  const double misfit = known ? fit.objective : n * std::log(std::max(fit.objective, 1e-300) / n);
  return n - k - 1 > 0 ? misfit + 2 * k + 2 * k * (k + 1) / (n - k - 1) : HUGE_VAL;
}

// 95 % intervals: symmetric ones first, then, where the problem is visibly nonlinear, from profiles.
void set_intervals(Fit& result, const ParameterPlan& plan, FitProblem& problem, const Descent& best) {
  const bool known = result.options.objective == Objective::maximum_likelihood;
  const double quantile =
      known || result.degrees_of_freedom < 1
          ? 1.959963984540054
          : boost::math::quantile(boost::math::students_t(result.degrees_of_freedom), 0.975);
  const double variance = known ? 1 : result.objective / std::max(1.0, result.degrees_of_freedom);
  bool alpha_free = false;
  for (const FittedParameter& parameter : result.parameters)
    alpha_free = alpha_free || (parameter.is_free() && parameter.term == "alpha");
  const bool profiled = result.options.profiles == Profiles::always ||
                        (result.options.profiles == Profiles::when_nonlinear && alpha_free);
  Progress* progress = profiled ? result.options.progress : nullptr;
  if (progress) progress->expected += std::ssize(plan.free);
  std::size_t p = 0;
  for (FittedParameter& parameter : result.parameters) {
    if (!parameter.is_free()) continue;
    if (progress) ++progress->done;
    parameter.low = parameter.value - quantile * parameter.std_error;
    parameter.high = parameter.value + quantile * parameter.std_error;
    if (profiled && !parameter.at_bound) {
      const double scale = plan.free[p].scale, sd = std::abs(parameter.std_error / scale);
      const auto excess = [&](double value) {
        const auto found = problem.descend_held(best, p, value);
        return found ? found->objective - best.objective - quantile * quantile * variance : HUGE_VAL;
      };
      // Outwards in growing steps until the objective has risen enough, then between the last two.
      const auto end = [&](double direction) -> std::optional<double> {
        double inside = best.scaled[p];
        const double bound = direction > 0 ? plan.highest[p] : plan.lowest[p];
        for (double step = quantile * sd; step < 60 * sd; step *= 1.4) {
          double outside = best.scaled[p] + direction * step;
          const bool at_bound = direction * (outside - bound) >= 0;
          if (at_bound) outside = bound;
          const double rise = excess(outside);
          if (rise > 0) {
            for (int halving = 0; halving < 12; ++halving) {
              const double middle = (inside + outside) / 2;
              (excess(middle) > 0 ? outside : inside) = middle;
            }
            return (inside + outside) / 2;
          }
          if (at_bound) return std::nullopt;
          inside = outside;
        }
        return std::nullopt;
      };
      auto low = end(-1), high = end(1);
      if (scale < 0) std::swap(low, high);
      parameter.low = low ? *low * scale : -HUGE_VAL;
      parameter.high = high ? *high * scale : HUGE_VAL;
      parameter.profiled = true;
    }
    ++p;
  }
}

// What is tied to another has its value and its uncertainty.
void follow_ties(Fit& result) {
  for (FittedParameter& parameter : result.parameters) {
    if (!parameter.tied_to) continue;
    const FittedParameter& leader = result.parameters[*parameter.tied_to];
    parameter.value = leader.value;
    parameter.std_error = leader.std_error;
    parameter.low = leader.low;
    parameter.high = leader.high;
    parameter.at_bound = leader.at_bound;
    parameter.profiled = leader.profiled;
  }
}

}  // namespace

std::string_view name_of(Objective objective) {
  return objective_names[static_cast<std::size_t>(objective)];
}

Objective parse_objective(std::string_view text) {
  for (std::size_t k = 0; k < objective_names.size(); ++k) {
    if (objective_names[k] == text) return static_cast<Objective>(k);
  }
  const std::vector<std::string> names(objective_names.begin(), objective_names.end());
  throw RequestError(fmt::format("'{}' is not an objective; there are {}.{}", text, joined(names, ", "),
                                 did_you_mean(text, names)));
}

std::vector<const FittedParameter*> Fit::free() const& {
  std::vector<const FittedParameter*> list;
  for (const FittedParameter& parameter : parameters) {
    if (parameter.is_free()) list.push_back(&parameter);
  }
  return list;
}

std::vector<const FittedParameter*> Fit::fitted() const& {
  std::vector<const FittedParameter*> list;
  for (const FittedParameter& parameter : parameters) {
    if (!parameter.held) list.push_back(&parameter);
  }
  return list;
}

Matrix Fit::fitted_covariance() const {
  const auto from = free(), to = fitted();
  Eigen::MatrixXd follows = Eigen::MatrixXd::Zero(std::ssize(to), std::ssize(from));
  for (Eigen::Index row = 0; row < follows.rows(); ++row) {
    const FittedParameter* parameter = to[static_cast<std::size_t>(row)];
    if (parameter->tied_to) parameter = &parameters[*parameter->tied_to];
    follows(row, std::find(from.begin(), from.end(), parameter) - from.begin()) = 1;
  }
  return from_eigen(follows * to_eigen(covariance) * follows.transpose());
}

std::string Fit::source() const {
  std::vector<std::string> files;
  for (const std::string& name : data) files.push_back(std::filesystem::path(name).filename().string());
  return fmt::format("fitted to {} ({} points)", joined(files, ", "), points);
}

std::string Fit::fitted_to() const {
  const bool split = std::any_of(liquid_residuals.begin(), liquid_residuals.end(),
                                 [](const LiquidRow& row) { return row.kind == DataKind::lle; });
  if (!split) return "vle";
  return residuals.empty() ? "lle" : "vle+lle";
}

std::optional<double> Fit::rms_liquids() const {
  MeanSquare all;
  for (const LiquidRow& row : liquid_residuals) {
    if (row.kind != DataKind::lle || row.alpha.empty() || !row.measured.excluded.empty()) continue;
    for (std::size_t i = 0; i < row.alpha.size(); ++i) {
      all.add(row.alpha[i] - row.measured.x[i]);
      all.add(row.beta[i] - row.measured.y[i]);
    }
  }
  return all.root();
}

double LiquidRow::distance() const {
  double sum = 0;
  for (const double value : standardised) sum += value * value;
  return std::sqrt(sum);
}

std::vector<PairParameters> Fit::pairs() const {
  const std::size_t terms = terms_for_fit(options.model).size();
  std::vector<PairParameters> list;
  const Eigen::MatrixXd covariance_of_all = to_eigen(fitted_covariance());
  const auto joint = std::make_shared<const std::vector<double>>(
      covariance_of_all.data(), covariance_of_all.data() + covariance_of_all.size());
  std::size_t p = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j, ++p) {
      PairParameters pair = neutral_pair(options.model, substances[i], substances[j]);
      for (auto& [name, function] : pair.terms) function = {};
      pair.range_K = T_range_K;
      pair.source = source();
      pair.fitted_to = fitted_to();
      if (options.vapour.model != "ideal") pair.vapour = options.vapour.model;
      for (const FittedParameter& parameter : parameters) {
        if (parameter.term_index / terms == p)
          pair.terms[parameter.term][parameter.coefficient] = parameter.value;
      }
      const std::vector<const FittedParameter*> all = fitted();
      for (std::size_t row = 0; row < all.size(); ++row) {
        if (all[row]->term_index / terms != p) continue;
        if (pair.fitted.empty()) pair.joint_row = row;
        pair.fitted.push_back({all[row]->term, all[row]->coefficient});
      }
      const auto own = std::ssize(pair.fitted), from = static_cast<Eigen::Index>(pair.joint_row);
      const Eigen::MatrixXd block = covariance_of_all.block(from, from, own, own);
      pair.covariance.assign(block.data(), block.data() + block.size());
      if (substances.size() > 2) pair.joint_covariance = joint;
      list.push_back(std::move(pair));
    }
  }
  return list;
}

Mixture Fit::mixture() const {
  ParameterCollection collection;
  for (const PairParameters& pair : pairs()) collection.add(pair);
  return {substances, options.model, collection, options.vapour};
}

namespace {

// The minima that descents ended in, with exact distances to two liquids; those that are one then are one.
std::vector<std::pair<Descent, int>> polished_minima(FitProblem& problem,
                                                     const std::vector<std::pair<Descent, int>>& rough) {
  constexpr std::size_t most_polished = 4;
  constexpr double much_worse = 3;
  std::vector<std::pair<Descent, int>> minima;
  for (std::size_t k = 0; k < std::min(rough.size(), most_polished); ++k) {
    if (rough[k].first.objective > much_worse * rough.front().first.objective) break;
    auto exact = problem.polish(rough[k].first);
    if (!exact) continue;
    const auto same = [&](const std::pair<Descent, int>& known) {
      return std::abs(known.first.objective - exact->objective) <= 1e-6 * exact->objective;
    };
    const auto found = std::find_if(minima.begin(), minima.end(), same);
    if (found != minima.end()) {
      found->second += rough[k].second;
    } else {
      minima.emplace_back(std::move(*exact), rough[k].second);
    }
  }
  std::sort(minima.begin(), minima.end(),
            [](const auto& a, const auto& b) { return a.first.objective < b.first.objective; });
  return minima;
}

Fit fit_as_stated(const std::vector<DataSet>& given, const FitOptions& options) {
  if (given.empty()) throw RequestError("no data to fit");
  for (const DataSet& set : given)
    demand_points(set, options.objective == Objective::maximum_likelihood || !vapour_liquid(set.kind));
  const std::vector<DataSet> sets = with_common_substances(given);
  const std::vector<const DataPoint*> points = mixed_points(sets);
  Fit result;
  result.options = options;
  result.substances = sets.front().substances;
  result.points = static_cast<int>(points.size());
  for (const DataSet& set : sets) {
    result.data.push_back(set.name);
    result.isobaric.push_back(isobaric(set.kind));
    result.notices.add(implausible(set));
    result.notices.add(set.notices);
  }
  double T_sum = 0;
  int measured = 0;  // comparisons: one for each bubble point, n - 1 for each analysed vapour
  const auto liquids = liquid_points(sets);
  result.points += static_cast<int>(liquids.size());
  for (const auto& [kind, point] : liquids) {
    T_sum += point->T_K;
    measured += kind == DataKind::lle ? static_cast<int>(point->present().size()) : 1;
  }
  if (options.objective != Objective::maximum_likelihood && !liquids.empty() && !points.empty())
    throw RequestError(
        fmt::format("the objective {} compares boiling points alone; solubilities, limits and enthalpies are "
                    "weighed against them "
                    "by their uncertainties, which maximum-likelihood does",
                    name_of(options.objective)));
  for (const DataPoint* point : points) {
    T_sum += point->T_K;
    const bool vapour = !point->y.empty() && options.objective == Objective::maximum_likelihood;
    measured += 1 + (vapour ? static_cast<int>(point->present().size()) - 1 : 0);
  }
  const ParameterPlan plan =
      plan_parameters(options, result.substances, result.points == 0 ? 300 : T_sum / result.points);
  check_count(result, plan.free.size(), measured);
  result.parameters = plan.all;
  result.comparisons = measured;
  result.degrees_of_freedom = static_cast<double>(measured) - static_cast<double>(plan.free.size());

  Mixture mixture(result.substances, make_activity_model_to_fit(options.model, result.substances), {},
                  options.vapour);
  FitProblem problem(std::move(mixture), plan, options.objective, points, liquids, options.robust);
  std::vector<Descent> descents;
  if (options.progress) options.progress->expected += options.starts;
  for (const std::vector<double>& start : starting_points(plan, options.starts)) {
    if (options.progress) ++options.progress->done;
    if (auto descent = problem.descend(start)) descents.push_back(std::move(*descent));
  }
  if (descents.empty()) {
    throw CalculationError(
        fmt::format("none of {} starting points led to a fit; are the pressures, temperatures and "
                    "units of the data right?",
                    options.starts));
  }
  auto groups = distinct(std::move(descents));
  if (problem.with_two_liquids()) {
    // To first order until then, the minima may stand in another order.
    auto minima = polished_minima(problem, groups);
    if (!minima.empty()) groups = std::move(minima);
  }
  const auto polished = problem.polish(groups.front().first);
  if (!polished) {
    throw CalculationError(
        "the best of the starting points led into a flat valley without an end: the data do not "
        "determine the parameters. Hold one of them (--hold), or use fewer coefficients (--form)");
  }
  groups.front().first = *polished;
  const Descent& best = groups.front().first;
  for (const auto& [descent, count] : groups) {
    if (!descent.converged) continue;
    LocalMinimum minimum{descent.scaled, descent.objective, count};
    for (std::size_t p = 0; p < plan.free.size(); ++p) minimum.values[p] *= plan.free[p].scale;
    result.minima.push_back(std::move(minimum));
  }
  result.objective = best.objective;
  set_values(result, plan, best);
  set_covariance(result, plan, problem.information(best));
  result.evaluations = problem.context().mixture().evaluations();

  problem.context().set(best.scaled.data());
  fill_residuals(result, sets, problem.context(), best);
  fill_liquids(result, sets, problem, best);
  fill_ranges(result);
  fill_rms(result, sets);
  fill_tests(result);
  result.aicc = aicc(result, static_cast<double>(plan.free.size()));
  set_intervals(result, plan, problem, best);
  follow_ties(result);
  add_fit_notices(result, sets);
  return result;
}

}  // namespace

Fit fit(const std::vector<DataSet>& given, const FitOptions& options) {
  try {
    return fit_as_stated(given, options);
  } catch (const CalculationError& error) {
    // Whatever stopped it follows from data that cannot be right.
    for (const DataSet& set : given) {
      const Notices notices = implausible(set);
      if (!notices.empty())
        throw CalculationError(
            fmt::format("{}. Nothing was fitted: {}", notices.begin()->text, error.what()));
    }
    throw;
  }
}

AzeotropeUncertainty azeotrope_uncertainty(const Fit& fit, Sought sought, const Azeotrope& azeotrope) {
  Mixture mixture = fit.mixture();
  const AzeotropeSensitivity sensitivity = azeotrope_sensitivity(mixture, sought, azeotrope);
  const auto fitted = fit.fitted();
  const Eigen::MatrixXd covariance = to_eigen(fit.fitted_covariance());
  Eigen::VectorXd dx(fitted.size()), dheld(fitted.size());
  for (std::size_t p = 0; p < fitted.size(); ++p) {
    const double basis = TemperatureFunction::basis(fitted[p]->coefficient, azeotrope.T_K);
    dx[static_cast<Eigen::Index>(p)] = sensitivity.dx1[fitted[p]->term_index] * basis;
    dheld[static_cast<Eigen::Index>(p)] = sensitivity.dheld[fitted[p]->term_index] * basis;
  }
  AzeotropeUncertainty result;
  result.u_x1 = std::sqrt(dx.dot(covariance * dx));
  const double u = std::sqrt(dheld.dot(covariance * dheld));
  (sought == Sought::temperature ? result.u_T_K : result.u_P_Pa) =
      sought == Sought::temperature ? u : u * azeotrope.P_Pa;
  return result;
}

}  // namespace jampot
