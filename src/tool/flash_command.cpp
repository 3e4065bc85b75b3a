// flash: the phases of a feed at given temperature and pressure, vapour fraction or enthalpy.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/report/flash.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FlashOptions {
  MixtureOptions mixture;
  Condition condition;
  FeedOptions feed;
  std::string vapour_fraction, duty, feed_temperature, feed_pressure, feed_vapour_fraction,
      reference = "ideal-gas";
  bool adiabatic = false, together = false, working = false;
  PresentationOptions presentation;
};

std::vector<double> values(const std::string& text, Dimension dimension) {
  return text.empty() ? std::vector<double>{} : parse_quantities(text, dimension);
}

std::optional<double> value(const std::string& text, Dimension dimension) {
  return text.empty() ? std::nullopt : std::optional(parse_quantity(text, dimension));
}

void demand_two(const FlashOptions& options, bool T, bool P, bool share) {
  const bool heat = options.adiabatic || !options.duty.empty();
  if (options.adiabatic && !options.duty.empty())
    throw RequestError("--adiabatic and --duty exclude each other: adiabatic is a duty of zero");
  if (T + P + share + heat != 2 || (heat && !P)) {
    throw RequestError(
        "give two: --temperature and --pressure, --pressure and --vapour-fraction, --temperature and "
        "--vapour-fraction, or --pressure and --adiabatic (or --duty); as in --temperature \"80 degC\" "
        "--pressure \"1 atm\"");
  }
  const bool state = !options.feed_temperature.empty() || !options.feed_vapour_fraction.empty();
  if (heat && !state)
    throw RequestError(
        "an adiabatic flash, or one with a duty, needs the state of the feed: --feed-temperature and "
        "--feed-pressure");
  if (!state && !options.feed_pressure.empty())
    throw RequestError(
        "--feed-pressure alone does not give the state of the feed: give --feed-temperature as well");
}

// The heat into every specification: of the whole feed, or of a mole of it.
void add_heat(const FlashOptions& options, const std::vector<Feed>& feeds,
              std::vector<FlashSpecification>& specifications) {
  if (options.adiabatic) {
    for (FlashSpecification& one : specifications) one.heat_J_mol = 0;
  }
  if (options.duty.empty()) return;
  const Dimension dimension =
      dimension_of(options.duty, {Dimension::power, Dimension::energy, Dimension::molar_energy});
  const double heat = parse_quantity(options.duty, dimension);
  if (dimension == Dimension::molar_energy || heat == 0) {
    for (FlashSpecification& one : specifications) one.heat_J_mol = heat;
    return;
  }
  const bool flow = dimension == Dimension::power;
  for (const Feed& feed : feeds) {
    if (feed.sized && feed.flows == flow) continue;
    throw RequestError(fmt::format("--duty is {}, so the --feed must be {}", flow ? "a power" : "an energy",
                                   flow ? "a flow, as in \"1000 kg/h\"" : "an amount, as in \"10 kg\""));
  }
  for (FlashSpecification& one : specifications) one.heat = heat;
}

FlashRequest request_of(const FlashOptions& options) {
  FlashRequest request;
  read_mixture(options.mixture, request);
  request.reference = parse_reference(options.reference);
  const auto T = values(options.condition.temperature, Dimension::temperature);
  const auto P = values(options.condition.pressure, Dimension::pressure);
  const auto share = values(options.vapour_fraction, Dimension::fraction);
  demand_two(options, !T.empty(), !P.empty(), !share.empty());
  request.together = options.together;
  request.specifications = flash_specifications(T, P, share, options.together);
  for (const std::string& text : options.feed.all())
    request.feeds.push_back(options.feed.read(text, request.mixture.substances, options.mixture.basis));
  add_heat(options, request.feeds, request.specifications);
  if (!options.feed_temperature.empty() || !options.feed_vapour_fraction.empty())
    request.incoming = FeedCondition{value(options.feed_temperature, Dimension::temperature),
                                     value(options.feed_pressure, Dimension::pressure),
                                     value(options.feed_vapour_fraction, Dimension::fraction)};
  request.working = options.working;
  return request;
}

}  // namespace

void add_flash(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<FlashOptions>();
  Command& command = tool.add(
      "flash",
      "Flash of a feed at given temperature, pressure, vapour fraction or heat duty: phases and amounts");
  add_boiling_mixture(command, options->mixture, options->condition);
  command.option("--vapour-fraction", options->vapour_fraction, "FRACTION",
                 "Mole fraction that is vapour, instead of --temperature or --pressure; a list or a range");
  command.flag("--adiabatic", options->adiabatic,
               "Keep the enthalpy of the feed, instead of --temperature: expansion to --pressure");
  command.option("--duty", options->duty, "QUANTITY",
                 "Heat supplied to the feed, with its enthalpy: \"50 kW\", \"-200 kJ\"");
  add_feed(command, options->feed);
  command.option("--feed-temperature", options->feed_temperature, "QUANTITY",
                 "State of the feed, for the duty");
  command.option("--feed-pressure", options->feed_pressure, "QUANTITY",
                 "State of the feed (default: the pressure of the flash)");
  command.option("--feed-vapour-fraction", options->feed_vapour_fraction, "FRACTION",
                 "Vapour fraction of the feed: 0 a liquid at its bubble point, 1 a vapour at its dew point");
  command.option(
      "--reference-enthalpy", options->reference, "STATE",
      "State of zero enthalpy: ideal-gas (default), liquid, either with \"at 0 degC\", or elements");
  command.flag("--together", options->together, "Step two ranges in pairs instead of all combinations");
  command.flag("--working", options->working, "Write out the equations of the first result with its numbers");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot flash methane propane n-hexane --liquid eos --vapour pr --feed \"methane=10 kmol/h, "
      "propane=20 kmol/h, n-hexane=30 kmol/h\" --feed-temperature \"60 degC\" --feed-pressure \"40 bar\" "
      "--pressure "
      "\"10 bar\" --adiabatic";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(request_of(*options)), asked(presentation, options->mixture));
  });
}

}  // namespace jampot::tool
