// gamma: activity coefficients at points, along a composition, and at infinite dilution against temperature.
#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/gamma.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct GammaOptions {
  MixtureOptions mixture;
  std::string temperature;
  std::vector<std::string> compositions, measured;
  int points = 51;
  bool limiting = false, working = false;
  PresentationOptions presentation;
};

// Takes MOSCED, which is no model of a mixture, out of the models asked for.
MoscedPlace take_mosced(MixtureOptions& mixture) {
  bool beside = false;
  std::vector<std::string> rest;
  for (const std::string& piece : split(mixture.compare, ',')) {
    beside = beside || piece == "mosced";
    if (piece != "mosced" && !piece.empty()) rest.push_back(piece);
  }
  const bool first = mixture.liquid == "mosced", alone = first && rest.empty();
  if (first) mixture.liquid = rest.empty() ? "ideal" : rest.front();
  if (first && !rest.empty()) rest.erase(rest.begin());
  mixture.compare = joined(rest, ",");
  return alone    ? MoscedPlace::alone
         : first  ? MoscedPlace::first
         : beside ? MoscedPlace::last
                  : MoscedPlace::none;
}

GammaRequest request_of(const GammaOptions& options) {
  GammaRequest request;
  if (options.temperature.empty()) throw RequestError("give --temperature, as in --temperature \"60 degC\"");
  request.T_K = parse_quantities(options.temperature, Dimension::temperature);
  MixtureOptions mixture = options.mixture;
  request.mosced = take_mosced(mixture);
  read_mixture(mixture, request);
  const std::vector<Substance>& substances = request.mixture.substances;
  const Basis basis = parse_basis(mixture.basis);
  for (const std::string& text : options.compositions)
    request.compositions.push_back(parse_composition(text, substances, basis));
  request.points = options.points;
  request.limiting = options.limiting;
  request.measured = read_overlays(options.measured, substances, *mixture.bank(),
                                   options.limiting ? Overlay::limits : Overlay::activity);
  request.working = options.working;
  return request;
}

}  // namespace

void add_gamma(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<GammaOptions>();
  Command& command =
      tool.add("gamma", "Activity coefficients: over composition, at points, or at infinite dilution");
  add_mixture(command, options->mixture, false);
  add_compare(command, options->mixture);
  command.option("--temperature", options->temperature, "QUANTITY", "\"60 degC\", a list or a range");
  command
      .option("--composition", options->compositions, "TEXT",
              "\"A=0.3, B=0.7\"; may be repeated (default: the whole line of a binary)")
      .repeated();
  command
      .option("--measured", options->measured, "FILE",
              "P-T-x-y data to compare, or with --limiting infinite-dilution values; may be repeated")
      .repeated();
  command.option("--points", options->points, "N", "Points along the composition (default 51)");
  command.flag("--limiting", options->limiting,
               "At infinite dilution, each solute in each solvent; --liquid mosced is possible too");
  command.flag("--working", options->working,
               "Write out the calculation of the first point, equation by equation");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example (the output names solute and carrier):\n"
      "  jampot gamma ethanol water --liquid unifac --compare mosced --limiting --temperature \"30 to 90 by "
      "10 degC\"";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(request_of(*options)), asked(presentation, options->mixture));
  });
}

}  // namespace jampot::tool
