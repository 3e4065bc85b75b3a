// next: what to measure next.
#include "commands.hpp"
#include "fit_words.hpp"
#include "jampot/report/next.hpp"

namespace jampot::tool {
namespace {

struct NextWords {
  FitWords fit;
  std::string aim = "azeotrope", rival;
  Condition condition;
  int points = NextOptions().points, batch = 1;
  PresentationOptions presentation;
};

NextRequest request_of(const NextWords& words) {
  NextRequest request;
  request.sets = words.fit.sets();
  request.fit = words.fit.options(request.sets);
  request.fit.model = words.fit.model;
  request.rival = words.rival;
  read_aim(words.aim, request.options);
  request.options.points = words.points;
  request.options.batch = words.batch;
  if (!words.condition.pressure.empty())
    request.options.P_Pa = parse_quantities(words.condition.pressure, Dimension::pressure);
  if (!words.condition.temperature.empty()) {
    request.options.T_K_held = parse_quantities(words.condition.temperature, Dimension::temperature);
    request.options.T_K = request.options.T_K_held.front();
  }
  return request;
}

}  // namespace

void add_next(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<NextWords>();
  Command& command = tool.add("next", "Plan the next measurements: those that reduce an uncertainty most");
  add_fit_words(command, words->fit);
  command.option(
      "--aim", words->aim, "AIM",
      "What to determine better: azeotrope (default), limits, split, parameters, \"T at x=0.3\", or "
      "models: which of two is right");
  command.option("--rival", words->rival, "MODEL", "With the aim models: the other model");
  command.option("--pressure", words->condition.pressure, "LIST",
                 "Pressures of possible measurements (default: those of the data)");
  command.option("--temperature", words->condition.temperature, "LIST",
                 "Temperatures of possible measurements (default: those of the data); with the aim split, "
                 "its temperature");
  command.option("--batch", words->batch, "N", "Plan so many measurements, one after the other (default 1)");
  command.option("--points", words->points, "N", "Compositions tried (default 49)");
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example ('jampot demo' writes the made-up data):\n"
      "  jampot next jampot-demo/mtbe-methanol.csv --aim azeotrope --batch 3 --figure next.svg";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    return answer(study(request_of(*words)), {presentation.units});
  });
}

}  // namespace jampot::tool
