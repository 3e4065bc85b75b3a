// known: what handbooks say of some substances, beside what the models say.
#include "commands.hpp"
#include "jampot/report/known.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct KnownWords {
  MixtureOptions mixture;
  bool rank = false;
  PresentationOptions presentation;
};

}  // namespace

void add_known(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<KnownWords>();
  Command& command = tool.add("known", "Handbook facts about these substances, compared with each model");
  add_mixture(command, words->mixture, false);
  command.flag("--rank", words->rank, "Rank the models by their agreement with these facts");
  add_presentation(command, words->presentation, false);
  command.footer = "Example:\n  jampot known ethanol water --rank";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    const KnownRequest request{words->mixture.spec()};
    return answer(study(request), {{presentation.units}, words->rank});
  });
}

}  // namespace jampot::tool
