// swing: whether two pressures part what an azeotrope holds together.

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/swing.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct SwingWords {
  MixtureOptions mixture;
  FeedOptions feed;
  std::string pressure;
  double purity = 0.99, distance = 0.01, reflux_factor = 1.3;
  PresentationOptions presentation;
};

SwingRequest request_of(const SwingWords& words) {
  SwingRequest request;
  request.mixture = words.mixture.spec();
  request.feed = words.feed.read(request.mixture.substances, words.mixture.basis);
  const auto pressures =
      words.pressure.empty() ? std::vector<double>{} : parse_quantities(words.pressure, Dimension::pressure);
  if (pressures.size() != 2)
    throw RequestError("give two values of --pressure, as in --pressure \"1, 10 bar\"");
  request.P_Pa = {pressures[0], pressures[1]};
  request.purity = words.purity;
  request.distance = words.distance;
  request.reflux_factor = words.reflux_factor;
  return request;
}

}  // namespace

void add_swing(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<SwingWords>();
  Command& command =
      tool.add("swing", "Two columns at two pressures around an azeotrope: balances, recycle, stages, heat");
  add_mixture(command, words->mixture, true);
  add_vapour(command, words->mixture.vapour);
  add_feed(command, words->feed);
  command.option("--pressure", words->pressure, "LIST", "Pressures of the two columns, \"1, 10 bar\"");
  command.option("--purity", words->purity, "NUMBER", "Mole fraction of each product (default 0.99)");
  command.option("--distance", words->distance, "NUMBER",
                 "Distance of the products from azeotropes, in mole fraction (default 0.01)");
  command.option("--reflux-factor", words->reflux_factor, "NUMBER",
                 "Reflux of each column as a multiple of its least (default 1.3)");
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example:\n  jampot swing tetrahydrofuran water --feed \"tetrahydrofuran=0.5, water=0.5\" --pressure "
      "\"1, 8 bar\" "
      "--figure swing.svg";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    return answer(study(request_of(*words)), asked(presentation, words->mixture));
  });
}

}  // namespace jampot::tool
