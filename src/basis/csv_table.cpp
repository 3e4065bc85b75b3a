#include "jampot/basis/csv_table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

CsvTable::CsvTable(std::string_view text, std::string file, TextLife life)
    : file_(std::move(file)), text_(parse_csv(text, file_, life)) {
  if (text_.rows.empty()) {
    throw RequestError({file_, 0, {}},
                       "the file holds no table; expected a header line and at least one row");
  }
  header_ = text_.rows.front().copied();
  for (const CsvRow& row : text_.rows) {
    if (row.fields.size() != header().size()) {
      throw RequestError(
          {file_, row.line, {}},
          header().size() < 2  // no table, perhaps, of which a message repeats nothing
              ? fmt::format("{} fields, but the header has one column", row.fields.size())
              : fmt::format("{}, but the header has {} columns ({})", counted(row.fields.size(), "field"),
                            header().size(), shortened(joined(header(), ", "))));
    }
  }
}

std::size_t CsvTable::column(std::string_view name) const {
  const auto found = std::find(header().begin(), header().end(), name);
  if (found == header().end()) {
    // A file of one column is probably no table at all; a message does not repeat what such a file holds.
    throw RequestError(header_place(), header().size() < 2
                                           ? fmt::format("no column '{}'; the file has one column only", name)
                                           : fmt::format("no column '{}'; the columns are {}", name,
                                                         shortened(joined(header(), ", "))));
  }
  return static_cast<std::size_t>(found - header().begin());
}

std::string_view CsvTable::text(std::size_t row, std::size_t column) const {
  if (row >= rows() || column >= header_.size()) throw std::out_of_range("no such cell in " + file_);
  return text_.rows[row + 1].fields[column];
}

double CsvTable::number(std::size_t row, std::size_t column) const {
  const std::string_view cell = text(row, column);
  const auto value = parse_number(cell);
  if (!value) {
    throw RequestError(place(row, column),
                       cell.empty() ? "the cell is empty; expected a number"
                                    : fmt::format("expected a number, found '{}'", shortened(cell, 40)));
  }
  return *value;
}

std::optional<double> CsvTable::number_if_any(std::size_t row, std::size_t column) const {
  if (text(row, column).empty()) return std::nullopt;
  return number(row, column);
}

Place CsvTable::place(std::size_t row, std::size_t column) const {
  return {file_, text_.rows[row + 1].line, header().size() < 2 ? "" : header()[column]};
}

}  // namespace jampot
