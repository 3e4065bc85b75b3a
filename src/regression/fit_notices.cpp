#include "fit_notices.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/binary_split.hpp"

namespace jampot {
namespace {

constexpr double improbable = 0.01;

std::string in_words(double probability) {
  return probability < 1e-15 ? "probability below 1e-15" : fmt::format("probability {:.1e}", probability);
}

void misfit(Fit& fit) {
  if (fit.options.objective == Objective::maximum_likelihood && fit.degrees_of_freedom > 0) {
    const double reduced = fit.objective / fit.degrees_of_freedom;
    if (fit.chi_square_probability < improbable) {
      fit.notices.add(
          "misfit",
          fmt::format("the fit does not describe the data within their stated uncertainties: chi-square is "
                      "{:.1f} for {:.0f} degrees of freedom ({}). Either the model is not "
                      "able to, or the uncertainties are stated too small. The standard errors take them as "
                      "stated; judged by the scatter they would be {:.1f} times as large",
                      fit.objective, fit.degrees_of_freedom, in_words(fit.chi_square_probability),
                      std::sqrt(reduced)));
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
    if (runs->probability < improbable) {
      fit.notices.add(
          "systematic-residuals",
          fmt::format("the {} residuals change sign only {} times along the composition where about {:.0f} "
                      "changes are expected by chance ({}): what is left is not noise",
                      what, runs->runs - 1, runs->expected - 1, in_words(runs->probability)));
    }
  }
  double largest = 0;
  const ResidualRow* worst = nullptr;
  for (const ResidualRow& row : fit.residuals) {
    double size = std::abs(row.standardised_P);
    for (const double value : row.standardised_y) size = std::max(size, std::abs(value));
    if (size > largest) {
      largest = size;
      worst = &row;
    }
  }
  constexpr double outlying = 4;
  if (worst != nullptr && largest > outlying) {
    fit.notices.add(
        "outlier",
        fmt::format("the point at x1 = {:.4f}, {:.2f} degC (line {} of its file) is {:.1f} standard "
                    "uncertainties off the fitted model",
                    worst->measured.x[0], worst->measured.T_K - celsius_zero, worst->measured.line, largest));
  }
}

void doubtful_parameters(Fit& fit) {
  const auto free = fit.free();
  for (const FittedParameter* parameter : free) {
    if (parameter->at_bound) {
      fit.notices.add("parameter-at-bound",
                      fmt::format("{} = {:.4g} stands at the end of its allowed range; its standard "
                                  "error means little",
                                  parameter->name, parameter->value));
    } else if (parameter->term == "alpha" && parameter->std_error > 0.25 * std::abs(parameter->value)) {
      fit.notices.add(
          "undetermined-alpha",
          fmt::format("the data hardly determine alpha ({:.3f} +- {:.3f}); holding it at 0.2 to 0.47 is the "
                      "usual remedy (--hold alpha=0.3)",
                      parameter->value, parameter->std_error));
    }
  }
  constexpr double nearly_one = 0.99;
  for (std::size_t a = 0; a < free.size(); ++a) {
    for (std::size_t b = a + 1; b < free.size(); ++b) {
      const double correlation = fit.correlation(static_cast<Eigen::Index>(a), static_cast<Eigen::Index>(b));
      if (std::abs(correlation) > nearly_one) {
        fit.notices.add(
            "correlated-parameters",
            fmt::format("{} and {} are correlated by {:.4f}: only their combination is determined. Never "
                        "quote one without the other, nor round them",
                        free[a]->name, free[b]->name, correlation));
      }
    }
  }
  if (fit.minima.size() > 1) {
    const LocalMinimum& second = fit.minima[1];
    fit.notices.add("other-minima",
                    fmt::format("{} distinct minima were reached from {} starting points; the next best "
                                "has the objective {:.6g} against {:.6g}",
                                fit.minima.size(), fit.options.starts, second.objective, fit.objective));
  }
}

void invented_split(Fit& fit) {
  if (fit.substances.size() != 2) return;
  Mixture mixture = fit.mixture();
  for (const double T_K : fit.T_range_K) {
    for (const BinarySplit& split : binary_splits(mixture.activity(), T_K)) {
      const auto inside =
          std::count_if(fit.residuals.begin(), fit.residuals.end(), [&](const ResidualRow& row) {
            return row.measured.x[0] > split.x_alpha && row.measured.x[0] < split.x_beta;
          });
      fit.notices.add(
          "invented-split",
          fmt::format(
              "the fitted parameters say that the liquid splits at {:.1f} degC between x({}) = {:.4f} "
              "and {:.4f}; the data are of one liquid ({} measured points lie inside)",
              T_K - celsius_zero, fit.substances[0].name, split.x_alpha, split.x_beta, inside));
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
        by_T ? fmt::format("pure {} was measured to boil at {:.2f} degC, the vapour pressure in use says "
                           "{:.2f} degC: a fit takes up that difference into the pair parameters",
                           fit.substances[pure].name, row.measured.T_K - celsius_zero, row.T_K - celsius_zero)
             : fmt::format("the vapour pressure of {} in use differs by {:+.2f} % from the measured one: a "
                           "fit takes up that difference into the pair parameters",
                           fit.substances[pure].name, 100 * dP));
  }
}

}  // namespace

void add_fit_notices(Fit& fit, const std::vector<DataSet>& sets) {
  misfit(fit);
  doubtful_parameters(fit);
  invented_split(fit);
  pure_points(fit, sets);
  Notices ranges = fit.mixture().range_notices(fit.T_range_K[0], fit.T_range_K[1]);
  fit.notices.add(ranges);
}

}  // namespace jampot
