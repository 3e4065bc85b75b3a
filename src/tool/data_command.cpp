// data: what files of measured data hold, and the same in another form.
#include <fmt/format.h>

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

void add_data(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<DataOptions>();
  Command& command = tool.add(
      "data", "List what files of measured data hold; convert them to CSV or ThermoML (docs/files.md)");
  command
      .option("FILE", options->files, "FILE",
              "Measured data: .csv, or ThermoML (.xml, .xml#NUMBER for one set)")
      .needed();
  command.option("--out", options->out, "FILE",
                 "Write the data to this file: .csv (one set) or .xml (ThermoML)");
  add_substance_files(command, options->substance_files);
  add_presentation(command, options->presentation, false);
  command.footer =
      "Example ('jampot demo' writes the made-up data):\n  jampot data jampot-demo/mtbe-methanol.csv --out "
      "mtbe-methanol.xml";
  answers(command, options->presentation, presenter,
          [options](const Presentation& presentation) { return data(*options, presentation.units); });
}

}  // namespace jampot::tool
