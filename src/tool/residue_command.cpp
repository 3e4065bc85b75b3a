// residue: residue curve maps of three substances, and what they say of a feed.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/residue.hpp"
#include "progress_line.hpp"
#include "triangle_options.hpp"

namespace jampot::tool {
namespace {

struct ResidueCommandOptions {
  MixtureOptions mixture;
  TriangleOptions triangle;
  FeedOptions feed;
  std::string pressure, isotherms, decanter;
  std::vector<std::string> through;
  int curves = 25, tie_lines = 12;
  bool working = false;
  PresentationOptions presentation;
};

ResidueRequest request_of(const ResidueCommandOptions& options, bool draws) {
  ResidueRequest request;
  read_mixture(options.mixture, request);
  const std::vector<Substance>& substances = request.mixture.substances;
  if (substances.size() != 3)
    throw RequestError(
        fmt::format("a residue curve map has three substances; {} are named", substances.size()));
  if (options.pressure.empty()) throw RequestError("give the --pressure, as in --pressure \"1 atm\"");
  request.P_Pa = parse_quantity(options.pressure, Dimension::pressure);
  request.curves = options.curves;
  const Basis basis = parse_basis(options.mixture.basis);
  request.through = asked_compositions(options.through, substances, basis);
  request.tie_lines = asked_compositions(options.triangle.tie_lines, substances, basis);
  if (!options.isotherms.empty()) {
    const auto isotherms = parse_quantities(options.isotherms, Dimension::temperature);
    if (draws) request.isotherms_K = isotherms;  // they are drawn and nothing else
  }
  if (!options.decanter.empty())
    request.decanter_T_K = parse_quantity(options.decanter, Dimension::temperature);
  for (const std::string& text : options.feed.texts)
    request.feeds.push_back(three(options.feed.read(text, substances, options.mixture.basis).fractions()));
  if (options.feed.texts.empty() && !options.feed.amount.empty())
    throw RequestError("--amount says how much there is of a --feed; none is given");
  if (request.decanter_T_K && request.feeds.empty())
    throw RequestError("--decanter says at which temperature the liquids of a --feed are parted; give one");
  request.working = options.working;
  return request;
}

}  // namespace

void add_residue(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<ResidueCommandOptions>();
  Command& command = tool.add(
      "residue", "Residue curve map of three substances: curves, azeotropes, boundaries, two liquids");
  add_mixture(command, options->mixture, false);
  add_vapour(command, options->mixture.vapour);
  add_compare(command, options->mixture);
  command.option("--pressure", options->pressure, "QUANTITY", "\"1 atm\"");
  command.option("--curves", options->curves, "N",
                 "How many curves are spread over the triangle (default 25)");
  command
      .option("--through", options->through, "COMPOSITION",
              "The curve through this composition; may be repeated")
      .repeated();
  add_feed(command, options->feed);
  command.option("--decanter", options->decanter, "QUANTITY",
                 "Temperature of the decanter (default: the boiling temperature)");
  command.option("--isotherms", options->isotherms, "QUANTITY",
                 "Lines of these boiling temperatures: \"60 to 100 by 5 degC\"");
  command.option("--tie-lines", options->tie_lines, "N", "How many tie lines are drawn (default 12)");
  add_triangle(command, options->triangle, residue_layers());
  command.flag("--working", options->working, "Write out the first azeotrope, equation by equation");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot residue acetone chloroform methanol --liquid unifac --pressure \"1 atm\" --figure map.svg";
  answers(command, options->presentation, presenter, [options, &presenter](const Presentation& presentation) {
    ResidueRequest request = request_of(*options, presentation.draws());
    ResidueAnswerOptions wanted{asked(presentation, options->mixture), {}};
    wanted.looks.shown_tie_lines = options->tie_lines;
    options->triangle.read(wanted.looks, request.mixture.substances, wanted.basis, residue_layers());
    Progress progress;
    const ProgressLine line("azeotropes and curves", progress, presenter.shows_progress());
    request.progress = &progress;
    return answer(study(request), wanted);
  });
}

}  // namespace jampot::tool
