// ternary: liquid-liquid diagrams of three substances.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/ternary.hpp"
#include "triangle_options.hpp"

namespace jampot::tool {
namespace {

struct TernaryCommandOptions {
  MixtureOptions mixture;
  TriangleOptions triangle;
  std::string temperature, solute, solvent;
  std::vector<std::string> measured;
  int count = 25;
  bool overview = false, working = false, uncertainty = false;
  PresentationOptions presentation;
};

TernaryRequest request_of(const TernaryCommandOptions& options) {
  TernaryRequest request;
  read_mixture(options.mixture, request);
  const std::vector<Substance>& substances = request.mixture.substances;
  if (substances.size() != 3)
    throw RequestError(fmt::format("a triangle has three substances; {} are named", substances.size()));
  if (options.temperature.empty()) throw RequestError("give --temperature, as in --temperature \"25 degC\"");
  request.T_K = parse_quantity(options.temperature, Dimension::temperature);
  request.measured =
      read_overlays(options.measured, substances, *options.mixture.bank(), Overlay::two_liquids);
  request.tie_lines = options.count;
  if (!options.solute.empty()) request.solute = member_named(options.solute, substances);
  if (!options.solvent.empty()) request.solvent = member_named(options.solvent, substances);
  request.through =
      asked_compositions(options.triangle.tie_lines, substances, parse_basis(options.mixture.basis));
  request.uncertainty = options.uncertainty;
  request.working = options.working;
  return request;
}

}  // namespace

void add_ternary(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<TernaryCommandOptions>();
  Command& command = tool.add(
      "ternary", "Liquid-liquid diagram of three substances: binodal, tie lines, plait points, distribution");
  add_mixture(command, options->mixture, false);
  add_compare(command, options->mixture);
  command.option("--temperature", options->temperature, "QUANTITY", "\"25 degC\"");
  command.option("--tie-lines", options->count, "N", "How many tie lines are shown (default 25)");
  command.option("--solute", options->solute, "NAME",
                 "Solute (default: the substance in which neither liquid is rich)");
  command.option("--solvent", options->solvent, "NAME",
                 "Extraction solvent (default: of the other two the one named later)");
  command
      .option("--measured", options->measured, "FILE",
              "Measured tie lines to draw and compare, with deviations")
      .repeated();
  add_triangle(command, options->triangle, ternary_layers());
  command.flag("--overview", options->overview, "Draw distribution and selectivity next to the triangle");
  command.flag("--uncertainty", options->uncertainty,
               "Draw and tabulate bands of two standard uncertainties from the parameter covariance");
  command.flag("--working", options->working, "Write out the activity coefficients of one liquid");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot ternary water ethanol \"ethyl acetate\" --temperature \"25 degC\" --figure ternary.svg";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    const TernaryRequest request = request_of(*options);
    TernaryAnswerOptions wanted{asked(presentation, options->mixture), {}, options->overview};
    options->triangle.read(wanted.looks, request.mixture.substances, wanted.basis, ternary_layers());
    return answer(study(request), wanted);
  });
}

}  // namespace jampot::tool
