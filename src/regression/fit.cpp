#include "jampot/regression/fit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>
#include <cmath>

#include "fit_notices.hpp"
#include "fit_problem.hpp"
#include "fit_results.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/plausibility.hpp"

namespace jampot {
namespace {

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
    const bool two_liquids = family_of(kind) == DataFamily::two_liquids;
    measured += two_liquids ? static_cast<int>(point->present().size()) : 1;
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
        "determine the parameters. Hold one of them (`hold`), or use fewer coefficients (`form`)");
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

}  // namespace jampot
