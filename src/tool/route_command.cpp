// route: columns and decanters that make pure products of three substances.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/route.hpp"
#include "progress_line.hpp"
#include "triangle_options.hpp"

namespace jampot::tool {
namespace {

struct RouteWords {
  MixtureOptions mixture;
  TriangleOptions triangle;
  FeedOptions feed;
  std::string pressure, decanter;
  int most_units = 5, curves = 15;
  PresentationOptions presentation;
};

RouteRequest request_of(const RouteWords& words) {
  RouteRequest request;
  request.mixture = words.mixture.spec();
  if (request.mixture.substances.size() != 3)
    throw RequestError(fmt::format("a route is read off a map of three substances; {} are named",
                                   request.mixture.substances.size()));
  if (words.pressure.empty()) throw RequestError("give the --pressure, as in --pressure \"1 atm\"");
  request.P_Pa = parse_quantity(words.pressure, Dimension::pressure);
  request.feed = words.feed.read(request.mixture.substances, words.mixture.basis);
  if (!words.decanter.empty()) request.decanter_T_K = parse_quantity(words.decanter, Dimension::temperature);
  if (words.most_units < 1 || words.most_units > 6)
    throw RequestError(fmt::format("--most-units {}: expected 1 to 6", words.most_units));
  request.most_units = static_cast<std::size_t>(words.most_units);
  request.curves = words.curves;
  return request;
}

}  // namespace

void add_route(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<RouteWords>();
  Command& command = tool.add(
      "route", "Sequences of columns and decanters for pure products of three substances, by residue curves");
  add_mixture(command, words->mixture, false);
  add_vapour(command, words->mixture.vapour);
  command.option("--pressure", words->pressure, "QUANTITY", "Pressure of all columns, \"1 atm\"");
  add_feed(command, words->feed);
  command.option("--decanter", words->decanter, "QUANTITY",
                 "Temperature of the decanter (default: the boiling temperature)");
  command.option("--most-units", words->most_units, "N",
                 "Columns and decanters together, 1 to 6 (default 5)");
  command.option("--curves", words->curves, "N", "How many curves the map has (default 15)");
  add_triangle(command, words->triangle, residue_layers());
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot route ethanol water benzene --liquid unifac --pressure \"1 atm\" --feed \"ethanol=0.85, "
      "water=0.15\" --decanter \"25 degC\" --figure route.svg";
  answers(command, words->presentation, presenter, [words, &presenter](const Presentation& presentation) {
    RouteRequest request = request_of(*words);
    ResidueAnswerOptions wanted{asked(presentation, words->mixture), {}};
    words->triangle.read(wanted.looks, request.mixture.substances, wanted.basis, residue_layers());
    Progress progress;
    const ProgressLine line("azeotropes and curves", progress, presenter.shows_progress());
    request.progress = &progress;
    return answer(study(request), wanted);
  });
}

}  // namespace jampot::tool
