// regress: pair parameters from measured data.
#include <fmt/format.h>

#include "fit_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct RegressOptions {
  std::vector<std::string> files, substance_files;
  std::string model = "nrtl", objective = "maximum-likelihood", form = "inverse_T", out;
  std::vector<std::string> hold, release;
  int starts = 16;
  PresentationOptions presentation;
};

FitOptions read_fit_options(const RegressOptions& options) {
  FitOptions fit;
  fit.model = options.model;
  fit.objective = parse_objective(options.objective);
  fit.form = parse_form(options.form);
  fit.release = options.release;
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
  return fit;
}

Answer regress(const RegressOptions& options) {
  const FitOptions fit_options = read_fit_options(options);
  const auto bank = bank_with(options.substance_files);
  std::vector<DataSet> sets;
  for (const std::string& file : options.files) sets.push_back(read_measured(file, *bank));
  const Fit result = fit(sets, fit_options);

  Answer answer;
  answer.json = answer_header("regress", result.mixture());
  Json json = jampot::to_json(result);
  answer.json["residuals"] = json["residuals"];
  answer.tables = {parameter_table(result), statistics_table(result)};
  const Sought sought = isobaric(sets.front().kind) ? Sought::temperature : Sought::pressure;
  if (const auto azeotropes = fitted_azeotropes(result, sought)) {
    json["azeotropes"] = to_json(*azeotropes);
    if (!azeotropes->curve.azeotropes.empty()) answer.tables.push_back(table_of(*azeotropes, result));
  }
  answer.json["fits"] = Json::array({std::move(json)});
  answer.tables.push_back(residual_table(result));
  answer.notices = result.notices;
  answer.figure = residual_figure(result);
  if (!options.out.empty()) answer.files.emplace_back(options.out, pairs_text(result));
  return answer;
}

}  // namespace

void add_regress(CLI::App& tool) {
  auto options = std::make_shared<RegressOptions>();
  CLI::App* command =
      tool.add_subcommand("regress", "Fit pair parameters to measured vapour-liquid equilibria");
  command->add_option("FILE", options->files, "Measured data (docs/files.md); several are fitted together")
      ->required()
      ->type_name("FILE.csv");
  add_substance_files(*command, options->substance_files);
  const auto repeatable = [](CLI::Option* option) {
    option->expected(1)->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  };
  command->add_option("--model", options->model, "Liquid model: wilson, nrtl (default) or uniquac")
      ->type_name("MODEL");
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
  command->add_option("--starts", options->starts, "Starting points of the search (default 16)")
      ->type_name("N");
  command->add_option("--out", options->out, "Write the parameters to this file")
      ->type_name("FILE.pairs.toml");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example ('jampot demo' writes the made-up data):\n"
      "  jampot regress jampot-demo/mtbe-methanol.csv --out mtbe-methanol.pairs.toml --figure residuals.svg");
  command->callback([options] {
    const Presentation presentation = options->presentation.read();
    present(regress(*options), presentation);
  });
}

}  // namespace jampot::tool
