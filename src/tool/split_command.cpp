// split: a feed parted into its liquids, with amounts, densities and duty.
#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/split.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct SplitOptions {
  MixtureOptions mixture;
  FeedOptions feed;
  std::string temperature, pressure = "1 atm", feed_temperature, duty, rich_in;
  bool working = false;
  PresentationOptions presentation;
};

SplitRequest request_of(const SplitOptions& options) {
  SplitRequest request;
  read_mixture(options.mixture, request);
  request.feed = options.feed.read(request.mixture.substances, options.mixture.basis);
  request.P_Pa = parse_quantity(options.pressure, Dimension::pressure);
  if (!options.feed_temperature.empty())
    request.feed_T_K = parse_quantity(options.feed_temperature, Dimension::temperature);
  if (!options.rich_in.empty()) request.rich_in = member_named(options.rich_in, request.mixture.substances);
  if (options.temperature.empty() == options.duty.empty())
    throw RequestError(
        "give --temperature of the liquids, or --duty with --feed-temperature to have it found");
  if (!options.duty.empty() && (!request.feed_T_K || !request.feed.sized))
    throw RequestError("a duty needs --feed-temperature and a feed with amounts or flows");
  if (options.duty.empty()) {
    request.T_K = parse_quantities(options.temperature, Dimension::temperature);
  } else {
    request.duty = parse_quantity(options.duty, request.feed.flows ? Dimension::power : Dimension::energy);
  }
  request.working = options.working;
  return request;
}

}  // namespace

void add_split(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<SplitOptions>();
  Command& command =
      tool.add("split", "Liquid-liquid split of a feed: amounts, compositions, densities, duty");
  add_mixture(command, options->mixture, false);
  add_compare(command, options->mixture);
  add_feed(command, options->feed);
  command.option("--temperature", options->temperature, "QUANTITY",
                 "Temperature of the liquids: \"25 degC\", a list or a range");
  command.option("--pressure", options->pressure, "QUANTITY",
                 "Pressure at which vapour formation is checked (default \"1 atm\")");
  command.option("--feed-temperature", options->feed_temperature, "QUANTITY",
                 "Temperature of the feed, for the duty");
  command.option("--duty", options->duty, "QUANTITY",
                 "Heat supplied to the feed, instead of --temperature: \"-40 kW\" cools");
  command.option("--rich-in", options->rich_in, "NAME",
                 "The liquid richest in this comes first (default: the lighter)");
  command.flag("--working", options->working, "Write out the activity coefficients of the first liquid");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot split \"ethyl acetate\" ethanol water --feed \"ethyl acetate=600 kg/h, ethanol=60 kg/h, "
      "water=840 kg/h\" --feed-temperature \"60 degC\" --temperature \"25 degC\"";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(request_of(*options)), asked(presentation, options->mixture));
  });
}

}  // namespace jampot::tool
