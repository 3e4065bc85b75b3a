#include "jampot/regression/fit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>
#include <cmath>
#include <filesystem>
#include <numeric>

#include "fit_notices.hpp"
#include "fit_problem.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

constexpr std::array<std::string_view, 3> objective_names{"maximum-likelihood", "bubble-pressure",
                                                          "bubble-temperature"};

std::vector<const DataPoint*> mixed_points(const std::vector<DataSet>& sets) {
  std::vector<const DataPoint*> points;
  for (const DataSet& set : sets) {
    for (const DataPoint& point : set.points) {
      if (!point.is_pure()) points.push_back(&point);
    }
  }
  return points;
}

void check_sets(const std::vector<DataSet>& sets) {
  if (sets.empty()) throw RequestError("no data to fit");
  for (const DataSet& set : sets) {
    for (std::size_t i = 0; i < set.substances.size(); ++i) {
      if (set.substances.size() != sets.front().substances.size() ||
          set.substances[i].name != sets.front().substances[i].name) {
        throw RequestError(
            fmt::format("{} and {} are about different substances, or list them in another order; fit "
                        "them one by one",
                        sets.front().name, set.name));
      }
    }
  }
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
    if (parameter.held) continue;
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
  result.covariance = unit.asDiagonal() * inverse * unit.asDiagonal();
  // Where no uncertainty is taken as known, the scatter of the points sets the scale.
  if (result.options.objective != Objective::maximum_likelihood) {
    result.covariance *= result.objective / std::max(1.0, result.degrees_of_freedom);
  }
  const Eigen::VectorXd error = result.covariance.diagonal().cwiseSqrt();
  result.correlation =
      error.cwiseInverse().asDiagonal() * result.covariance * error.cwiseInverse().asDiagonal();
  Eigen::Index p = 0;
  for (FittedParameter& parameter : result.parameters) {
    if (!parameter.held) parameter.std_error = error[p++];
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
  for (const double slope : bubble.dln_P_dx) variance += square(slope * point.u_x);
  row.standardised_P = std::log(point.P_Pa / bubble.P_Pa) / std::sqrt(variance);
  for (std::size_t i = 0; !point.y.empty() && i + 1 < n; ++i) {
    double y_variance = square(point.u_y) + square(bubble.dy_dT[i] * point.u_T_K);
    for (std::size_t k = 0; k + 1 < n; ++k) y_variance += square(bubble.dy_dx[i * (n - 1) + k] * point.u_x);
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
}

DataPoint adjusted_point(FitContext& context, const DataPoint& measured, const double* adjustment) {
  DataPoint point = measured;
  const std::size_t n = point.x.size();
  point.x[n - 1] = 1;
  for (std::size_t k = 0; k + 1 < n; ++k) {
    point.x[k] += point.u_x * adjustment[k];
    point.x[n - 1] -= point.x[k];
  }
  point.T_K += point.u_T_K * adjustment[n - 1];
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
    for (const DataPoint& point : sets[s].points) {
      ResidualRow row;
      row.set = s;
      row.measured = row.adjusted = point;
      row.pure = point.is_pure();
      predict(context, sets[s].kind, row);
      if (!row.pure) {
        if (!best.adjustments.empty()) {
          row.adjusted = adjusted_point(context, point, &best.adjustments[used * point.x.size()]);
        }
        standardise(context, row);
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
    if (row.pure) continue;
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
    if (!row.pure) rows.push_back(&row);
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
  for (const ResidualRow& row : result.residuals) {
    if (row.pure) continue;
    auto& T = result.T_range_K;
    auto& P = result.P_range_Pa;
    T = {std::min(T[0], row.measured.T_K), std::max(T[1], row.measured.T_K)};
    P = {std::min(P[0], row.measured.P_Pa), std::max(P[1], row.measured.P_Pa)};
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

std::vector<const FittedParameter*> Fit::free() const {
  std::vector<const FittedParameter*> list;
  for (const FittedParameter& parameter : parameters) {
    if (!parameter.held) list.push_back(&parameter);
  }
  return list;
}

std::string Fit::source() const {
  std::vector<std::string> files;
  for (const std::string& name : data) files.push_back(std::filesystem::path(name).filename().string());
  return fmt::format("fitted to {} ({} points)", joined(files, ", "), points);
}

std::vector<PairParameters> Fit::pairs() const {
  const std::size_t terms = terms_for_fit(options.model).size();
  std::vector<PairParameters> list;
  std::size_t p = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j, ++p) {
      PairParameters pair = neutral_pair(options.model, substances[i], substances[j]);
      for (auto& [name, function] : pair.terms) function = {};
      pair.range_K = T_range_K;
      pair.source = source();
      pair.fitted_to = "vle";
      for (const FittedParameter& parameter : parameters) {
        if (parameter.term_index / terms == p)
          pair.terms[parameter.term][parameter.coefficient] = parameter.value;
      }
      list.push_back(std::move(pair));
    }
  }
  return list;
}

Mixture Fit::mixture() const {
  ParameterCollection collection;
  for (const PairParameters& pair : pairs()) collection.add(pair);
  return {substances, options.model, collection};
}

Fit fit(const std::vector<DataSet>& sets, const FitOptions& options) {
  check_sets(sets);
  const std::vector<const DataPoint*> points = mixed_points(sets);
  Fit result;
  result.options = options;
  result.substances = sets.front().substances;
  result.points = static_cast<int>(points.size());
  for (const DataSet& set : sets) {
    result.data.push_back(set.name);
    result.notices.add(set.notices);
  }
  double T_sum = 0;
  int measured = 0;  // comparisons: one for each bubble point, n - 1 for each analysed vapour
  for (const DataPoint* point : points) {
    T_sum += point->T_K;
    const bool vapour = !point->y.empty() && options.objective == Objective::maximum_likelihood;
    measured += 1 + (vapour ? static_cast<int>(point->x.size()) - 1 : 0);
  }
  const ParameterPlan plan = plan_parameters(
      options, result.substances, points.empty() ? 300 : T_sum / static_cast<double>(points.size()));
  check_count(result, plan.free.size(), measured);
  result.parameters = plan.all;
  result.degrees_of_freedom = static_cast<double>(measured) - static_cast<double>(plan.free.size());

  Mixture mixture(result.substances, make_activity_model_to_fit(options.model, result.substances), {});
  FitProblem problem(std::move(mixture), plan, options.objective, points);
  std::vector<Descent> descents;
  for (const std::vector<double>& start : starting_points(plan, options.starts)) {
    if (auto descent = problem.descend(start)) descents.push_back(std::move(*descent));
  }
  if (descents.empty()) {
    throw CalculationError(
        fmt::format("none of {} starting points led to a fit; are the pressures, temperatures and "
                    "units of the data right?",
                    options.starts));
  }
  auto groups = distinct(std::move(descents));
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
  fill_ranges(result);
  fill_rms(result, sets);
  fill_tests(result);
  add_fit_notices(result, sets);
  return result;
}

AzeotropeUncertainty azeotrope_uncertainty(const Fit& fit, Sought sought, const Azeotrope& azeotrope) {
  Mixture mixture = fit.mixture();
  const AzeotropeSensitivity sensitivity = azeotrope_sensitivity(mixture, sought, azeotrope);
  const auto free = fit.free();
  Eigen::VectorXd dx(free.size()), dheld(free.size());
  for (std::size_t p = 0; p < free.size(); ++p) {
    const double basis = TemperatureFunction::basis(free[p]->coefficient, azeotrope.T_K);
    dx[static_cast<Eigen::Index>(p)] = sensitivity.dx1[free[p]->term_index] * basis;
    dheld[static_cast<Eigen::Index>(p)] = sensitivity.dheld[free[p]->term_index] * basis;
  }
  AzeotropeUncertainty result;
  result.u_x1 = std::sqrt(dx.dot(fit.covariance * dx));
  const double u = std::sqrt(dheld.dot(fit.covariance * dheld));
  (sought == Sought::temperature ? result.u_T_K : result.u_P_Pa) =
      sought == Sought::temperature ? u : u * azeotrope.P_Pa;
  return result;
}

}  // namespace jampot
