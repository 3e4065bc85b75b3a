// regress: pair parameters from measured data.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "fit_report.hpp"
#include "fit_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "measured_files.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct RegressOptions {
  std::vector<std::string> files, substance_files, non_volatile;
  std::string model = "nrtl", objective = "maximum-likelihood", form = "inverse_T", out, report;
  std::vector<std::string> hold, release, tie, exclude;
  int starts = 16, folds = 5;
  VapourOptions vapour;
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

// One fit: its tables, its figure, its JSON.
Json add_fit(const Fit& result, Answer& answer) {
  Json json = jampot::to_json(result);
  answer.tables.push_back(parameter_table(result));
  answer.tables.push_back(statistics_table(result));
  const bool with_vapour = std::any_of(result.residuals.begin(), result.residuals.end(),
                                       [](const ResidualRow& row) { return row.used(); });
  if (with_vapour) {
    const auto first = std::find_if(result.residuals.begin(), result.residuals.end(),
                                    [](const ResidualRow& row) { return row.used(); });
    const Sought sought = result.isobaric[first->set] ? Sought::temperature : Sought::pressure;
    if (const auto azeotropes = fitted_azeotropes(result, sought)) {
      json["azeotropes"] = to_json(*azeotropes);
      if (!azeotropes->curve.azeotropes.empty()) answer.tables.push_back(table_of(*azeotropes, result));
    }
    answer.tables.push_back(residual_table(result));
    answer.figure = residual_figure(result);
  }
  if (!result.liquid_residuals.empty()) answer.tables.push_back(liquid_residual_table(result));
  answer.notices.add(result.notices);
  return json;
}

Answer regress(const RegressOptions& options, const Presentation& presentation, bool shows_progress) {
  FitOptions fit_options = read_fit_options(options);
  const auto bank = bank_with(options.substance_files);
  fit_options.vapour = options.vapour.read(*bank);
  std::vector<DataSet> sets = read_measured_files(options.files, *bank);
  for (const std::string& name : options.non_volatile) {
    bool named = false;
    for (DataSet& set : sets) {
      for (Substance& substance : set.substances) {
        if (substance.name != bank->require(name).name) continue;
        mark_non_volatile({name}, set.substances);
        named = true;
      }
    }
    if (!named) throw RequestError(fmt::format("--non-volatile: {} is in none of the data", name));
  }
  exclude_points(options.exclude, sets);
  std::vector<std::string> models;
  for (const std::string& model : split(options.model, ',')) {
    terms_for_fit(model);  // refuses an unknown word before anything is fitted
    models.push_back(model);
  }
  if (models.size() > 1) {
    // What only one of several models has cannot be held or released in all of them.
    for (const std::string& model : models) {
      if (!fit_options.hold.empty() || !fit_options.release.empty() || !fit_options.tie.empty()) {
        throw RequestError(fmt::format(
            "--hold, --release and --tie belong to one model; with {} give none, or fit them one by one",
            model));
      }
    }
  }
  if (options.folds < 2) throw RequestError("--folds: expected at least 2");

  Answer answer;
  Progress progress;
  fit_options.progress = &progress;
  const ProgressLine line("fitting, descents done", progress, shows_progress);
  std::vector<RankedFit> ranked;
  if (models.size() > 1) {
    ranked = rank_models(sets, fit_options, models, options.folds);
  } else {
    fit_options.model = models.front();
    ranked.push_back({fit(sets, fit_options), 0, std::nullopt, ""});
  }
  const Fit& best = ranked.front().fit;
  answer.json = answer_header("regress", best.mixture());
  answer.json["fits"] = Json::array();
  if (ranked.size() > 1) answer.tables.push_back(ranking_table(ranked));
  for (const RankedFit& entry : ranked) {
    Answer own;
    Json json = add_fit(entry.fit, own);
    if (ranked.size() > 1) {
      json["aicc_above_best"] = entry.aicc_above_best;
      json["cross_validation"] = entry.cross_validation ? Json(*entry.cross_validation) : Json(nullptr);
      json["verdict"] = entry.verdict;
    }
    if (&entry == &ranked.front()) {
      answer.json["residuals"] = json.contains("residuals") ? json["residuals"] : Json::array();
      for (Table& table : own.tables) answer.tables.push_back(std::move(table));
      answer.figure = std::move(own.figure);
      answer.notices.add(own.notices);
    }
    json["notices"] = jampot::to_json(own.notices);
    answer.json["fits"].push_back(std::move(json));
  }
  if (ranked.size() > 1)
    answer.lines.push_back(
        fmt::format("details, residuals and notices above are those of {}", best.options.model));
  if (!presentation.figure.empty() && !answer.figure) {
    throw RequestError(
        "the figure of a fit shows residuals of boiling points; there are none among these data");
  }
  if (!options.out.empty()) answer.files.emplace_back(options.out, pairs_text(best));
  if (!options.report.empty()) {
    // The page shows how other models do, whether they were asked for or not, where that needs no further
    // choice.
    std::vector<RankedFit> shown = ranked;
    const bool plain = fit_options.hold.empty() && fit_options.release.empty() && fit_options.tie.empty();
    if (shown.size() == 1 && plain && best.substances.size() == 2) {
      for (const std::string& model : pair_model_names()) {
        if (model == best.options.model) continue;
        FitOptions other = fit_options;
        other.model = model;
        try {
          shown.push_back({fit(sets, other), 0, std::nullopt, "for comparison"});
        } catch (const std::runtime_error&) {
          continue;  // lacks a molecular size, or does not converge
        }
      }
      for (RankedFit& entry : shown) entry.aicc_above_best = entry.fit.aicc - best.aicc;
      shown.front().verdict = "the one reported";
    }
    for (const auto& file :
         fit_report(shown, sets, presentation.units).write(options.report, presentation.units)) {
      answer.lines.push_back("wrote " + file.string());
    }
  }
  return answer;
}

}  // namespace

void add_regress(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<RegressOptions>();
  CLI::App* command = tool.add_subcommand("regress", "Fit pair parameters to measured equilibria");
  command->add_option("FILE", options->files, "Measured data (docs/files.md); several are fitted together")
      ->required()
      ->type_name("FILE");
  add_substance_files(*command, options->substance_files);
  const auto repeatable = [](CLI::Option* option) {
    option->expected(1)->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  };
  command->add_option("--model", options->model, "Liquid model: wilson, nrtl (default), uniquac or margules")
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
  command->add_flag("--robust", options->robust,
                    "Points beyond three standard uncertainties pull no harder than there");
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
