// bubble and dew: points of a mixture of any number of substances.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/compositions_csv.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/points.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct PointOptions {
  MixtureOptions mixture;
  Condition condition;
  std::vector<std::string> compositions, measured;
  std::string slice;
  int points = 21;
  bool working = false;
  PresentationOptions presentation;
};

// "water=0.1": that fraction held, the other two of three varied from one to the other.
Slice read_slice(const PointOptions& options, const std::vector<Substance>& substances, Basis basis) {
  const std::string& text = options.slice;
  const std::size_t equals = text.find('=');
  const auto held = equals == std::string::npos ? std::nullopt : parse_number(text.substr(equals + 1));
  if (substances.size() != 3 || !held || !(*held >= 0 && *held < 1))
    throw RequestError(fmt::format("--slice '{}': expected NAME=FRACTION, of three substances", text));
  try {
    return {member_named(std::string(trimmed(text.substr(0, equals))), substances), *held, options.points,
            basis};
  } catch (const RequestError&) {
    throw RequestError(fmt::format("--slice '{}': the name is not one of the three substances", text));
  }
}

// Without a condition the measured points bring their own, but only where there are no other compositions.
Held held_by(const PointOptions& options, bool measured) {
  const bool own = options.condition.temperature.empty() && options.condition.pressure.empty() && measured &&
                   options.compositions.empty() && options.slice.empty();
  return own ? Held{} : read_held(options.condition);
}

PointsRequest request_of(const PointOptions& options, bool bubble) {
  PointsRequest request;
  read_mixture(options.mixture, request);
  const std::vector<Substance>& substances = request.mixture.substances;
  const Basis basis = parse_basis(options.mixture.basis);
  request.measured = read_overlays(options.measured, substances, *options.mixture.bank());
  request.held = held_by(options, !request.measured.empty());
  for (const std::string& text : options.compositions) {
    if (lower_case(text).ends_with(".csv")) {
      for (auto& x : read_compositions(text, substances, basis)) request.compositions.push_back(std::move(x));
    } else {
      request.compositions.push_back(parse_composition(text, substances, basis));
    }
  }
  if (!options.slice.empty()) request.slice = read_slice(options, substances, basis);
  if (request.compositions.empty() && !request.slice && request.measured.empty())
    throw RequestError(fmt::format("give the {}'s --composition, as in --composition \"{}=0.3\"",
                                   bubble ? "liquid" : "vapour", substances[0].name));
  request.working = options.working;
  return request;
}

void add_one(Commands& tool, Presenter& presenter, const std::string& name, bool bubble,
             const std::string& about, const std::string& example) {
  auto options = std::make_shared<PointOptions>();
  Command& command = tool.add(name, about);
  add_boiling_mixture(command, options->mixture, options->condition);
  command
      .option("--composition", options->compositions, "TEXT",
              "\"A=0.3, B=0.7\", the last may be left out; or a CSV file with x1, x2 ...; may be repeated")
      .repeated();
  if (bubble) {
    command
        .option("--measured", options->measured, "FILE",
                "Measured data to compare with; without --composition at their own conditions")
        .repeated();
  }
  command.option("--slice", options->slice, "NAME=FRACTION",
                 "Of three substances: fix one fraction and vary the others, \"water=0.1\"");
  command.option("--points", options->points, "N", "Points of a slice (default 21)");
  command.flag("--working", options->working,
               "Write out the calculation of the first point, equation by equation");
  add_presentation(command, options->presentation, true);
  command.footer = "Example:\n  " + example;
  answers(command, options->presentation, presenter, [options, bubble](const Presentation& presentation) {
    PointsRequest request = request_of(*options, bubble);
    return answer(bubble ? study(BubbleRequest{std::move(request)}) : study(DewRequest{std::move(request)}),
                  asked(presentation, options->mixture));
  });
}

}  // namespace

void add_bubble_and_dew(Commands& tool, Presenter& presenter) {
  add_one(tool, presenter, "bubble", true,
          "Bubble point of a liquid: T at P or P at T, with the equilibrium vapour",
          "jampot bubble ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--pressure \"1, 2 bar\"");
  add_one(tool, presenter, "dew", false,
          "Dew point of a vapour: T at P or P at T, with the equilibrium liquid",
          "jampot dew ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--temperature \"70 degC\"");
}

}  // namespace jampot::tool
