// regress: pair parameters from measured data.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/report/regress.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct RegressOptions {
  std::vector<std::string> files, substance_files, non_volatile;
  std::string model = "nrtl", objective = "maximum-likelihood", form = "inverse_T", out, report;
  std::vector<std::string> hold, release, tie, exclude;
  int starts = 16, folds = 5;
  VapourWords vapour;
  bool robust = false, profile = false;
  PresentationOptions presentation;
};

FitOptions read_fit_options(const RegressOptions& options) {
  FitOptions fit;
  fit.objective = parse_objective(options.objective);
  fit.form = parse_form(options.form);
  fit.release = options.release;
  fit.robust = options.robust;
  fit.profiles = options.profile ? Profiles::always : Profiles::when_nonlinear;
  if (options.starts < 1 || options.starts > 10000)
    throw RequestError("--starts: expected a number from 1 to 10000");
  fit.starts = options.starts;
  for (const std::string& text : options.hold) {
    const std::size_t equals = text.find('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(text.substr(equals + 1));
    if (!value)
      throw RequestError(fmt::format("--hold '{}': expected NAME=VALUE, as in --hold alpha=0.3", text));
    fit.hold[std::string(trimmed(std::string_view(text).substr(0, equals)))] = *value;
  }
  for (const std::string& text : options.tie) {
    const std::vector<std::string> names = split(text, '=');
    if (names.empty() || names.size() > 2 || names.front().empty() || names.back().empty())
      throw RequestError(fmt::format(
          "--tie '{}': expected TERM=TERM, as in --tie tau_21=tau_12, or TERM alone: one value for all pairs",
          text));
    fit.tie[names.front()] = names.back();
  }
  return fit;
}

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

RegressRequest request_of(const RegressOptions& options) {
  RegressRequest request;
  request.options = read_fit_options(options);
  const auto bank = bank_with(options.substance_files);
  request.options.vapour = options.vapour.choice(*bank);
  request.sets = read_measured_files(options.files, *bank);
  mark_in_sets(options.non_volatile, *bank, request.sets);
  exclude_points(options.exclude, request.sets);
  request.models = split(options.model, ',');
  request.folds = options.folds;
  request.others_beside = !options.report.empty();
  return request;
}

Answer regress(const RegressOptions& options, const Presentation& presentation, bool shows_progress) {
  RegressRequest request = request_of(options);
  Progress progress;
  request.options.progress = &progress;
  const ProgressLine line("fitting, descents done", progress, shows_progress);
  const RegressStudy found = study(request);
  Answer told = answer(found, {presentation.units, Basis::mole, !presentation.figure.empty()});
  if (!options.out.empty()) told.files.emplace_back(options.out, pairs_text(found.best()));
  if (options.report.empty()) return told;
  for (const auto& file : fit_report(found, presentation.units).write(options.report, presentation.units))
    told.lines.push_back("wrote " + file.string());
  return told;
}

}  // namespace

void add_regress(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<RegressOptions>();
  CLI::App* command = tool.add_subcommand("regress", "Fit pair parameters to measured equilibria");
  command->add_option("FILE", options->files, "Measured data (docs/files.md); several are fitted together")
      ->required()
      ->type_name("FILE");
  add_substance_files(*command, options->substance_files);
  command
      ->add_option("--model", options->model,
                   "Liquid model: wilson, nrtl (default), uniquac, margules or redlich-kister")
      ->type_name("MODEL");
  add_non_volatile(*command, options->non_volatile);
  add_vapour(*command, options->vapour);
  command
      ->add_option(
          "--objective", options->objective,
          "maximum-likelihood (errors in every measured quantity), bubble-pressure or bubble-temperature")
      ->type_name("NAME");
  command
      ->add_option("--form", options->form,
                   "Coefficients of the temperature dependence: constant, inverse_T, log_T, linear_T "
                   "(default inverse_T)")
      ->type_name("LIST");
  repeatable(
      command
          ->add_option("--hold", options->hold, "Hold a term at a value (default alpha=0.3); may be repeated")
          ->type_name("NAME=VALUE"));
  repeatable(
      command->add_option("--release", options->release, "Fit a term that is held by default, as alpha is")
          ->type_name("NAME"));
  repeatable(command
                 ->add_option("--tie", options->tie,
                              "Let a term take the value of another; TERM alone: one value for all pairs")
                 ->type_name("TERM=TERM"));
  repeatable(command
                 ->add_option("--exclude", options->exclude,
                              "Leave a point out: its line in the file and the reason")
                 ->type_name("LINE:REASON"));
  command->add_flag("--robust", options->robust, "Huber loss beyond three standard uncertainties");
  command->add_flag("--profile", options->profile, "95 % intervals from profiles of the objective");
  command->add_option("--folds", options->folds, "Of the cross validation when models are ranked (default 5)")
      ->type_name("N");
  command->add_option("--starts", options->starts, "Starting points of the search (default 16)")
      ->type_name("N");
  command->add_option("--report", options->report, "Write a page on the fit, with its figures: .md or .html")
      ->type_name("FILE");
  command->add_option("--out", options->out, "Write the parameters to this file")
      ->type_name("FILE.pairs.toml");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example ('jampot demo' writes the made-up data):\n"
      "  jampot regress jampot-demo/mtbe-methanol.csv --out mtbe-methanol.pairs.toml --figure residuals.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(regress(*options, presentation, presenter.shows_progress()), presentation);
  });
}

}  // namespace jampot::tool
