// regress: pair parameters from measured data.

#include "commands.hpp"
#include "fit_words.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/report/regress.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct RegressOptions {
  FitWords fit;
  std::string out, report, picture = "composition";
  int folds = 5;
  PresentationOptions presentation;
};

RegressRequest request_of(const RegressOptions& options) {
  RegressRequest request;
  request.sets = options.fit.sets();
  request.options = options.fit.options(request.sets);
  request.options.region = parse_fit_picture(options.picture) == FitPicture::parameters;
  request.models = split(options.fit.model, ',');
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
  Answer told = answer(found, {{presentation.units, Basis::mole, !presentation.figure.empty()},
                               parse_fit_picture(options.picture)});
  if (!options.out.empty()) told.files.emplace_back(options.out, pairs_text(found.best()));
  if (options.report.empty()) return told;
  for (const auto& file : fit_report(found, presentation.units).write(options.report, presentation.units))
    told.lines.push_back("wrote " + file.string());
  return told;
}

}  // namespace

void add_regress(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<RegressOptions>();
  Command& command = tool.add("regress", "Fit pair parameters to measured equilibria");
  add_fit_words(command, options->fit);
  command.option("--folds", options->folds, "N",
                 "Folds of the cross validation when models are ranked (default 5)");
  command.option("--report", options->report, "FILE",
                 "Write a page on the fit, with its figures: .md or .html");
  command.option("--picture", options->picture, "KIND",
                 "What --figure draws: residuals against composition (default), temperature, pressure or "
                 "order; normal, "
                 "parity, parameters");
  command.option("--out", options->out, "FILE.pairs.toml", "Write the parameters to this file");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example ('jampot demo' writes the made-up data):\n"
      "  jampot regress jampot-demo/mtbe-methanol.csv --out mtbe-methanol.pairs.toml --figure residuals.svg";
  answers(command, options->presentation, presenter, [options, &presenter](const Presentation& presentation) {
    return regress(*options, presentation, presenter.shows_progress());
  });
}

}  // namespace jampot::tool
