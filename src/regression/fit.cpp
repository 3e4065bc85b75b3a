#include "jampot/regression/fit.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "explore.hpp"
#include "fit_near.hpp"
#include "fit_notices.hpp"
#include "fit_results.hpp"
#include "fit_task.hpp"
#include "impossible.hpp"
#include "influence.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/plausibility.hpp"
#include "knowledge_residual.hpp"
#include "misread.hpp"
#include "pure_pressures.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {
namespace {

std::vector<const DataPoint*> boiling_points(const std::vector<DataSet>& sets, bool with_pure) {
  std::vector<const DataPoint*> points;
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind)) continue;
    for (const DataPoint& point : set.points) {
      if (point.used() && (with_pure || !point.is_pure())) points.push_back(&point);
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

// Of minima, the best first, the one that can be the liquid of the data: the first against which nothing
// speaks, unless it lies so much higher that the data do. Those before it are set aside with the reason.
std::size_t possible(FitProblem& problem, const std::vector<std::pair<Descent, int>>& minima,
                     const std::vector<DataSet>& sets, double degrees_of_freedom,
                     std::vector<std::string>& reasons) {
  constexpr double worse = 0.25, noise = 10;
  const double least = minima.front().first.objective;
  const double overdispersion = std::max(1.0, least / std::max(1.0, degrees_of_freedom));
  reasons.assign(minima.size(), "");
  for (std::size_t k = 0; k < minima.size(); ++k) {
    if (minima[k].first.objective > least + std::max(worse * least, noise * overdispersion)) break;
    problem.context().set(minima[k].first.scaled.data());
    reasons[k] = impossible(problem.context().mixture().activity(), sets);
    if (reasons[k].empty()) return k;
  }
  reasons.assign(minima.size(), "");
  return 0;
}

void check_knowledge(const FitOptions& options, const std::vector<Substance>& substances,
                     const ParameterPlan& plan) {
  if (options.no_split && substances.size() != 2)
    throw RequestError("`no_split` is there for two substances");
  for (const Prior& prior : options.priors) {
    if (!(std::isfinite(prior.value) && prior.u > 0 && std::isfinite(prior.u)))
      throw RequestError(fmt::format("the prior of {} needs a value and a positive uncertainty", prior.name));
    const bool known = std::any_of(plan.all.begin(), plan.all.end(), [&](const FittedParameter& parameter) {
      return parameter.is_free() && is_about(prior, parameter);
    });
    if (known) continue;
    std::vector<std::string> names;
    for (const FittedParameter& parameter : plan.all)
      if (parameter.is_free()) names.push_back(parameter.name);
    throw RequestError(
        fmt::format("no fitted parameter is called '{}'; there are {}", prior.name, joined(names, ", ")));
  }
  for (const KnownPoint& point : options.known) {
    demand_known_point(point, substances.size());
    const bool constant = std::all_of(options.form.begin(), options.form.end(), [](Coefficient coefficient) {
      return coefficient == Coefficient::constant;
    });
    if (constant && point.what == SpecialPoint::critical_solution)
      throw RequestError(
          "parameters that do not change with temperature have no critical solution temperature: ask for "
          "another `form`, as inverse_T");
  }
  const bool likelihood = options.objective == Objective::maximum_likelihood;
  if (!options.known.empty() && !likelihood)
    throw RequestError(
        "a known point is weighed against stated uncertainties: it needs the objective maximum-likelihood");
  if ((options.u_offset_T_K > 0 || options.u_offset_P > 0) && !likelihood)
    throw RequestError("offsets of data sets are fitted with the objective maximum-likelihood alone");
  if (!options.priors.empty() && !likelihood)
    throw RequestError(
        "a prior is weighed against stated uncertainties: it needs the objective maximum-likelihood");
}

// Says where the vapour pressures of the data's own pure points would move a parameter.
void tell_own_pressures(Fit& result, const FitTask& task, const std::vector<DataSet>& sets,
                        const Descent& best) {
  const bool pure_points = std::any_of(sets.begin(), sets.end(), [](const DataSet& set) {
    return vapour_liquid(set.kind) &&
           std::any_of(set.points.begin(), set.points.end(),
                       [](const DataPoint& point) { return point.used() && point.is_pure(); });
  });
  if (task.options.pure != PurePressures::bank || !pure_points) return;
  FitTask other = task;
  other.substances = with_factors(task.substances, own_factors(sets));
  const auto found = other.problem()->polish(best);
  if (!found) return;
  std::size_t p = 0;
  for (const FittedParameter& parameter : result.parameters) {
    if (!parameter.is_free()) continue;
    const double value = found->scaled[p] * task.plan.free[p].scale;
    ++p;
    constexpr double much = 2;  // standard errors
    const double moved = std::abs(value - parameter.value) / parameter.std_error;
    if (!(moved > much)) continue;
    result.notices.add(
        "own-vapour-pressures",
        fmt::format(
            "with vapour pressures scaled to the pure points of the data {} would be {:.5g} instead of "
            "{:.5g}, "
            "{:.1f} standard errors away, and the objective {:.5g} instead of {:.5g}: `pure` own takes them, "
            "`pure` fit weighs both",
            parameter.name, value, parameter.value, moved, found->objective, best.objective));
    return;
  }
}

// What was fitted of the vapour pressures goes into the substances of the result.
void take_factors(Fit& result) {
  std::vector<double> factors(result.substances.size(), 1.0);
  const std::size_t terms = result.substances.size() * (result.substances.size() - 1) / 2 *
                            terms_for_fit(result.options.model).size();
  for (const FittedParameter& parameter : result.parameters) {
    if (parameter.term != ScaledPureModel::term_name) continue;
    const std::size_t i = parameter.term_index - terms;
    factors[i] = std::exp(parameter.value);
    result.pure_factors.push_back({result.substances[i].name, factors[i], factors[i] * parameter.std_error});
  }
  result.substances = with_factors(std::move(result.substances), factors);
}

// Offsets go out of the list of what is fitted into a list of their own beside it.
void take_offsets(Fit& result) {
  for (const FittedParameter& parameter : result.parameters) {
    if (!is_offset(parameter)) continue;
    const std::string name = parameter.name.substr(parameter.term.size() + std::string(" in ").size());
    result.offsets.push_back({name, parameter.term == offset_of_P, parameter.value, parameter.std_error});
  }
}

// What is fitted beside the model is known beforehand to an uncertainty.
FitOptions with_own_priors(FitOptions options) {
  if (!(options.u_offset_T_K >= 0 && options.u_offset_T_K < 20))
    throw RequestError("the uncertainty of an offset of temperature lies between 0 and 20 K");
  if (!(options.u_offset_P >= 0 && options.u_offset_P < 0.2))
    throw RequestError("the uncertainty of an offset of pressure lies between 0 and 20 %");
  if (options.u_offset_T_K > 0) options.priors.push_back({offset_of_T, 0, options.u_offset_T_K});
  if (options.u_offset_P > 0) options.priors.push_back({offset_of_P, 0, options.u_offset_P});
  if (options.pure != PurePressures::fit) return options;
  if (options.objective != Objective::maximum_likelihood)
    throw RequestError("vapour pressures are fitted with the objective maximum-likelihood alone");
  if (!(options.u_pure > 0 && options.u_pure < 0.2))
    throw RequestError("the uncertainty of the vapour pressures lies above 0 and below 20 %");
  options.priors.push_back({ScaledPureModel::term_name, 0, options.u_pure});
  return options;
}

// Numbers that a known point adds: of an azeotrope as many as it has substances, of a bare temperature one.
int present_in(const KnownPoint& point) {
  if (point.x.empty()) return 1;
  return static_cast<int>(
      std::count_if(point.x.begin(), point.x.end(), [](double fraction) { return fraction > 0; }));
}

// What a fit is wanted for.
enum class Extent {
  whole,      // parameters with all that is to be said of them
  objective,  // how well the model can describe the data, and offsets of sets
  residuals   // parameters near known ones, and how far each point is off
};

// The minimum at or near the parameters of another fit.
Descent nearby(FitProblem& problem, const ParameterPlan& plan, const Fit& other) {
  Descent start;
  for (const FittedParameter* parameter : other.free()) start.scaled.push_back(parameter->value);
  demand_size(start.scaled.size(), plan.free.size(), "free parameters");
  for (std::size_t p = 0; p < plan.free.size(); ++p)
    start.scaled[p] = std::clamp(start.scaled[p] / plan.free[p].scale, plan.lowest[p], plan.highest[p]);
  const auto found = problem.polish(start);
  if (!found) throw CalculationError("there is no minimum near the parameters of the whole data");
  return *found;
}

Fit fit_as_stated(const std::vector<DataSet>& given, const FitOptions& asked, Extent extent,
                  const Fit* near = nullptr) {
  const FitOptions options = with_own_priors(asked);
  if (given.empty()) throw RequestError("no data to fit");
  for (const DataSet& set : given)
    demand_points(set, options.objective == Objective::maximum_likelihood || !vapour_liquid(set.kind));
  const std::vector<DataSet> sets = with_common_substances(given);
  const std::vector<const DataPoint*> points = boiling_points(sets, options.pure == PurePressures::fit);
  Fit result;
  result.options = options;
  result.substances = sets.front().substances;
  if (options.pure == PurePressures::own) {
    const std::vector<double> factors = own_factors(sets);
    for (std::size_t i = 0; i < factors.size(); ++i) {
      if (factors[i] != 1) result.pure_factors.push_back({result.substances[i].name, factors[i]});
    }
    result.substances = with_factors(std::move(result.substances), factors);
  }
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
        fmt::format("the objective {} compares boiling points only; maximum-likelihood also weights "
                    "solubilities, infinite-dilution values and enthalpies by their uncertainties",
                    name_of(options.objective)));
  for (const DataPoint* point : points) {
    T_sum += point->T_K;
    const bool vapour = !point->y.empty() && options.objective == Objective::maximum_likelihood;
    measured += 1 + (vapour ? static_cast<int>(point->present().size()) - 1 : 0);
  }
  const ParameterPlan plan =
      plan_parameters(options, result.substances, result.points == 0 ? 300 : T_sum / result.points, sets);
  check_knowledge(options, result.substances, plan);
  for (const Prior& prior : options.priors) {
    measured +=
        static_cast<int>(std::count_if(plan.all.begin(), plan.all.end(), [&](const FittedParameter& one) {
          return one.is_free() && is_about(prior, one);
        }));
  }
  for (const KnownPoint& point : options.known)
    measured += point.what == SpecialPoint::azeotrope || point.x.empty() ? present_in(point) : 2;
  check_count(result, plan.free.size(), measured);
  result.parameters = plan.all;
  result.comparisons = measured;
  result.degrees_of_freedom = static_cast<double>(measured) - static_cast<double>(plan.free.size());

  FitTask task{options, result.substances, plan, points, liquids};
  constexpr int few_starts = 8;  // the fit of data that cannot be right is worth no more
  if (options.starts == 0 && result.notices.has("data-implausible")) task.options.starts = few_starts;
  task.best_alone = extent == Extent::objective;
  const auto whole = task.problem();
  FitProblem& problem = *whole;
  if (extent == Extent::residuals) {
    const Descent best = nearby(problem, plan, *near);
    result.objective = best.objective;
    set_values(result, plan, best);
    problem.context().set(best.scaled.data());
    fill_residuals(result, sets, problem.context(), best);
    return result;
  }
  Explored found = explore(task, problem);
  if (found.minima.empty()) {
    throw CalculationError(
        fmt::format("none of {} starting points led to a fit; are the pressures, temperatures and "
                    "units of the data right?",
                    found.starts));
  }
  result.search = {found.starts, found.reached_best};
  std::vector<std::string> reasons;
  const std::size_t chosen = possible(problem, found.minima, sets, result.degrees_of_freedom, reasons);
  const auto polished = problem.polish(found.minima[chosen].first);
  if (!polished) {
    throw CalculationError(
        "the best of the starting points led into a flat region without a minimum: the data do not "
        "determine the parameters. Hold one of them (`hold`), or use fewer coefficients (`form`)");
  }
  Descent best = *polished;
  found.minima[chosen].first = best;
  for (std::size_t k = 0; k < found.minima.size(); ++k) {
    const auto& [descent, count] = found.minima[k];
    if (!descent.converged) continue;
    LocalMinimum minimum{descent.scaled, descent.objective, count, reasons[k]};
    for (std::size_t p = 0; p < plan.free.size(); ++p) minimum.values[p] *= plan.free[p].scale;
    result.minima.push_back(std::move(minimum));
  }
  std::stable_partition(result.minima.begin(), result.minima.end(),
                        [](const LocalMinimum& minimum) { return minimum.set_aside.empty(); });
  result.objective = best.objective;
  set_values(result, plan, best);
  set_covariance(result, plan, problem.information(best));
  if (extent == Extent::objective) {
    take_offsets(result);
    return result;
  }

  problem.context().set(best.scaled.data());
  fill_residuals(result, sets, problem.context(), best);
  fill_liquids(result, sets, problem, best);
  fill_ranges(result);
  fill_rms(result, sets);
  fill_tests(result);
  fill_lack_of_fit(result);
  result.known = problem.known_rows(best);
  result.aicc = aicc(result, static_cast<double>(plan.free.size()));
  std::vector<Descent> rivals;
  for (std::size_t k = 0; k < found.minima.size(); ++k) {
    if (k != chosen && reasons[k].empty() && found.minima[k].first.converged)
      rivals.push_back(found.minima[k].first);
  }
  set_intervals(result, task, best, rivals);
  follow_ties(result);
  fill_region(result, task, best);
  fill_influence(result, task, problem, best);
  fill_sets(result, task, sets, problem, best);
  find_wrong_rows(result, task, problem, best);
  tell_own_pressures(result, task, sets, best);
  take_factors(result);
  take_offsets(result);
  result.evaluations = found.evaluations + problem.context().mixture().evaluations();
  add_fit_notices(result, sets);
  return result;
}

}  // namespace

namespace {

// Uncertainties of each set grow until its chi-square is what its degrees of freedom allow.
Fit fit_weighted(const std::vector<DataSet>& given, const FitOptions& options) {
  std::vector<DataSet> sets = given;
  std::vector<double> factors(given.size(), 1.0);
  Fit result = fit_as_stated(sets, options, Extent::whole);
  constexpr int most_rounds = 12;
  constexpr double near = 0.01;
  for (int round = 0; round < most_rounds && result.sets.size() == sets.size(); ++round) {
    double moved = 0;
    for (std::size_t s = 0; s < sets.size(); ++s) {
      const SetAgreement& set = result.sets[s];
      if (!(set.degrees_of_freedom > 0.5)) continue;
      const double next = std::max(1.0, factors[s] * std::sqrt(set.chi_square / set.degrees_of_freedom));
      moved = std::max(moved, std::abs(next / factors[s] - 1));
      const double by = next / factors[s];
      factors[s] = next;
      for (DataPoint& point : sets[s].points) {
        for (double* u :
             {&point.u_T_K, &point.u_P_Pa, &point.u_x, &point.u_y, &point.u_value, &point.relative_u_x})
          *u *= by;
      }
    }
    if (moved < near) break;
    result = fit_as_stated(sets, options, Extent::whole);
  }
  for (std::size_t s = 0; s < result.sets.size(); ++s) {
    result.sets[s].u_factor = factors[s];
    if (factors[s] <= 1 + near) continue;
    result.notices.add("uncertainties-grown",
                       fmt::format("the uncertainties of {} were multiplied by {:.2f}, to match its scatter: "
                                   "chi-square and its probability no longer test this fit",
                                   result.sets[s].name, factors[s]));
  }
  return result;
}

}  // namespace

Fit fit_near(const std::vector<DataSet>& given, const FitOptions& options, const Fit& whole) {
  return fit_as_stated(given, options, Extent::residuals, &whole);
}

Fit fit(const std::vector<DataSet>& given, const FitOptions& options) {
  try {
    const bool by_set = options.errors == Errors::sets && given.size() > 1 &&
                        options.objective == Objective::maximum_likelihood;
    Fit result = by_set ? fit_weighted(given, options) : fit_as_stated(given, options, Extent::whole);
    find_misreading(result, given, options, [](const std::vector<DataSet>& read, const FitOptions& so) {
      return fit_as_stated(read, so, Extent::objective);
    });
    return result;
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
