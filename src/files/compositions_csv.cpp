#include "jampot/files/compositions_csv.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

// As our tables name the fraction of a liquid.
std::string short_heading(const Substance& substance, Basis basis) {
  return basis == Basis::mole ? fmt::format("x({})", substance.short_name())
                              : fmt::format("w({}) liquid", substance.short_name());
}

}  // namespace

std::vector<std::vector<double>> read_compositions(const std::string& file,
                                                   const std::vector<Substance>& substances, Basis basis) {
  const CsvTable table(read_file(file), file);
  const std::size_t n = substances.size();
  std::vector<std::size_t> columns;
  for (std::size_t i = 0; i < n; ++i) {
    const std::string name = fmt::format("x{}", i + 1);
    const Substance& substance = substances[i];
    const auto found =
        std::find_if(table.header().begin(), table.header().end(), [&](const std::string& title) {
          // as typed, or as a table of this tool names it
          return title == name || title == short_heading(substance, basis) ||
                 title == fmt::format("{}({})", basis == Basis::mole ? 'x' : 'w', substance.name);
        });
    if (found == table.header().end() && i + 1 < n) {
      throw RequestError(table.header_place(),
                         fmt::format("no column '{}' or '{}({})'; expected x1, x2 ... in the order of the "
                                     "substances, or their names; the last may be left out",
                                     name, basis == Basis::mole ? 'x' : 'w', substance.name));
    }
    if (found != table.header().end())
      columns.push_back(static_cast<std::size_t>(found - table.header().begin()));
  }
  std::vector<std::vector<double>> compositions;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    std::vector<double> x;
    double sum = 0;
    for (const std::size_t column : columns) {
      x.push_back(table.number(row, column));
      sum += x.back();
      if (!(x.back() >= 0 && x.back() <= 1)) {
        throw RequestError(table.place(row, column),
                           fmt::format("{} is not a fraction between 0 and 1", x.back()));
      }
    }
    constexpr double rounding = 1e-6;
    if (sum > 1 + rounding || (x.size() == n && sum < 1 - rounding)) {
      throw RequestError(table.place(row, columns.back()),
                         fmt::format("the fractions sum to {:.6g}, not to 1", sum));
    }
    if (x.size() < n) x.push_back(std::max(0.0, 1 - sum));
    compositions.push_back(basis == Basis::mass ? mole_fractions(x, substances) : x);
  }
  return compositions;
}

}  // namespace jampot
