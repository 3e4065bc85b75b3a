// Three substances and more.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/regression/statistics.hpp"
#include "tests.hpp"

namespace jampot::consistency {
namespace {

using Point = const DataPoint*;

double apart(Point a, Point b) {
  double sum = 0;
  for (std::size_t i = 0; i < a->x.size(); ++i) sum += std::pow(a->x[i] - b->x[i], 2);
  return std::sqrt(sum);
}

// From each point to the next: always to the nearest that was not visited.
std::vector<Point> path(std::vector<Point> rest) {
  std::vector<Point> order{rest.front()};
  rest.erase(rest.begin());
  while (!rest.empty()) {
    const auto next = std::min_element(rest.begin(), rest.end(), [&](Point a, Point b) {
      return apart(order.back(), a) < apart(order.back(), b);
    });
    order.push_back(*next);
    rest.erase(next);
  }
  return order;
}

ConsistencyStep step(Point from, Point to, MeasuredGamma& gamma, const std::vector<Substance>& substances) {
  const std::vector<double> c = gamma.ln_gamma(*from), d = gamma.ln_gamma(*to);
  const std::size_t n = from->x.size(), last = n - 1;
  ConsistencyStep result{.from = from->line, .to = to->line};
  std::vector<double> weight(n);
  double weights = 0;
  for (std::size_t i = 0; i < n; ++i) {
    weight[i] = from->x[i] + to->x[i];
    result.difference += weight[i] * (d[i] - c[i]);
    weights += weight[i];
  }
  // To first order, with the vapour's part of ln gamma held; the last fraction follows from the others.
  const auto add = [&](Point point, double sign) {
    double variance = 0, by_T = 0;
    const auto by_x = [&](std::size_t i) { return (d[i] - c[i]) - sign * weight[i] / point->x[i]; };
    const auto by_y = [&](std::size_t i) { return sign * weight[i] / point->y[i]; };
    for (std::size_t i = 0; i < last; ++i) {
      variance += std::pow((by_x(i) - by_x(last)) * point->u_x, 2);
      variance += std::pow((by_y(i) - by_y(last)) * point->u_y, 2);
    }
    for (std::size_t i = 0; i < n; ++i)
      by_T += weight[i] * substances[i].vapour_pressure->dln_P_dT(point->T_K);
    variance += std::pow(by_T * point->u_T_K, 2) + std::pow(weights * point->u_P_Pa / point->P_Pa, 2);
    return variance;
  };
  result.u = std::sqrt(add(from, -1) + add(to, 1));
  return result;
}

// The integral of sum x d ln gamma along the whole path, by trapezoids: a wrong calibration that every step
// hides in its own uncertainty adds up here.
ConsistencyTest path_area(const std::vector<Point>& order, MeasuredGamma& gamma, const DataSet& data) {
  const std::size_t n = data.substances.size(), last = order.size() - 1;
  double sum = 0, variance = 0, travelled = 0;
  std::vector<double> before;
  for (std::size_t k = 0; k <= last; ++k) {
    const std::vector<double> here = gamma.ln_gamma(*order[k]);
    for (std::size_t i = 0; i < n && k > 0; ++i) {
      sum += (order[k]->x[i] + order[k - 1]->x[i]) / 2 * (here[i] - before[i]);
      travelled += std::abs((order[k]->x[i] + order[k - 1]->x[i]) / 2 * (here[i] - before[i]));
    }
    // What a point's ln gamma_i counts in the sum.
    const auto weight = [&](std::size_t i) {
      return ((k > 0 ? order[k - 1]->x[i] + order[k]->x[i] : 0) -
              (k < last ? order[k]->x[i] + order[k + 1]->x[i] : 0)) /
             2;
    };
    const DataPoint& point = *order[k];
    double by_T = 0, by_P = 0;
    for (std::size_t i = 0; i < n; ++i) {
      by_T += weight(i) * data.substances[i].vapour_pressure->dln_P_dT(point.T_K);
      by_P += weight(i);
      if (i + 1 == n) continue;
      variance += std::pow((weight(i) / point.y[i] - weight(n - 1) / point.y[n - 1]) * point.u_y, 2);
      variance += std::pow((weight(i) / point.x[i] - weight(n - 1) / point.x[n - 1]) * point.u_x, 2);
    }
    variance += std::pow(by_T * point.u_T_K, 2) + std::pow(by_P * point.u_P_Pa / point.P_Pa, 2);
    before = here;
  }
  ConsistencyTest test{.name = "area", .value = 100 * std::abs(sum) / travelled, .limit = 10, .unit = "%"};
  test.u = 100 * std::sqrt(variance) / travelled;
  const bool decided = std::abs(test.value - test.limit) > test.u;
  if (decided) test.verdict = test.value <= test.limit ? Verdict::passed : Verdict::failed;
  test.meaning = fmt::format(
      "along the path through all points the sum of x d ln gamma is {:.1f} +- {:.1f} % of the "
      "sum of its parts{}{}",
      test.value, test.u, decided ? "" : ": the limit is not decisive",
      isobaric(data.kind) ? " (isobaric: without the term of the excess enthalpy)" : "");
  return test;
}

// The best of three models fitted to the boiling points alone.
std::optional<Fit> boiling_fit(const DataSet& data, const VapourChoice& vapour) {
  DataSet boiling = data;
  boiling.kind = isobaric(data.kind) ? DataKind::tx : DataKind::px;
  for (DataPoint& point : boiling.points) point.y.clear();
  std::optional<Fit> best;
  for (const char* model : {"margules", "wilson", "nrtl"}) {
    FitOptions options;
    options.model = model;
    options.objective = isobaric(data.kind) ? Objective::bubble_temperature : Objective::bubble_pressure;
    options.vapour = vapour;
    options.starts = 4;
    try {
      Fit fitted = fit({boiling}, options);
      if (!best || fitted.objective < best->objective) best = std::move(fitted);
    } catch (const std::runtime_error&) {
      continue;  // too few points, or a substance lacks what the model needs
    }
  }
  return best;
}

}  // namespace

Consistency check_more(const DataSet& data, const ConsistencyOptions& options) {
  MeasuredGamma gamma(data.substances, options.vapour);
  Consistency result;
  std::vector<Point> points = mixed_points(data);
  std::erase_if(points, [](Point point) { return point->present().size() < point->x.size(); });
  if (points.size() < 5)
    throw CalculationError(
        fmt::format("{} with all {} substances, too few for a test of consistency; five are needed",
                    counted(points.size(), "point"), data.substances.size()));
  result.used = points.size();
  const std::vector<Point> order = path(points);
  constexpr double neighbours = 0.3;
  int far = 0;
  double mean = 0;
  for (std::size_t k = 1; k < order.size(); ++k) {
    if (apart(order[k - 1], order[k]) > neighbours) continue;
    result.steps.push_back(step(order[k - 1], order[k], gamma, data.substances));
    const ConsistencyStep& one = result.steps.back();
    far += std::abs(one.difference) > 2 * one.u;
    mean += std::abs(one.difference);
  }
  ConsistencyTest steps{.name = "McDermott-Ellis", .unit = "% of steps"};
  const auto count = static_cast<double>(result.steps.size());
  if (result.steps.empty()) {
    steps.meaning = "no two points lie near each other";
  } else {
    constexpr double beyond_two = 0.0455;  // of a normal distribution
    const double allowed = binomial_quantile(0.95, count, beyond_two);
    steps.value = 100 * far / count;
    steps.limit = 100 * allowed / count;
    steps.verdict = steps.value <= steps.limit ? Verdict::passed : Verdict::failed;
    steps.meaning = fmt::format(
        "from point to point the sum of (x + x') d ln gamma, zero by Gibbs and Duhem, is {:.3f} on average; "
        "more than two standard uncertainties off: {} of {} steps{}",
        mean / count, far, result.steps.size(),
        isobaric(data.kind) ? " (isobaric: without the term of the excess enthalpy)" : "");
  }
  result.tests.push_back(std::move(steps));

  result.tests.push_back(path_area(order, gamma, data));

  ConsistencyTest point{.name = "point", .limit = 0.01, .unit = "mole fraction"};
  if (const auto fitted = boiling_fit(data, options.vapour)) {
    double sum = 0;
    int compared = 0;
    for (const ResidualRow& row : fitted->residuals) {
      if (!row.used()) continue;
      const auto number = &row - fitted->residuals.data();
      const DataPoint& measured = data.points[static_cast<std::size_t>(number)];
      for (std::size_t i = 0; i < row.y.size(); ++i, ++compared) sum += std::abs(row.y[i] - measured.y[i]);
    }
    point.value = sum / compared;
    point.verdict = point.value <= point.limit ? Verdict::passed : Verdict::failed;
    point.meaning =
        fmt::format("vapours calculated from the boiling points alone ({}) are off by {:.4f} on average",
                    fitted->options.model, point.value);
  } else {
    point.meaning = "no model could be fitted to the boiling points alone";
  }
  result.tests.push_back(std::move(point));
  result.tests.push_back(end_points(data, gamma));
  return result;
}

}  // namespace jampot::consistency
