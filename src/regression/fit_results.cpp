#include "fit_results.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "../basis/dense.hpp"
#include "../basis/eigen.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/liquid_comparison.hpp"
#include "jampot/regression/statistics.hpp"
#include "mean_square.hpp"

namespace jampot {

void check_count(const Fit& result, std::size_t free, int measured) {
  if (measured > static_cast<int>(free)) return;
  throw RequestError(fmt::format(
      "{} with {} to compare cannot determine {} parameters; "
      "more points are needed, or some parameters held (pure substances do not count)",
      counted(result.points, "mixed point"),
      counted(static_cast<std::size_t>(measured), "measured quantity", "measured quantities"), free));
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

double scale_of(const Fit& fit) {
  const double scatter = fit.objective / std::max(1.0, fit.degrees_of_freedom);
  if (fit.options.objective != Objective::maximum_likelihood) return scatter;
  return fit.options.errors == Errors::scatter ? std::max(1.0, scatter) : 1;
}

void set_covariance(Fit& result, const ParameterPlan& plan, const Eigen::MatrixXd& information) {
  const Eigen::Index free = information.rows();
  // Judged after scaling to unit diagonal, so that units play no part.
  const Eigen::VectorXd scale = information.diagonal().cwiseMax(1e-300).cwiseSqrt().cwiseInverse();
  const SymmetricEigen eigen = symmetric_eigen(scaled_both_sides(information, scale));
  if (!(eigen.values[0] > 1e-13)) {
    throw CalculationError(
        "the data cannot tell the fitted parameters apart: a combination of them has no influence on "
        "any measured quantity. Hold one of them (`hold`), or use fewer coefficients of temperature "
        "(`form`).");
  }
  const Eigen::MatrixXd inverse =
      product(eigen.vectors * eigen.values.cwiseInverse().asDiagonal(), eigen.vectors.transpose());
  Eigen::VectorXd unit(free);
  for (Eigen::Index p = 0; p < free; ++p) unit[p] = scale[p] * plan.free[static_cast<std::size_t>(p)].scale;
  Eigen::MatrixXd covariance = scaled_both_sides(inverse, unit);
  // Where no uncertainty is taken as known, the scatter of the points sets the scale.
  covariance *= scale_of(result);
  const Eigen::VectorXd error = covariance.diagonal().cwiseSqrt();
  result.covariance = from_eigen(covariance);
  result.correlation = from_eigen(scaled_both_sides(covariance, error.cwiseInverse()));
  Eigen::Index p = 0;
  for (FittedParameter& parameter : result.parameters) {
    if (parameter.is_free()) parameter.std_error = error[p++];
  }
}

// The deviations of ln P and y at measured T and x, each over the standard uncertainty that T, P, x and y
// give it.
void standardise(FitContext& context, ResidualRow& row) {
  const DataPoint point = context.without_offsets(row.measured);
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

namespace {

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
  DataPoint point = context.without_offsets(measured);
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

}  // namespace

void fill_residuals(Fit& result, const std::vector<DataSet>& sets, FitContext& context, const Descent& best) {
  std::size_t used = 0;
  for (std::size_t s = 0; s < sets.size(); ++s) {
    if (!vapour_liquid(sets[s].kind)) continue;
    for (const DataPoint& point : sets[s].points) {
      ResidualRow row;
      row.set = s;
      row.measured = row.adjusted = point;
      row.pure = point.is_pure() && result.options.pure != PurePressures::fit;
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
      if (const LiquidValue* value = describe(row.kind).value) {
        row.model = value->by_model(model, point);
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

void fill_lack_of_fit(Fit& result) {
  if (result.options.objective != Objective::maximum_likelihood || !(result.degrees_of_freedom > 0)) return;
  // One place: the same composition at the same held quantity of the same set.
  std::vector<std::vector<const ResidualRow*>> places;
  for (const ResidualRow& row : result.residuals) {
    if (!row.used() || row.pure) continue;
    const auto same = [&](const std::vector<const ResidualRow*>& place) {
      const DataPoint &a = place.front()->measured, &b = row.measured;
      const bool held = result.isobaric[row.set] ? std::abs(a.P_Pa - b.P_Pa) <= b.u_P_Pa
                                                 : std::abs(a.T_K - b.T_K) <= b.u_T_K;
      constexpr double rounding = 1e-9;
      bool composition = a.y.empty() == b.y.empty();
      for (std::size_t i = 0; i < a.x.size(); ++i)
        composition = composition && std::abs(a.x[i] - b.x[i]) < rounding;
      return place.front()->set == row.set && held && composition;
    };
    const auto found = std::find_if(places.begin(), places.end(), same);
    if (found == places.end())
      places.push_back({&row});
    else
      found->push_back(&row);
  }
  LackOfFit lack;
  double pure = 0;
  const auto add = [&](const std::vector<const ResidualRow*>& place, const auto& value) {
    double mean = 0;
    for (const ResidualRow* row : place) mean += value(*row) / static_cast<double>(place.size());
    for (const ResidualRow* row : place) pure += (value(*row) - mean) * (value(*row) - mean);
    lack.pure_degrees += static_cast<double>(place.size()) - 1;
  };
  for (const auto& place : places) {
    if (place.size() < 2) continue;
    ++lack.places;
    add(place, [](const ResidualRow& row) { return row.standardised_P; });
    for (std::size_t k = 0; k < place.front()->standardised_y.size(); ++k)
      add(place, [k](const ResidualRow& row) { return row.standardised_y[k]; });
  }
  lack.lack_degrees = result.degrees_of_freedom - lack.pure_degrees;
  if (!(lack.pure_degrees > 0 && lack.lack_degrees > 0)) return;
  lack.pure_error = pure / lack.pure_degrees;
  lack.lack = std::max(0.0, result.objective - pure) / lack.lack_degrees;
  if (!(lack.pure_error > 0)) return;
  lack.probability =
      variance_ratio_probability(lack.lack / lack.pure_error, lack.lack_degrees, lack.pure_degrees);
  result.lack_of_fit = lack;
}

double aicc(const Fit& fit, double k) {
  const double n = fit.comparisons;
  const bool known = fit.options.objective == Objective::maximum_likelihood;
  if (!known) k += 1;  // the scale of the scatter
  const double misfit = known ? fit.objective : n * std::log(std::max(fit.objective, 1e-300) / n);
  return n - k - 1 > 0 ? misfit + 2 * k + 2 * k * (k + 1) / (n - k - 1) : HUGE_VAL;
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

}  // namespace jampot
