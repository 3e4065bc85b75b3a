#include "parameter_plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "knowledge_residual.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {
namespace {

// Two terms can share their coefficients where both are fitted and mean the same kind of thing.
void check_tie(const FitOptions& options, const std::string& follower, const std::string& leader) {
  const auto follows_T = [&](const std::string& name) {
    for (const TermForFit& term : terms_for_fit(options.model))
      if (term.name == name) return term.follows_T;
    return false;
  };
  if (follows_T(follower) != follows_T(leader)) {
    throw RequestError(fmt::format(
        "'{}' cannot be tied to '{}': one depends on temperature, the other does not", follower, leader));
  }
  if (options.hold.contains(follower) || options.hold.contains(leader)) {
    throw RequestError(fmt::format("'{}' cannot be held and tied at once", follower));
  }
  for (const TermForFit& term : terms_for_fit(options.model)) {
    const bool released =
        std::find(options.release.begin(), options.release.end(), term.name) != options.release.end();
    if ((term.name == follower || term.name == leader) && term.held && !released) {
      throw RequestError(
          fmt::format("'{0}' cannot be tied: it is held by default. Fit it with `release` {0}", term.name));
    }
  }
  if (follower != leader && options.tie.contains(leader) && options.tie.at(leader) != leader) {
    throw RequestError(fmt::format("'{}' is tied to '{}', which is itself tied to '{}': tie both to the same",
                                   follower, leader, options.tie.at(leader)));
  }
}

void check_terms(const FitOptions& options) {
  std::vector<std::string> known;
  for (const TermForFit& term : terms_for_fit(options.model)) known.push_back(term.name);
  const auto check = [&](const std::string& name) {
    if (std::find(known.begin(), known.end(), name) == known.end()) {
      throw RequestError(fmt::format("'{}' is not a term of {}; it has {}.{}", name, options.model,
                                     joined(known, ", "), did_you_mean(name, known)));
    }
  };
  for (const auto& [name, value] : options.hold) {
    check(name);
    for (const TermForFit& term : terms_for_fit(options.model)) {
      if (term.name != name || (value >= term.lowest && value <= term.highest)) continue;
      throw RequestError(fmt::format("{} cannot be held at {}: it has a meaning from {} to {}", name, value,
                                     term.lowest, term.highest));
    }
  }
  for (const std::string& name : options.release) {
    check(name);
    if (options.hold.contains(name)) {
      throw RequestError(fmt::format("'{}' cannot be held and fitted at once", name));
    }
  }
  for (const auto& [follower, leader] : options.tie) {
    check(follower);
    check(leader);
    check_tie(options, follower, leader);
  }
  if (options.form.empty()) throw RequestError("the temperature dependence needs at least one coefficient");
}

// Number of the term whose coefficients a term takes: its own, or that of the one it is tied to.
std::size_t leader_of(std::size_t index, const FitOptions& options) {
  const std::vector<TermForFit>& terms = terms_for_fit(options.model);
  std::size_t pair = index / terms.size();
  std::string name = terms[index % terms.size()].name;
  if (const auto tie = options.tie.find(name); tie != options.tie.end()) name = tie->second;
  if (const auto tie = options.tie.find(name); tie != options.tie.end() && tie->second == name) pair = 0;
  std::size_t term = 0;
  while (terms[term].name != name) ++term;
  return pair * terms.size() + term;
}

// "", or "ethanol - water: " where there is more than one pair to tell apart.
std::vector<std::string> pair_prefixes(const std::vector<Substance>& substances) {
  if (substances.size() == 2) return {""};
  std::vector<std::string> pairs;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      pairs.push_back(fmt::format("{} - {}: ", substances[i].short_name(), substances[j].short_name()));
    }
  }
  return pairs;
}

// Points every tied parameter to its leader, and the leader's free parameter to the terms that follow it.
void join_ties(ParameterPlan& plan, const FitOptions& options) {
  std::size_t number_of_free = 0;
  for (std::size_t leader = 0; leader < plan.all.size(); ++leader) {
    if (!plan.all[leader].is_free()) continue;
    for (FittedParameter& parameter : plan.all) {
      const std::size_t index = parameter.term_index;
      if (index == plan.all[leader].term_index || parameter.coefficient != plan.all[leader].coefficient ||
          parameter.held || leader_of(index, options) != plan.all[leader].term_index)
        continue;
      parameter.tied_to = leader;
      plan.free[number_of_free].tied.push_back(index);
    }
    ++number_of_free;
  }
}

// ln of a factor for each vapour pressure, behind the terms of the model. One per cent is of order one.
void add_pure_factors(ParameterPlan& plan, const std::vector<Substance>& substances, std::size_t terms) {
  for (std::size_t i = 0; i < substances.size(); ++i) {
    if (!substances[i].vapour_pressure) continue;
    FittedParameter parameter;
    parameter.term = ScaledPureModel::term_name;
    parameter.name = fmt::format("ln factor of Psat({})", substances[i].short_name());
    parameter.term_index = terms + i;
    plan.all.push_back(parameter);
    plan.free.push_back({parameter.term_index, Coefficient::constant, 0.01});
    plan.start_low.push_back(0);
    plan.start_high.push_back(0);
    plan.neutral.push_back(0);
    plan.lowest.push_back(-20);
    plan.highest.push_back(20);
  }
}

}  // namespace

namespace {

// Where a parameter may be, and where a search for it may start.
void apply_bounds(ParameterPlan& plan, const std::vector<Bound>& bounds) {
  for (const Bound& bound : bounds) {
    if (!(std::isfinite(bound.low) && std::isfinite(bound.high) && bound.low < bound.high))
      throw RequestError(fmt::format("the bounds of {} are two numbers, the lower first", bound.name));
    std::size_t p = 0;
    bool known = false;
    std::vector<std::string> names;
    for (const FittedParameter& parameter : plan.all) {
      if (!parameter.is_free()) continue;
      names.push_back(parameter.name);
      if (is_about({bound.name, 0, 1}, parameter)) {
        known = true;
        const double a = bound.low / plan.free[p].scale, b = bound.high / plan.free[p].scale;
        plan.lowest[p] = std::max(plan.lowest[p], std::min(a, b));
        plan.highest[p] = std::min(plan.highest[p], std::max(a, b));
        if (!(plan.lowest[p] < plan.highest[p]))
          throw RequestError(
              fmt::format("the bounds of {} leave nothing of where it has a meaning", bound.name));
        for (double* value : {&plan.start_low[p], &plan.start_high[p], &plan.neutral[p]})
          *value = std::clamp(*value, plan.lowest[p], plan.highest[p]);
      }
      ++p;
    }
    if (!known)
      throw RequestError(
          fmt::format("no fitted parameter is called '{}'; there are {}", bound.name, joined(names, ", ")));
  }
}

// By how much each set of boiling points is off as a whole, behind everything else.
void add_offsets(ParameterPlan& plan, const FitOptions& options, const std::vector<DataSet>& sets) {
  const auto add = [&](const DataSet& set, double u, bool of_pressure) {
    if (!(u > 0) || !vapour_liquid(set.kind) || set.points.empty()) return;
    FittedParameter parameter;
    parameter.term = of_pressure ? offset_of_P : offset_of_T;
    parameter.name =
        fmt::format("{} in {}", parameter.term, std::filesystem::path(set.name).filename().string());
    parameter.term_index = plan.all.back().term_index + 1;
    plan.all.push_back(parameter);
    FreeParameter free{parameter.term_index, Coefficient::constant, u};
    free.offset_of = set.points;
    free.of_pressure = of_pressure;
    plan.free.push_back(std::move(free));
    plan.start_low.push_back(0);
    plan.start_high.push_back(0);
    plan.neutral.push_back(0);
    plan.lowest.push_back(-20);
    plan.highest.push_back(20);
  };
  for (const DataSet& set : sets) {
    add(set, options.u_offset_T_K, false);
    add(set, options.u_offset_P, true);
  }
}

}  // namespace

ParameterPlan plan_parameters(const FitOptions& options, const std::vector<Substance>& substances,
                              double reference_T_K, const std::vector<DataSet>& sets) {
  check_terms(options);
  const std::vector<TermForFit>& terms = terms_for_fit(options.model);
  if (terms.empty())
    throw RequestError(fmt::format("the model '{}' has no parameters to fit", options.model));
  ParameterPlan plan;
  const std::vector<std::string> pairs = pair_prefixes(substances);
  for (std::size_t index = 0; index < pairs.size() * terms.size(); ++index) {
    const TermForFit& term = terms[index % terms.size()];
    const auto held_at = options.hold.find(term.name);
    const bool released =
        std::find(options.release.begin(), options.release.end(), term.name) != options.release.end();
    FittedParameter parameter;
    parameter.term = term.name;
    parameter.term_index = index;
    if (held_at != options.hold.end() || (term.held && !released)) {
      parameter.name = pairs[index / terms.size()] + term.name;
      parameter.held = true;
      parameter.value = held_at != options.hold.end() ? held_at->second : term.neutral;
      plan.all.push_back(parameter);
      continue;
    }
    const bool follows = leader_of(index, options) != index;
    if (follows) parameter.tied_to = 0;  // until its leader is known
    const std::vector<Coefficient> form = term.follows_T ? options.form : std::vector{Coefficient::constant};
    for (std::size_t k = 0; k < form.size(); ++k) {
      parameter.coefficient = form[k];
      parameter.name = pairs[index / terms.size()] + term.name;
      if (term.follows_T) parameter.name += fmt::format(".{}", name_of(form[k]));
      plan.all.push_back(parameter);
      if (follows) continue;
      const bool leads = k == 0;  // the first coefficient carries the value; the others bend it
      plan.free.push_back({index, form[k], 1 / TemperatureFunction::basis(form[k], reference_T_K)});
      plan.start_low.push_back(leads ? term.start_low : 0);
      plan.start_high.push_back(leads ? term.start_high : 0);
      plan.neutral.push_back(leads ? term.neutral : 0);
      plan.lowest.push_back(form.size() == 1 ? term.lowest : -100);
      plan.highest.push_back(form.size() == 1 ? term.highest : 100);
    }
  }
  if (plan.free.empty()) throw RequestError("every parameter is held; there is nothing to fit");
  join_ties(plan, options);
  if (options.pure == PurePressures::fit) add_pure_factors(plan, substances, pairs.size() * terms.size());
  add_offsets(plan, options, sets);
  apply_bounds(plan, options.bounds);
  return plan;
}

}  // namespace jampot
