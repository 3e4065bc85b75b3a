// solubility: two liquids of a pair against temperature.
#include "commands.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/solubility.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct SolubilityOptions {
  MixtureOptions mixture;
  std::string temperature = "0 to 100 by 5 degC";
  std::vector<std::string> measured;
  bool logarithmic = false, working = false;
  PresentationOptions presentation;
};

SolubilityRequest request_of(const SolubilityOptions& options) {
  SolubilityRequest request;
  read_mixture(options.mixture, request);
  request.T_K = parse_quantities(options.temperature, Dimension::temperature);
  request.measured = read_overlays(options.measured, request.mixture.substances, *options.mixture.bank(),
                                   Overlay::two_liquids);
  request.working = options.working;
  return request;
}

}  // namespace

void add_solubility(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<SolubilityOptions>();
  Command& command = tool.add("solubility", "Mutual solubility of a pair against temperature");
  add_mixture(command, options->mixture, true);
  add_compare(command, options->mixture);
  command.option("--temperature", options->temperature, "QUANTITY",
                 "\"25 degC\", a list or a range (default \"0 to 100 by 5 degC\")");
  command
      .option("--measured", options->measured, "FILE",
              "Measured mutual solubilities to draw and compare, with deviations")
      .repeated();
  command.flag("--logarithmic", options->logarithmic,
               "Draw each solubility by itself on a logarithmic axis: the dilute side magnified");
  command.flag("--working", options->working, "Write out the activity coefficients of the first liquid");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example (predicted; with --parameters the fitted pair is used):\n"
      "  jampot solubility 1-butanol water --temperature \"0 to 90 by 10 degC\" --figure solubility.svg";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(request_of(*options)), {asked(presentation, options->mixture), options->logarithmic});
  });
}

}  // namespace jampot::tool
