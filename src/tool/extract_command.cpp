// extract: solvent and stages of a liquid-liquid extraction.

#include "commands.hpp"
#include "jampot/report/extract.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct ExtractWords {
  MixtureOptions mixture;
  FeedOptions feed;
  std::string temperature = "25 degC";
  double raffinate = 0.01, solvent = 0, solvent_factor = 1.5;
  PresentationOptions presentation;
};

ExtractRequest request_of(const ExtractWords& words) {
  ExtractRequest request;
  request.mixture = words.mixture.spec();
  request.basis = parse_basis(words.mixture.basis);
  request.feed = words.feed.read(request.mixture.substances, words.mixture.basis);
  request.T_K = parse_quantity(words.temperature, Dimension::temperature);
  request.raffinate = words.raffinate;
  if (words.solvent != 0) request.solvent = words.solvent;
  request.solvent_factor = words.solvent_factor;
  return request;
}

}  // namespace

void add_extract(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<ExtractWords>();
  Command& command = tool.add(
      "extract", "Extraction: least solvent and stages; name solute, carrier and solvent in this order");
  words->mixture.two_liquids = true;
  add_mixture(command, words->mixture, false);
  add_feed(command, words->feed);
  command.option("--temperature", words->temperature, "QUANTITY",
                 "Temperature of all stages (default \"25 degC\")");
  command.option("--raffinate", words->raffinate, "NUMBER",
                 "Fraction of the solute in the last raffinate, by --basis (default 0.01)");
  command.option("--solvent", words->solvent, "NUMBER",
                 "Amount of solvent per amount of feed, by --basis (default 1.5 times the least)");
  command.option("--solvent-factor", words->solvent_factor, "NUMBER",
                 "Solvent as a multiple of the least (default 1.5)");
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example:\n  jampot extract \"acetic acid\" water \"ethyl acetate\" --feed \"acetic acid=0.2, "
      "water=0.8\" --basis "
      "mass --raffinate 0.02 --figure extraction.svg";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    ExtractAnswerOptions options{asked(presentation, words->mixture), {}};
    return answer(study(request_of(*words)), options);
  });
}

}  // namespace jampot::tool
