#include "fit_words.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/known_words.hpp"
#include "jampot/files/overlays.hpp"

namespace jampot::tool {
FitOptions FitWords::options(const std::vector<DataSet>& data) const {
  FitOptions fit;
  fit.objective = parse_objective(objective);
  fit.form = read_form(form);
  fit.release = release;
  fit.robust = robust;
  fit.profiles = profile ? Profiles::always : Profiles::when_nonlinear;
  if (starts < 0 || starts > 10000)
    throw RequestError("--starts: expected a number from 1 to 10000, or 0 for as many as the search needs");
  fit.starts = starts;
  fit.no_split = no_split;
  fit.priors = read_priors(priors);
  fit.errors = parse_errors(errors);
  read_offsets(offsets, fit);
  fit.bounds = read_bounds(bounds);
  fit.known = read_known(known, data);
  fit.hold = read_holds(hold);
  fit.tie = read_ties(tie);
  if (pure == "own")
    fit.pure = PurePressures::own;
  else if (pure == "fit")
    fit.pure = PurePressures::fit;
  else if (pure != "bank")
    throw RequestError(fmt::format("--pure: expected bank, own or fit, found '{}'", pure));
  if (!u_pure.empty()) fit.u_pure = parse_quantity(u_pure, Dimension::fraction);
  fit.vapour = vapour.choice(*bank_with(substance_files));
  return fit;
}

std::vector<DataSet> FitWords::sets() const {
  const auto bank = bank_with(substance_files);
  std::vector<DataSet> sets = read_measured_files(files, *bank);
  mark_non_volatile(non_volatile, *bank, sets);
  exclude_points(exclude, sets);
  return sets;
}

void add_fit_words(Command& command, FitWords& words) {
  command
      .option("FILE", words.files, "FILE", "Measured data (docs/files.md); several files are fitted together")
      .needed();
  add_substance_files(command, words.substance_files);
  command.option("--model,--liquid", words.model, "MODEL",
                 "Liquid model: wilson, nrtl (default), uniquac, margules or redlich-kister");
  add_non_volatile(command, words.non_volatile);
  add_vapour(command, words.vapour);
  command.option(
      "--objective", words.objective, "NAME",
      "maximum-likelihood (errors in every measured quantity), bubble-pressure or bubble-temperature");
  command.option("--form", words.form, "LIST",
                 "Coefficients of the temperature dependence: constant, inverse_T, log_T, linear_T "
                 "(default inverse_T)");
  command
      .option("--hold", words.hold, "NAME=VALUE",
              "Fix a term at a value (default alpha=0.3); may be repeated")
      .repeated();
  command.option("--release", words.release, "NAME", "Fit a term that is fixed by default, such as alpha")
      .repeated();
  command
      .option("--tie", words.tie, "TERM=TERM",
              "Let a term take the value of another; TERM alone: one value for all pairs")
      .repeated();
  command
      .option("--exclude", words.exclude, "LINE:REASON",
              "Exclude a point: its line in the file and the reason")
      .repeated();
  command
      .option("--prior", words.priors, "NAME=VALUE+-UNCERTAINTY",
              "Prior knowledge of a parameter, weighted like one more point")
      .repeated();
  command.option("--bound", words.bounds, "NAME=LOW..HIGH", "Bounds of a fitted parameter").repeated();
  command
      .option("--known", words.known, "POINT",
              "A known point that the fit must meet within its uncertainty: azeotrope x1=0.9+-0.01, "
              "T=78+-0.1 degC, "
              "P=101.325 kPa; critical T=320+-1 K; plait x1=0.3+-0.02, x2=0.2, T=298.15 K")
      .repeated();
  command
      .option("--offset", words.offsets, "QUANTITY=UNCERTAINTY",
              "Fit a common offset of each set of boiling points, with its standard uncertainty: T=0.2 K, "
              "P=0.5 %")
      .repeated();
  command.flag("--no-split", words.no_split,
               "Two substances: accept only parameters without a liquid-liquid split");
  command.option("--errors", words.errors, "stated|scatter|sets",
                 "Basis of the standard errors: stated uncertainties (default), the scatter of all points "
                 "where it is larger, or the scatter of each set, which also weights the sets");
  command.option("--pure", words.pure, "bank|own|fit",
                 "Vapour pressures: bank (default), own (scaled to the pure points of the data) or fit "
                 "(factors that are "
                 "fitted too)");
  command.option("--pure-uncertainty", words.u_pure, "PERCENT",
                 "Standard uncertainty of the vapour pressures before they are fitted (default 0.5 %)");
  command.flag("--robust", words.robust, "Huber loss beyond three standard uncertainties");
  command.flag("--profile", words.profile, "95 % intervals from profiles of the objective");
  command.option("--starts", words.starts, "N",
                 "Starting points of the search (default: until the lowest minimum was reached three times)");
}

}  // namespace jampot::tool
