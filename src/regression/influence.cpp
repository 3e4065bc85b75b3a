#include "influence.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/regression/statistics.hpp"

namespace jampot {
namespace {

Influence influence_of(const PointInformation& point, const Eigen::MatrixXd& information,
                       const Eigen::MatrixXd& inverse, const ParameterPlan& plan) {
  Influence result;
  result.leverage = (inverse * point.information).trace();
  // Without the point the others' gradient is the opposite of its own, and so is the way to their minimum.
  const Eigen::MatrixXd rest = information - point.information;
  const Eigen::VectorXd change = solved_carefully(rest, point.gradient);
  result.cook = quadratic_form(change, information) / static_cast<double>(change.size());
  for (Eigen::Index p = 0; p < change.size(); ++p)
    result.change.push_back(change[p] * plan.free[static_cast<std::size_t>(p)].scale);
  return result;
}

// The points of all sets but one.
FitTask without(const FitTask& task, const DataSet& set) {
  const auto in_set = [&](const DataPoint* point) {
    return !set.points.empty() && point >= &set.points.front() && point <= &set.points.back();
  };
  FitTask rest = task;
  std::erase_if(rest.points, in_set);
  std::erase_if(rest.liquids, [&](const auto& liquid) { return in_set(liquid.second); });
  return rest;
}

double quantities(const FitTask& task) {
  double sum = 0;
  for (const DataPoint* point : task.points)
    sum += 1 + (point->y.empty() ? 0 : static_cast<double>(point->present().size()) - 1);
  for (const auto& [kind, point] : task.liquids)
    sum += family_of(kind) == DataFamily::two_liquids ? static_cast<double>(point->present().size()) : 1;
  return sum;
}

// Of the others alone, fitted anew.
std::optional<double> objective_by_fit(const FitTask& rest, const Descent& best) {
  const auto found = rest.problem()->polish({best.scaled, {}, 0, false});
  return found ? std::optional(found->objective) : std::nullopt;
}

// The same to first order, from the changes that the points of the set would make: of very many sets.
std::optional<double> objective_by_slope(const Fit& result, std::size_t set, double own,
                                         const Eigen::MatrixXd& information,
                                         const std::vector<PointInformation>& points) {
  const auto size = information.rows();
  Eigen::MatrixXd rest = information;
  Eigen::VectorXd gradient = Eigen::VectorXd::Zero(size);
  std::size_t next = 0;
  const auto take = [&](std::size_t of_set) {
    const PointInformation& point = points.at(next++);
    if (of_set != set) return;
    rest -= point.information;
    gradient += point.gradient;
  };
  for (const ResidualRow& row : result.residuals)
    if (row.used()) take(row.set);
  for (const LiquidRow& row : result.liquid_residuals)
    if (row.measured.used()) take(row.set);
  if (!(symmetric_eigen(rest).values[0] > 0)) return std::nullopt;
  return result.objective - own - gradient.dot(solved_carefully(rest, gradient));
}

}  // namespace

void fill_influence(Fit& result, const FitTask& task, FitProblem& problem, const Descent& best) {
  const auto points = problem.informations(best);
  const Eigen::MatrixXd information = problem.information(best);
  const Eigen::MatrixXd inverse = inverse_of(information);
  std::size_t next = 0;
  for (ResidualRow& row : result.residuals) {
    if (!row.used()) continue;
    row.influence = influence_of(points.at(next), information, inverse, task.plan);
    row.chi_square = points.at(next++).square;
  }
  for (LiquidRow& row : result.liquid_residuals) {
    if (row.measured.used()) row.influence = influence_of(points.at(next++), information, inverse, task.plan);
  }
}

void fill_sets(Fit& result, const FitTask& task, const std::vector<DataSet>& sets, FitProblem& problem,
               const Descent& best) {
  if (sets.size() < 2 || result.options.objective != Objective::maximum_likelihood) return;
  const auto free = static_cast<double>(task.plan.free.size());
  constexpr std::size_t most_refitted = 8;
  const bool many = sets.size() > most_refitted;
  const auto points = many ? problem.informations(best) : std::vector<PointInformation>();
  const Eigen::MatrixXd information = problem.information(best);
  for (std::size_t s = 0; s < sets.size(); ++s) {
    SetAgreement set{.name = sets[s].name};
    double leverage = 0;
    for (const ResidualRow& row : result.residuals) {
      if (row.set != s || !row.used()) continue;
      ++set.points;
      set.chi_square += row.chi_square;
      leverage += row.influence.leverage;
    }
    for (const LiquidRow& row : result.liquid_residuals) {
      if (row.set != s || !row.measured.used()) continue;
      ++set.points;
      set.chi_square += row.distance() * row.distance();
      leverage += row.influence.leverage;
    }
    const FitTask rest = without(task, sets[s]);
    set.degrees_of_freedom = quantities(task) - quantities(rest) - leverage;
    if (set.degrees_of_freedom > 0)
      set.probability = chi_square_probability(set.chi_square, set.degrees_of_freedom);
    const double others = quantities(rest) - free;
    if (set.points > 0 && others >= 1) {
      const auto left = !many ? objective_by_fit(rest, best)
                              : objective_by_slope(result, s, set.chi_square, information, points);
      if (left) set.without = *left / others;
    }
    result.sets.push_back(std::move(set));
  }
}

}  // namespace jampot
