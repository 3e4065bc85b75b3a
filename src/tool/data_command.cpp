// data and consistency: what files of measured data hold, the same in another form, and what they are worth.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/overlays.hpp"
#include "jampot/report/data.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct DataOptions {
  std::vector<std::string> files;
  std::vector<std::string> substance_files;
  std::string out;
  PresentationOptions presentation;
};

struct ConsistencyOptions {
  std::vector<std::string> files, substance_files;
  PresentationOptions presentation;
};

std::size_t excluded_in(const std::vector<DataSet>& sets) {
  std::size_t count = 0;
  for (const DataSet& set : sets) {
    for (const DataPoint& point : set.points) count += !point.excluded.empty();
  }
  return count;
}

Answer data(const DataOptions& options, const DisplayUnits& units) {
  const auto sets = read_measured_files(options.files, *bank_with(options.substance_files));
  Answer told = answer(sets, {units});
  if (options.out.empty()) return told;
  told.files.emplace_back(options.out, measured_text(options.out, sets));
  const std::size_t excluded = excluded_in(sets);
  if (excluded > 0 && lower_case(options.out).ends_with(".xml"))
    told.notices.add("excluded-left-out",
                     fmt::format("{} excluded points are not in {}: ThermoML has no place for the reason",
                                 excluded, options.out));
  return told;
}

}  // namespace

void add_data(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<DataOptions>();
  CLI::App* command = tool.add_subcommand(
      "data", "What files of measured data hold; the same as CSV or ThermoML (docs/files.md)");
  command
      ->add_option("FILE", options->files, "Measured data: .csv, or ThermoML (.xml, .xml#NUMBER for one set)")
      ->required()
      ->type_name("FILE");
  command->add_option("--out", options->out, "Write them anew: .csv (one set) or .xml (ThermoML)")
      ->type_name("FILE");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example ('jampot demo' writes the made-up data):\n  jampot data jampot-demo/mtbe-methanol.csv --out "
      "mtbe-methanol.xml");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(data(*options, presentation.units), presentation);
  });
}

void add_consistency(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<ConsistencyOptions>();
  CLI::App* command =
      tool.add_subcommand("consistency", "Thermodynamic consistency of measured vapour-liquid equilibria");
  command->add_option("FILE", options->files, "Measured data with vapour analyses (docs/files.md)")
      ->required()
      ->type_name("FILE");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example ('jampot demo' writes the made-up data):\n  jampot consistency jampot-demo/mtbe-methanol.csv "
      "--figure consistency.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    const auto bank = bank_with(options->substance_files);
    presenter.present(answer(study(ConsistencyRequest{read_measured_files(options->files, *bank)})),
                      presentation);
  });
}

}  // namespace jampot::tool
