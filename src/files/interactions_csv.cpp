#include "jampot/files/interactions_csv.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {

InteractionTable read_interactions(const std::string& file, const Bank& bank) {
  InteractionTable table;
  if (file.empty()) return table;
  const CsvTable csv(read_file(file), file);
  const auto column = [&](const char* name) {
    const auto found = std::find(csv.header().begin(), csv.header().end(), name);
    if (found == csv.header().end())
      throw RequestError(csv.header_place(),
                         fmt::format("no column '{}'; expected first, second, k_ij", name));
    return static_cast<std::size_t>(found - csv.header().begin());
  };
  const std::size_t first = column("first"), second = column("second"), k = column("k_ij");
  for (std::size_t row = 0; row < csv.rows(); ++row) {
    const auto name = [&](std::size_t which) {
      const Substance* found = bank.find(csv.text(row, which));
      if (found == nullptr)
        throw RequestError(csv.place(row, which),
                           fmt::format("'{}' is not in the databank", csv.text(row, which)));
      return found->name;
    };
    const double value = csv.number(row, k);
    if (!(value > -1 && value < 1))
      throw RequestError(csv.place(row, k), fmt::format("k_ij is {}; it lies between -1 and 1", value));
    table.set(name(first), name(second), value);
  }
  return table;
}

}  // namespace jampot
