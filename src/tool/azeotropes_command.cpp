// azeotropes: all of them, of all orders, with the way residue curves run about them.
#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/azeotropes.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

struct AzeotropesOptions {
  MixtureOptions mixture;
  std::string pressure;
  bool all = false, uncertainty = false, working = false;
  PresentationOptions presentation;
};

AzeotropesRequest request_of(const AzeotropesOptions& options) {
  AzeotropesRequest request;
  read_mixture(options.mixture, request);
  if (options.pressure.empty())
    throw RequestError("give the --pressure, as in --pressure \"1 atm\" or \"1, 2, 5 bar\"");
  request.P_Pa = parse_quantities(options.pressure, Dimension::pressure);
  request.uncertainty = options.uncertainty;
  request.working = options.working;
  return request;
}

}  // namespace

void add_azeotropes(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<AzeotropesOptions>();
  Command& command = tool.add(
      "azeotropes", "All azeotropes of two to five substances, each with its stability for residue curves");
  add_mixture(command, options->mixture, false);
  add_vapour(command, options->mixture.vapour);
  add_compare(command, options->mixture);
  command.option("--pressure", options->pressure, "QUANTITY",
                 "\"1 atm\", or several to see how azeotropes move: \"0.2 to 5 by 0.4 bar\"");
  command.flag("--all", options->all, "List the pure substances too");
  command.flag("--uncertainty", options->uncertainty,
               "Standard uncertainties of T and mole fractions, propagated from the fitted parameters");
  command.flag("--working", options->working, "Write out the first azeotrope, equation by equation");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n  jampot azeotropes acetone chloroform methanol --liquid unifac --pressure \"1 atm\" --all";
  answers(command, options->presentation, presenter, [options, &presenter](const Presentation& presentation) {
    AzeotropesRequest request = request_of(*options);
    Progress progress;
    const ProgressLine line("searches for azeotropes", progress, presenter.shows_progress());
    request.progress = &progress;
    return answer(study(request), {asked(presentation, options->mixture), options->all});
  });
}

}  // namespace jampot::tool
