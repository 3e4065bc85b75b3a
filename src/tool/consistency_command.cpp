// consistency: what measured data are worth.
#include "commands.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/data.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct ConsistencyWords {
  std::vector<std::string> files, substance_files;
  VapourWords vapour;
  PresentationOptions presentation;
};

}  // namespace

void add_consistency(Commands& tool, Presenter& presenter) {
  auto words = std::make_shared<ConsistencyWords>();
  Command& command =
      tool.add("consistency", "Thermodynamic consistency of measured vapour-liquid equilibria");
  command
      .option("FILE", words->files, "FILE",
              "Measured data with vapour analyses (docs/files.md); files of excess enthalpies enter the "
              "tests of isobaric data")
      .needed();
  add_substance_files(command, words->substance_files);
  add_vapour(command, words->vapour);
  add_presentation(command, words->presentation, true);
  command.footer =
      "Example ('jampot demo' writes the made-up data):\n  jampot consistency jampot-demo/mtbe-methanol.csv "
      "--figure consistency.svg";
  answers(command, words->presentation, presenter, [words](const Presentation& presentation) {
    const auto bank = bank_with(words->substance_files);
    ConsistencyRequest request{read_measured_files(words->files, *bank)};
    request.vapour = words->vapour.choice(*bank);
    return answer(study(request), {presentation.units});
  });
}

}  // namespace jampot::tool
