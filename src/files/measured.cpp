#include "jampot/files/measured.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/thermoml.hpp"
#include "jampot/regression/plausibility.hpp"

namespace jampot {

namespace {

std::vector<DataSet> read_as_stated(const std::filesystem::path& path, const Bank& bank) {
  const std::string whole = path.string();
  const std::size_t mark = lower_case(whole).rfind(".xml#");
  const bool one = mark != std::string::npos;
  if (!one && lower_case(path.extension().string()) != ".xml") return {read_measured(path, bank)};
  const std::string file = one ? whole.substr(0, mark + 4) : whole;
  ThermoML found = read_thermoml(file, bank);
  if (!one) {
    found.sets.front().notices.add(found.notices);
    return std::move(found.sets);
  }
  std::vector<std::string> names;
  for (DataSet& set : found.sets) {
    if (set.name == file + whole.substr(mark + 4)) return {std::move(set)};
    names.push_back(set.name.substr(file.size()));
  }
  throw RequestError({file, 0, {}}, fmt::format("there is no data set {} that can be used; there are {}",
                                                whole.substr(mark + 4), joined(names, ", ")));
}

}  // namespace

std::vector<DataSet> read_measured_file(const std::filesystem::path& path, const Bank& bank) {
  std::vector<DataSet> sets = read_as_stated(path, bank);
  for (DataSet& set : sets) {
    Notices notices = implausible(set);
    notices.add(set.notices);
    set.notices = std::move(notices);
  }
  return sets;
}

std::string measured_text(const std::filesystem::path& path, const std::vector<DataSet>& sets) {
  const std::string ending = lower_case(path.extension().string());
  if (ending == ".xml") return thermoml_text(sets);
  if (ending != ".csv") {
    throw RequestError(
        fmt::format("'{}': measured data are written as .csv or, in ThermoML, as .xml", path.string()));
  }
  if (sets.size() != 1) {
    std::vector<std::string> names;
    for (const DataSet& set : sets) names.push_back(set.name);
    throw RequestError(fmt::format("{}: a CSV file holds one data set, these are {}: {}", path.string(),
                                   sets.size(), joined(names, ", ")));
  }
  return measured_csv_text(sets.front());
}

void write_measured_file(const std::filesystem::path& path, const std::vector<DataSet>& sets) {
  write_file(path, measured_text(path, sets));
}

}  // namespace jampot
