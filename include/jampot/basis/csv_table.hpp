#pragma once
// A comma-separated table with a header, read by column name, with messages that name file, line and column.
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/csv.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

/// A CSV text with one header, whose cells are asked for by row and column and complain with their place.
class CsvTable {
 public:
  /// @throws RequestError for an empty table or a row whose number of fields differs from the header's.
  CsvTable(std::string_view text, std::string file, TextLife life = TextLife::kept);

  /// Lines that begin with #, in order.
  const std::vector<CsvComment>& comments() const { return text_.comments; }
  /// Names of the columns.
  const std::vector<std::string>& header() const { return header_; }
  /// Number of rows below the header.
  std::size_t rows() const { return text_.rows.size() - 1; }
  /// Name of the file, for messages.
  const std::string& file() const { return file_; }

  /// Index of the column. @throws RequestError listing the columns there are.
  std::size_t column(std::string_view name) const;

  /// Text of a field, which lives as long as the table or a copy of it. @throws std::out_of_range beyond the
  /// table.
  std::string_view text(std::size_t row, std::size_t column) const;

  /// The number in a cell. @throws RequestError where the cell holds no finite number.
  double number(std::size_t row, std::size_t column) const;

  /// The number in a cell, or nothing where the cell is empty.
  std::optional<double> number_if_any(std::size_t row, std::size_t column) const;

  /// Place of a field, for messages.
  Place place(std::size_t row, std::size_t column) const;
  /// Place of the header, for messages.
  Place header_place() const { return {file_, text_.rows.front().line, {}}; }

 private:
  std::string file_;
  CsvText text_;
  std::vector<std::string> header_;
};

}  // namespace jampot
