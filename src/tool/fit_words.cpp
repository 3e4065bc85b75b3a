#include "fit_words.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/known_words.hpp"
#include "jampot/files/overlays.hpp"

namespace jampot::tool {
namespace {

// "12: bubble in the sample line", or "FILE:12: ..." where there are several files.
void exclude_points(const std::vector<std::string>& wanted, std::vector<DataSet>& sets) {
  for (const std::string& text : wanted) {
    const std::vector<std::string> pieces = split(text, ':');
    const bool with_file = sets.size() > 1;
    const std::size_t number = with_file ? 1 : 0;
    const auto line = pieces.size() > number ? parse_number(pieces[number]) : std::nullopt;
    const std::string reason = pieces.size() > number + 1 ? pieces[number + 1] : "";
    if (!line || reason.empty()) {
      throw RequestError(fmt::format(
          "--exclude '{}': expected {}LINE:REASON; a reason is needed because it stays in the output", text,
          with_file ? "FILE:" : ""));
    }
    bool found = false;
    for (DataSet& set : sets) {
      if (with_file && set.name != pieces[0]) continue;
      for (DataPoint& point : set.points) {
        if (point.line != static_cast<int>(*line)) continue;
        point.excluded = reason;
        found = true;
      }
    }
    if (!found) throw RequestError(fmt::format("--exclude '{}': there is no point on that line", text));
  }
}

void mark_in_sets(const std::vector<std::string>& names, const Bank& bank, std::vector<DataSet>& sets) {
  for (const std::string& name : names) {
    bool named = false;
    for (DataSet& set : sets) {
      for (Substance& substance : set.substances) {
        if (substance.name != bank.require(name).name) continue;
        mark_non_volatile({name}, set.substances);
        named = true;
      }
    }
    if (!named) throw RequestError(fmt::format("--non-volatile: {} is in none of the data", name));
  }
}

}  // namespace

FitOptions FitWords::options(const std::vector<DataSet>& data) const {
  FitOptions fit;
  fit.objective = parse_objective(objective);
  fit.form = parse_form(form);
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
  for (const std::string& text : hold) {
    const std::size_t equals = text.find('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(text.substr(equals + 1));
    if (!value)
      throw RequestError(fmt::format("--hold '{}': expected NAME=VALUE, as in --hold alpha=0.3", text));
    fit.hold[std::string(trimmed(std::string_view(text).substr(0, equals)))] = *value;
  }
  for (const std::string& text : tie) {
    const std::vector<std::string> names = split(text, '=');
    if (names.empty() || names.size() > 2 || names.front().empty() || names.back().empty())
      throw RequestError(fmt::format(
          "--tie '{}': expected TERM=TERM, as in --tie tau_21=tau_12, or TERM alone: one value for all pairs",
          text));
    fit.tie[names.front()] = names.back();
  }
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
  mark_in_sets(non_volatile, *bank, sets);
  exclude_points(exclude, sets);
  return sets;
}

void add_fit_words(CLI::App& command, FitWords& words) {
  command.add_option("FILE", words.files, "Measured data (docs/files.md); several are fitted together")
      ->required()
      ->type_name("FILE");
  add_substance_files(command, words.substance_files);
  command
      .add_option("--model", words.model,
                  "Liquid model: wilson, nrtl (default), uniquac, margules or redlich-kister")
      ->type_name("MODEL");
  add_non_volatile(command, words.non_volatile);
  add_vapour(command, words.vapour);
  command
      .add_option(
          "--objective", words.objective,
          "maximum-likelihood (errors in every measured quantity), bubble-pressure or bubble-temperature")
      ->type_name("NAME");
  command
      .add_option("--form", words.form,
                  "Coefficients of the temperature dependence: constant, inverse_T, log_T, linear_T "
                  "(default inverse_T)")
      ->type_name("LIST");
  repeatable(
      command.add_option("--hold", words.hold, "Hold a term at a value (default alpha=0.3); may be repeated")
          ->type_name("NAME=VALUE"));
  repeatable(
      command.add_option("--release", words.release, "Fit a term that is held by default, as alpha is")
          ->type_name("NAME"));
  repeatable(command
                 .add_option("--tie", words.tie,
                             "Let a term take the value of another; TERM alone: one value for all pairs")
                 ->type_name("TERM=TERM"));
  repeatable(
      command
          .add_option("--exclude", words.exclude, "Leave a point out: its line in the file and the reason")
          ->type_name("LINE:REASON"));
  repeatable(command
                 .add_option("--prior", words.priors,
                             "What is known of a parameter beside the data, weighed like one more point")
                 ->type_name("NAME=VALUE+-UNCERTAINTY"));
  repeatable(command.add_option("--bound", words.bounds, "Seek a fitted parameter between two values only")
                 ->type_name("NAME=LOW..HIGH"));
  repeatable(
      command
          .add_option(
              "--known", words.known,
              "A special point to meet within its uncertainty: azeotrope x1=0.9+-0.01, T=78+-0.1 degC, "
              "P=101.325 kPa; critical T=320+-1 K; plait x1=0.3+-0.02, x2=0.2, T=298.15 K")
          ->type_name("POINT"));
  repeatable(
      command
          .add_option("--offset", words.offsets,
                      "Let every set of boiling points be off as a whole, so much or so: T=0.2 K, P=0.5 %")
          ->type_name("QUANTITY=UNCERTAINTY"));
  command.add_flag("--no-split", words.no_split,
                   "Of two substances: only parameters with which the liquid does not part");
  command
      .add_option(
          "--errors", words.errors,
          "What standard errors rest on: stated uncertainties (default), or where it is larger the scatter "
          "of all points, or of each of several sets, which weighs the sets by it")
      ->type_name("stated|scatter|sets");
  command
      .add_option("--pure", words.pure,
                  "Vapour pressures: bank (default), own (scaled to the pure points of the data) or fit "
                  "(factors that are "
                  "fitted too)")
      ->type_name("bank|own|fit");
  command
      .add_option("--pure-uncertainty", words.u_pure,
                  "How well the vapour pressures are known before they are fitted (default 0.5 %)")
      ->type_name("PERCENT");
  command.add_flag("--robust", words.robust, "Huber loss beyond three standard uncertainties");
  command.add_flag("--profile", words.profile, "95 % intervals from profiles of the objective");
  command
      .add_option("--starts", words.starts,
                  "Starting points of the search (default: until the lowest minimum was reached three times)")
      ->type_name("N");
}

}  // namespace jampot::tool
