// txy, pxy and xy: diagrams of a binary at one or several pressures or temperatures.
#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/binary.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

enum class Diagram { txy, pxy, xy };

struct BinaryOptions {
  MixtureOptions mixture;
  Condition condition;
  int points = 101;
  std::vector<std::string> measured;
  bool overview = false, working = false, uncertainty = false;
  PresentationOptions presentation;
};

void check_condition(Diagram diagram, const Condition& condition) {
  if (diagram == Diagram::txy && !condition.temperature.empty()) {
    throw RequestError("txy is drawn at a --pressure; at a temperature the diagram is pxy");
  }
  if (diagram == Diagram::pxy && !condition.pressure.empty()) {
    throw RequestError("pxy is drawn at a --temperature; at a pressure the diagram is txy");
  }
}

BinaryRequest request_of(Diagram diagram, const BinaryOptions& options) {
  check_condition(diagram, options.condition);
  BinaryRequest request;
  request.points = options.points;
  request.held = read_held(options.condition);
  read_mixture(options.mixture, request);
  request.measured = read_overlays(options.measured, request.mixture.substances, *options.mixture.bank());
  request.uncertainty = options.uncertainty;
  request.working = options.working;
  return request;
}

void add_one(Commands& tool, Presenter& presenter, Diagram diagram, const std::string& name,
             const std::string& about, const std::string& example) {
  auto options = std::make_shared<BinaryOptions>();
  Command& command = tool.add(name, about);
  add_mixture(command, options->mixture, true);
  add_vapour(command, options->mixture.vapour);
  add_non_volatile(command, options->mixture.non_volatile);
  add_compare(command, options->mixture);
  add_condition(command, options->condition);
  command.option("--points", options->points, "N", "Points along the composition (default 101)");
  command
      .option("--measured", options->measured, "FILE",
              "Measured data to draw and compare, with deviations; may be repeated")
      .repeated();
  command.flag("--overview", options->overview,
               "Draw the boiling diagram, x-y and activity coefficients in one figure");
  command.flag("--uncertainty", options->uncertainty,
               "Draw and tabulate bands of two standard uncertainties from the parameter covariance");
  command.flag("--working", options->working, "Write out the calculation of one point, equation by equation");
  add_presentation(command, options->presentation, true);
  command.footer = "Example:\n  " + example;
  answers(command, options->presentation, presenter, [options, diagram](const Presentation& presentation) {
    BinaryAnswerOptions wanted{asked(presentation, options->mixture)};
    wanted.xy_asked = diagram == Diagram::xy;
    wanted.diagram = options->overview ? BinaryDiagram::overview
                     : wanted.xy_asked ? BinaryDiagram::xy
                                       : BinaryDiagram::boiling;
    return answer(study(request_of(diagram, *options)), wanted);
  });
}

}  // namespace

void add_binary_diagrams(Commands& tool, Presenter& presenter) {
  add_one(tool, presenter, Diagram::txy, "txy",
          "Boiling and dew temperatures of a binary at one or several pressures",
          "jampot txy ethanol toluene --liquid ideal --pressure \"1, 2 bar\" --figure txy.svg");
  add_one(tool, presenter, Diagram::pxy, "pxy",
          "Boiling and dew pressures of a binary at one or several temperatures",
          "jampot pxy ethanol toluene --liquid ideal --temperature \"60, 70 degC\" --figure pxy.svg");
  add_one(tool, presenter, Diagram::xy, "xy", "Vapour against liquid composition of a binary",
          "jampot xy ethanol toluene --liquid ideal --pressure \"1 atm\" --figure xy.svg");
}

}  // namespace jampot::tool
