// stages: how many a column for two substances needs.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/stages.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct StagesWords {
  MixtureOptions mixture;
  FeedOptions feed;
  std::string top, bottom, pressure = "1 atm", feed_temperature;
  double feed_liquid = 1, reflux = 0, reflux_factor = 1.3, efficiency = 1;
  bool simple = false;
  PresentationOptions presentation;
};

std::array<double, 2> product(const std::string& text, const char* option, const StagesWords& words,
                              const std::vector<Substance>& substances) {
  if (text.empty())
    throw RequestError(
        fmt::format("give --{}, as in --{} \"{}=0.95\"", option, option, substances.front().name));
  const auto x = parse_composition(text, substances, parse_basis(words.mixture.basis));
  return {x[0], x[1]};
}

StagesRequest request_of(const StagesWords& words) {
  StagesRequest request;
  request.mixture = words.mixture.spec();
  const auto& substances = request.mixture.substances;
  request.feed = words.feed.read(substances, words.mixture.basis);
  request.top = product(words.top, "top", words, substances);
  request.bottom = product(words.bottom, "bottom", words, substances);
  request.P_Pa = parse_quantity(words.pressure, Dimension::pressure);
  request.feed_liquid = words.feed_liquid;
  if (!words.feed_temperature.empty())
    request.feed_T_K = parse_quantity(words.feed_temperature, Dimension::temperature);
  if (words.reflux != 0) request.reflux = words.reflux;
  request.reflux_factor = words.reflux_factor;
  request.efficiency = words.efficiency;
  request.simple = words.simple;
  return request;
}

}  // namespace

void add_stages(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<StagesWords>();
  Command& command = tool.add(
      "stages", "A column for two substances: least reflux, stages, feed stage, duties, drawn on x-y");
  add_mixture(command, words->mixture, true);
  add_vapour(command, words->mixture.vapour);
  add_feed(command, words->feed);
  command.option("--top", words->top, "COMPOSITION", "Composition of the distillate, \"methanol=0.98\"");
  command.option("--bottom", words->bottom, "COMPOSITION", "Composition of the bottom product");
  command.option("--pressure", words->pressure, "QUANTITY", "Pressure of the column (default \"1 atm\")");
  command.option("--feed-temperature", words->feed_temperature, "QUANTITY",
                 "Temperature of a liquid feed, from which its thermal state follows");
  command.option(
      "--feed-liquid", words->feed_liquid, "NUMBER",
      "Liquid fraction of the feed, q: 1 boiling liquid (default), 0 saturated vapour, above 1 subcooled");
  command.option("--reflux", words->reflux, "NUMBER", "Reflux over distillate (default 1.3 times the least)");
  command.option("--reflux-factor", words->reflux_factor, "NUMBER",
                 "Reflux as a multiple of the least (default 1.3)");
  command.option("--efficiency", words->efficiency, "NUMBER",
                 "Murphree vapour efficiency of every stage (default 1)");
  command.flag("--simple", words->simple,
               "Also calculate the simple distillation of the feed (a still without a column)");
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example:\n  jampot stages methanol water --feed \"methanol=0.4, water=0.6\" --top methanol=0.98 "
      "--bottom "
      "methanol=0.02 --figure column.svg";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    return answer(study(request_of(*words)), asked(presentation, words->mixture));
  });
}

}  // namespace jampot::tool
