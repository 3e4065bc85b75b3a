// screen: which third substance helps to separate two.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/report/screen.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct ScreenWords {
  MixtureOptions mixture;
  std::string role = "extraction", temperature, pressure, boiling, candidates, families, weights;
  int shown = 15;
  PresentationOptions presentation;
};

// "distribution=2, loss=1"
std::map<std::string, double> weights_of(const std::string& text) {
  std::map<std::string, double> weights;
  for (const std::string& piece : split(text, ',')) {
    if (piece.empty()) continue;
    const std::size_t equals = piece.find('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (!value)
      throw RequestError(
          fmt::format("--weights '{}': expected PART=NUMBER, as in \"distribution=2, loss=1\"", piece));
    weights[std::string(trimmed(piece.substr(0, equals)))] = *value;
  }
  return weights;
}

ScreenRequest request_of(const ScreenWords& words) {
  ScreenRequest request;
  request.mixture = words.mixture.spec();
  request.role = parse_solvent_role(words.role);
  if (!words.temperature.empty()) {
    if (request.role == SolventRole::entrainer)
      throw RequestError("an entrainer works in a column: its temperature follows from the --pressure");
    request.T_K = parse_quantity(words.temperature, Dimension::temperature);
  }
  if (!words.pressure.empty()) request.P_Pa = parse_quantity(words.pressure, Dimension::pressure);
  if (!words.boiling.empty()) {
    const auto ends = parse_quantities(words.boiling + " in 2", Dimension::temperature);
    request.boiling_K = {std::min(ends.front(), ends.back()), std::max(ends.front(), ends.back())};
  }
  const auto bank = words.mixture.bank();
  for (const std::string& name : split(words.candidates, ',')) {
    if (!name.empty()) request.candidates.push_back(bank->require(name));
  }
  if (request.candidates.empty() && !words.mixture.substance_files.empty())
    request.candidates.assign(bank->all().begin(), bank->all().end());
  for (const std::string& family : split(words.families, ',')) {
    if (!family.empty()) request.families.push_back(family);
  }
  request.weights = weights_of(words.weights);
  return request;
}

}  // namespace

void add_screen(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<ScreenWords>();
  Command& command =
      tool.add("screen", "Rank the component databank as solvents that help to separate two substances");
  add_mixture(command, words->mixture, true);
  command.option("--role", words->role, "ROLE",
                 "extraction (default): extract the first from the second with a liquid; entrainer: change "
                 "their relative volatility; absorbent: absorb the first from a gas");
  command.option("--temperature", words->temperature, "QUANTITY",
                 "Temperature of an extraction or absorption (default \"25 degC\")");
  command.option("--pressure", words->pressure, "QUANTITY", "Pressure of the columns (default \"1 atm\")");
  command.option("--candidates", words->candidates, "LIST",
                 "Only these candidates, separated by commas (default: the databank)");
  command.option("--boiling", words->boiling, "RANGE",
                 "Only substances with normal boiling points in this range: \"60 to 120 degC\"");
  command.option(
      "--families", words->families, "LIST",
      "Only these: alkanes, alkenes, aromatics, alcohols, glycols, phenols, ketones, aldehydes, esters, "
      "ethers, amines, nitriles, acids, chlorides ...");
  command.option("--weights", words->weights, "LIST",
                 "Weights of the terms of the score, \"distribution=2, loss=1\"; others keep their defaults");
  command.option("--show", words->shown, "NUMBER",
                 "Candidates to show (default 15); --csv and --json have all");
  add_presentation(command, words->presentation, true);
  command.footer = "Example:\n  jampot screen \"acetic acid\" water --role extraction --figure solvents.svg";
  answers(command, words->presentation, presenter, [words, &presenter](const Presentation& presentation) {
    ScreenRequest request = request_of(*words);
    Progress progress;
    const ProgressLine line("candidates", progress, presenter.shows_progress());
    request.progress = &progress;
    ScreenAnswerOptions options{{presentation.units}, words->shown};
    return answer(study(request), options);
  });
}

}  // namespace jampot::tool
