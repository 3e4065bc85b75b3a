#include "fit_notices.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

constexpr double improbable = 0.01;

std::string file_name(const std::string& path) {
  return std::filesystem::path(path).filename().string();
}

std::string in_words(double probability) {
  return probability < 1e-15 ? "probability below 1e-15" : fmt::format("probability {:.1e}", probability);
}

// Points that were measured again know the scatter without any model.
std::string why_misfit(const Fit& fit) {
  if (fit.lack_of_fit) {
    const LackOfFit& lack = *fit.lack_of_fit;
    if (lack.probability < improbable)
      return fmt::format(
          "Points measured again at {} scatter {:.2g} times as the model is off "
          "besides (mean squares): the model is not able to",
          counted(lack.places, "composition"), lack.pure_error / lack.lack);
    constexpr double wide = 2;
    if (lack.pure_error > wide)
      return fmt::format(
          "Points measured again at {} scatter as much (mean square {:.2g}): the "
          "uncertainties are stated too small",
          counted(lack.places, "composition"), lack.pure_error);
  }
  return "Either the model is not able to, or the uncertainties are stated too small";
}

void misfit(Fit& fit) {
  if (fit.options.objective == Objective::maximum_likelihood && fit.degrees_of_freedom > 0) {
    const double reduced = fit.objective / fit.degrees_of_freedom;
    if (fit.chi_square_probability < improbable) {
      fit.notices.add(
          "misfit",
          fmt::format("the fit does not describe the data within their stated uncertainties: chi-square is "
                      "{:.1f} for {:.0f} degrees of freedom ({}). {}. The standard errors take them as "
                      "stated; judged by the scatter they would be {:.1f} times as large",
                      fit.objective, fit.degrees_of_freedom, in_words(fit.chi_square_probability),
                      why_misfit(fit), std::sqrt(reduced)));
    } else if (fit.chi_square_probability > 1 - 1e-3) {
      fit.notices.add(
          "uncertainties-too-large",
          fmt::format(
              "the data scatter less than their stated uncertainties: chi-square is {:.1f} for {:.0f} "
              "degrees of freedom. The standard errors are then larger than they need be",
              fit.objective, fit.degrees_of_freedom));
    }
  }
  for (const auto& [runs, what] :
       {std::pair(&fit.runs_P, "boiling-point"), std::pair(&fit.runs_y, "vapour")}) {
    if (runs->one_sign && runs->probability < improbable) {
      fit.notices.add(
          "systematic-residuals",
          fmt::format("all {} residuals have one sign ({}): the fitted model lies on one side of the "
                      "data, which chance does not do",
                      what, in_words(runs->probability)));
    } else if (runs->probability < improbable) {
      fit.notices.add(
          "systematic-residuals",
          fmt::format("the {} residuals change sign only {} along the composition where about {:.0f} "
                      "changes are expected by chance ({}): the residuals are not random",
                      what, times_text(runs->runs - 1), std::max(1.0, runs->expected - 1),
                      in_words(runs->probability)));
    }
  }
}

// Points far off the model: the worst, and every row that agrees when two of its numbers are exchanged.
void outliers(Fit& fit) {
  double largest = 0;
  const ResidualRow* worst = nullptr;
  for (const ResidualRow& row : fit.residuals) {
    if (!row.used()) continue;
    if (!row.reads_right.empty()) {
      fit.notices.add("wrong-row",
                      fmt::format("{}, line {}: with {} the point at x1 = {:.4f} agrees with the others; as "
                                  "written it deviates by {:.0f} standard uncertainties from the fit to them",
                                  file_name(fit.data[row.set]), row.measured.line, row.reads_right,
                                  row.measured.x[0], row.distance_without));
      continue;
    }
    double size = std::abs(row.standardised_P);
    for (const double value : row.standardised_y) size = std::max(size, std::abs(value));
    if (size > largest) {
      largest = size;
      worst = &row;
    }
  }
  constexpr double outlying = 4;
  if (worst == nullptr || largest <= outlying) return;
  const bool by_y =
      !worst->standardised_y.empty() && std::abs(worst->standardised_y[0]) > std::abs(worst->standardised_P);
  fit.notices.add(
      "outlier", fmt::format("the point at x1 = {:.4f}, {:.2f} degC (line {} of its file) is {:.1f} standard "
                             "uncertainties off the fitted model, {}",
                             worst->measured.x[0], worst->measured.T_K - celsius_zero, worst->measured.line,
                             largest, by_y ? "by its vapour" : "by its boiling point"));
}

// Which of several sets does not go with the others.
void disagreeing_sets(Fit& fit) {
  if (fit.sets.empty() || fit.degrees_of_freedom <= 0 || fit.chi_square_probability >= improbable) return;
  const double all = fit.objective / fit.degrees_of_freedom;
  std::vector<const SetAgreement*> culprits;
  double least = HUGE_VAL;
  for (const SetAgreement& set : fit.sets) least = std::min(least, set.without.value_or(HUGE_VAL));
  constexpr double better = 0.6, alike = 1.5;
  for (const SetAgreement& set : fit.sets) {
    if (set.without && *set.without < better * all && *set.without < alike * least) culprits.push_back(&set);
  }
  if (culprits.empty()) return;
  const auto list = [&] {
    std::vector<std::string> names;
    for (const SetAgreement* set : culprits)
      names.push_back(fmt::format("{} ({:.2f} without it)", file_name(set->name), *set->without));
    return joined(names, ", ");
  };
  if (culprits.size() > 1) {
    fit.notices.add(
        "sets-disagree",
        fmt::format("data sets contradict each other: chi-square over its degrees of freedom is {:.2f} with "
                    "all; leaving out any one of these helps: {}. The data alone do not say which is wrong",
                    all, list()));
    return;
  }
  const SetAgreement& culprit = *culprits.front();
  // Of two sets the fit without the one is that of the other alone: a set that the model cannot describe by
  // itself contradicts nobody.
  const SetAgreement& other = fit.sets[&culprit == &fit.sets.front() ? 1 : 0];
  constexpr double described = 2;
  const bool alone = fit.sets.size() == 2 && other.without;
  if (alone && *other.without > described) {
    fit.notices.add(
        "sets-disagree",
        fmt::format("the model does not describe {} even alone: chi-square over its degrees of freedom is "
                    "{:.2f} for that, {:.2f} for {} alone and {:.2f} for both",
                    file_name(culprit.name), *other.without, *culprit.without, file_name(other.name), all));
    return;
  }
  fit.notices.add(
      "sets-disagree",
      fmt::format("{} contradicts the other data{}: chi-square over its degrees of freedom is {:.2f} with it "
                  "and {:.2f} without",
                  file_name(culprit.name), alone ? "" : ", or the model cannot describe it", all,
                  *culprit.without));
}

void doubtful_parameters(Fit& fit) {
  const auto free = fit.free();
  for (const FittedParameter* parameter : free) {
    if (parameter->at_bound) {
      fit.notices.add(
          "parameter-at-bound",
          fmt::format("{} = {:.4g} is at the end of its allowed range; its standard error means little",
                      parameter->name, parameter->value));
    } else if (parameter->term == "alpha" && parameter->std_error > 0.25 * std::abs(parameter->value)) {
      fit.notices.add(
          "undetermined-alpha",
          fmt::format("the data hardly determine alpha ({:.3f} +- {:.3f}); holding it at 0.2 to 0.47 is the "
                      "usual remedy (`hold` alpha=0.3)",
                      parameter->value, parameter->std_error));
    }
  }
  constexpr double nearly_one = 0.99;
  for (std::size_t a = 0; a < free.size(); ++a) {
    for (std::size_t b = a + 1; b < free.size(); ++b) {
      const double correlation = fit.correlation(a, b);
      if (std::abs(correlation) > nearly_one) {
        fit.notices.add(
            "correlated-parameters",
            fmt::format("{} and {} are correlated by {:.4f}: only their combination is determined. Never "
                        "quote one without the other, nor round them",
                        free[a]->name, free[b]->name, correlation));
      }
    }
  }
  for (const LocalMinimum& minimum : fit.minima) {
    if (minimum.set_aside.empty()) continue;
    fit.notices.add(
        "minimum-set-aside",
        fmt::format("a minimum with the objective {:.6g}, below {:.6g} of the result, was set aside: it has "
                    "{}",
                    minimum.objective, fit.objective, minimum.set_aside));
  }
  if (!fit.search.settled() && fit.options.starts == 0)
    fit.notices.add(
        "search-unsettled",
        fmt::format("the lowest minimum was reached {} of {} times: a lower one is possible. More starting "
                    "points (`starts`) or a term held (`hold`) would settle it",
                    fit.search.reached_best, fit.search.starts));
  if (fit.minima.size() > 1 && fit.minima[1].set_aside.empty()) {
    const LocalMinimum& second = fit.minima[1];
    constexpr double chance = 3.84;  // of one parameter, at 95 %
    const bool known = fit.options.objective == Objective::maximum_likelihood;
    if (known && second.objective - fit.objective < chance) {
      std::vector<std::string> values;
      for (std::size_t p = 0; p < free.size(); ++p)
        values.push_back(fmt::format("{} = {:.5g}", free[p]->name, second.values[p]));
      fit.notices.add(
          "rival-minimum",
          fmt::format("other parameters describe the data as well: {} (objective {:.5g} against {:.5g}). The "
                      "95 % intervals hold both; the standard errors and the covariance do not",
                      joined(values, ", "), second.objective, fit.objective));
    }
    // The best was polished after the others had been cut short, so it is never above them but by rounding.
    fit.notices.add("other-minima",
                    fmt::format("{} distinct minima were reached from {} starting points; the next best "
                                "has the objective {:.6g}, the best {:.6g}",
                                fit.minima.size(), fit.search.starts,
                                std::max(second.objective, fit.objective), fit.objective));
  }
}

// Data of two liquids are asked of the model; what it cannot show is said.
void missing_split(Fit& fit) {
  int without = 0, with = 0;
  for (const LiquidRow& row : fit.liquid_residuals) {
    if (!row.two_liquids() || row.measured.x.size() != 2) continue;
    (row.alpha.empty() ? without : with) += 1;
  }
  if (without == 0) return;
  fit.notices.add(
      "no-split",
      fmt::format("two liquids were measured at {}, but the fitted {} model shows one liquid at {}{}",
                  counted(with + without, "temperature"), fit.options.model,
                  with == 0 ? "each" : fmt::format("{} of them", without),
                  can_split(fit.options.model) ? "" : ": it cannot describe two liquids at all"));
}

// Sign changes of y - x that are beyond the uncertainties.
int measured_azeotropes(const Fit& fit) {
  std::vector<std::pair<double, double>> differences;
  for (const ResidualRow& row : fit.residuals) {
    if (!row.used() || row.measured.y.empty()) continue;
    const double difference = row.measured.y[0] - row.measured.x[0];
    if (std::abs(difference) > 2 * std::hypot(row.measured.u_x, row.measured.u_y))
      differences.emplace_back(row.measured.x[0], difference);
  }
  std::sort(differences.begin(), differences.end());
  int changes = 0;
  for (std::size_t k = 1; k < differences.size(); ++k)
    changes += differences[k].second * differences[k - 1].second < 0;
  return changes;
}

// Azeotropes that the data do not show, or that lie where nothing was measured.
void doubtful_azeotropes(Fit& fit) {
  if (fit.substances.size() != 2 || fit.residuals.empty()) return;
  double P_sum = 0;
  int points = 0;
  bool vapour = false;
  double lowest = 1, highest = 0;
  for (const ResidualRow& row : fit.residuals) {
    if (!row.used()) continue;
    lowest = std::min(lowest, row.measured.x[0]);
    highest = std::max(highest, row.measured.x[0]);
    P_sum += row.measured.P_Pa;
    vapour = vapour || !row.measured.y.empty();
    ++points;
  }
  for (const Substance& substance : fit.substances) vapour = vapour && substance.vapour_pressure;
  if (points == 0 || !vapour) return;
  const int measured = measured_azeotropes(fit);
  std::vector<Azeotrope> found;
  try {
    Mixture mixture = fit.mixture();
    found = txy(mixture, P_sum / points).azeotropes;
  } catch (const CalculationError&) {
    return;
  }
  if (found.size() > static_cast<std::size_t>(measured) + 1) {
    fit.notices.add("invented-azeotropes",
                    fmt::format("the fitted model has {} azeotropes at {:.4g} kPa; the data show {}",
                                found.size(), P_sum / points / 1000, measured));
  }
  for (const Azeotrope& azeotrope : found) {
    if (azeotrope.heterogeneous || (azeotrope.x1 >= lowest && azeotrope.x1 <= highest)) continue;
    fit.notices.add(
        "azeotrope-extrapolated",
        fmt::format(
            "the azeotrope of the fit at x({}) = {:.4f} lies outside the measured compositions, {:.4f} "
            "to {:.4f}; its uncertainty excludes the error of extrapolation",
            fit.substances[0].name, azeotrope.x1, lowest, highest));
  }
}

void extreme_limits(Fit& fit) {
  if (fit.substances.size() != 2) return;
  Mixture mixture = fit.mixture();
  const double T_K = (fit.T_range_K[0] + fit.T_range_K[1]) / 2;
  std::vector<double> ln_gamma(2);
  mixture.activity().set_temperature(T_K);
  for (std::size_t i = 0; i < 2; ++i) {
    const std::vector<double> x{i == 0 ? 0.0 : 1.0, i == 0 ? 1.0 : 0.0};
    mixture.activity().evaluate(x, ln_gamma);
    constexpr double extreme = 9.2;  // gamma of ten thousand
    if (std::abs(ln_gamma[i]) < extreme) continue;
    fit.notices.add("extreme-limit",
                    fmt::format("the fitted model has an infinite-dilution activity coefficient of {:.3g} "
                                "for {} in {}: implausible, unless the two hardly mix",
                                std::exp(ln_gamma[i]), fit.substances[i].name, fit.substances[1 - i].name));
  }
}

// A temperature dependence that no temperature of the data shows.
void unseen_temperature(Fit& fit) {
  const double span = fit.T_range_K[1] - fit.T_range_K[0];
  constexpr double least_K = 2;
  if (fit.options.form.size() < 2 || span >= least_K) return;
  fit.notices.add(
      "temperature-not-varied",
      fmt::format("the data lie within {:.2f} K, so the {} coefficients of each term cannot be told apart: "
                  "the way the parameters change with temperature is not determined",
                  span, fit.options.form.size()));
}

// The same measurements twice count twice and make standard errors too small.
void repeated_points(Fit& fit, const std::vector<DataSet>& sets) {
  const auto same = [](const DataPoint& a, const DataPoint& b) {
    return a.T_K == b.T_K && a.P_Pa == b.P_Pa && a.x == b.x && a.y == b.y && a.value == b.value &&
           a.solute == b.solute && a.solvent == b.solvent;
  };
  for (std::size_t a = 0; a < sets.size(); ++a) {
    for (std::size_t b = a + 1; b < sets.size(); ++b) {
      if (sets[a].kind != sets[b].kind) continue;
      const auto shared =
          std::count_if(sets[b].points.begin(), sets[b].points.end(), [&](const DataPoint& point) {
            return !point.is_pure() && point.excluded.empty() &&
                   std::any_of(sets[a].points.begin(), sets[a].points.end(), [&](const DataPoint& other) {
                     return other.excluded.empty() && same(point, other);
                   });
          });
      if (shared < 2) continue;
      fit.notices.add("repeated-points", fmt::format("{} points of {} are also in {}, to the last digit: "
                                                     "counted twice, they make the standard errors too small",
                                                     shared, sets[b].name, sets[a].name));
    }
  }
}

// Liquids, limits and enthalpies far off the model.
void outlying_liquids(Fit& fit) {
  const LiquidRow* worst = nullptr;
  double largest = 4;
  for (const LiquidRow& row : fit.liquid_residuals) {
    double squares = 0;
    for (const double value : row.standardised) squares += value * value;
    const double size = std::sqrt(squares);
    if (row.measured.excluded.empty() && size > largest) {
      largest = size;
      worst = &row;
    }
  }
  if (worst == nullptr) return;
  fit.notices.add(
      "outlier",
      fmt::format("the {} point at {:.2f} degC (line {} of its file) is {:.1f} standard "
                  "uncertainties off the fitted model",
                  name_of(worst->kind), worst->measured.T_K - celsius_zero, worst->measured.line, largest));
}

void robust_loss(Fit& fit) {
  if (!fit.options.robust) return;
  fit.notices.add("robust-loss",
                  "points beyond three standard uncertainties were given less weight; chi-square, standard "
                  "errors and AICc "
                  "are those of the weighted sum and not to be compared with a plain fit");
}

// What was stated beside the points and does not go with them.
void knowledge(Fit& fit) {
  for (const KnownRow& row : fit.known) {
    constexpr double far = 3;
    if (row.there && row.distance <= far) continue;
    fit.notices.add(
        "known-point-missed",
        row.there
            ? fmt::format("the {} point stated as known at {:.2f} degC lies {:.1f} standard uncertainties "
                          "off the fitted model",
                          name_of(row.known.what), row.known.T_K - celsius_zero, row.distance)
            : fmt::format("the fitted model has no {} point near the one stated as known at {:.2f} degC",
                          name_of(row.known.what), row.known.T_K - celsius_zero));
  }
  for (const SetOffset& offset : fit.offsets) {
    constexpr double sure = 2.5;
    if (!(std::abs(offset.value) > sure * offset.u)) continue;
    fit.notices.add(
        "set-offset",
        offset.of_pressure
            ? fmt::format("the pressures of {} are measured {:+.2f} +- {:.2f} % too high, as the "
                          "other data and vapour pressures see it",
                          offset.name, 100 * offset.value, 100 * offset.u)
            : fmt::format("the temperatures of {} are measured {:+.3f} +- {:.3f} K too high, as the "
                          "other data and vapour pressures see it",
                          offset.name, offset.value, offset.u));
  }
}

void exclusions(Fit& fit) {
  std::vector<std::string> list;
  const auto take = [&](const DataPoint& point) {
    if (!point.excluded.empty()) list.push_back(fmt::format("line {} ({})", point.line, point.excluded));
  };
  for (const ResidualRow& row : fit.residuals) take(row.measured);
  for (const LiquidRow& row : fit.liquid_residuals) take(row.measured);
  if (list.empty()) return;
  fit.notices.add("points-excluded", fmt::format("not used on request: {}", joined(list, "; ")));
}

void invented_split(Fit& fit) {
  if (fit.substances.size() != 2 || fit.fitted_to() != "vle") return;
  Mixture mixture = fit.mixture();
  for (const double T_K : fit.T_range_K) {
    for (const BinarySplit& split : binary_splits(mixture.activity(), T_K)) {
      const auto inside =
          std::count_if(fit.residuals.begin(), fit.residuals.end(), [&](const ResidualRow& row) {
            return row.measured.x[0] > split.x1_alpha && row.measured.x[0] < split.x1_beta;
          });
      fit.notices.add(
          "invented-split",
          fmt::format(
              "the fitted parameters say that the liquid splits at {:.1f} degC between x({}) = {:.4f} "
              "and {:.4f}; the data are of one liquid ({} measured points lie inside)",
              T_K - celsius_zero, fit.substances[0].name, split.x1_alpha, split.x1_beta, inside));
    }
  }
}

void pure_points(Fit& fit, const std::vector<DataSet>& sets) {
  for (const ResidualRow& row : fit.residuals) {
    if (!row.pure) continue;
    const auto pure = static_cast<std::size_t>(std::find(row.measured.x.begin(), row.measured.x.end(), 1.0) -
                                               row.measured.x.begin());
    const double dT = row.T_K - row.measured.T_K, dP = row.P_Pa / row.measured.P_Pa - 1;
    const bool by_T = isobaric(sets[row.set].kind);
    const double allowed = 3 * (by_T ? row.measured.u_T_K : row.measured.u_P_Pa / row.measured.P_Pa);
    if (std::abs(by_T ? dT : dP) <= allowed) continue;
    fit.notices.add(
        "pure-point",
        by_T ? fmt::format("pure {} was measured to boil at {:.2f} degC, the vapour pressure in use gives "
                           "{:.2f} degC: the fitted pair parameters absorb that difference",
                           fit.substances[pure].name, row.measured.T_K - celsius_zero, row.T_K - celsius_zero)
             : fmt::format("the vapour pressure of {} in use differs by {:+.2f} % from the measured one: the "
                           "fitted pair parameters absorb that difference",
                           fit.substances[pure].name, 100 * dP));
  }
}

}  // namespace

void add_fit_notices(Fit& fit, const std::vector<DataSet>& sets) {
  if (fit.notices.has("data-implausible")) return;  // whatever else is odd follows from it
  misfit(fit);
  outliers(fit);
  disagreeing_sets(fit);
  doubtful_parameters(fit);
  invented_split(fit);
  missing_split(fit);
  doubtful_azeotropes(fit);
  extreme_limits(fit);
  unseen_temperature(fit);
  repeated_points(fit, sets);
  outlying_liquids(fit);
  robust_loss(fit);
  knowledge(fit);
  exclusions(fit);
  pure_points(fit, sets);
  Notices ranges = fit.mixture().range_notices(fit.T_range_K[0], fit.T_range_K[1]);
  fit.notices.add(ranges);
}

}  // namespace jampot
