#pragma once
// Tables as text and CSV. A table holds SI values; units are applied when it is written.
#include <string>
#include <variant>
#include <vector>

#include "jampot/basis/quantity.hpp"

namespace jampot {

/// A column of a table and how its numbers are shown.
struct Column {
  std::string name;                         ///< "T", "x(methanol)"
  Dimension dimension = Dimension::number;  ///< of its numbers
  int decimals = 4;                         ///< shown on the screen; CSV gets full precision
  bool difference = false;                  ///< a deviation: its unit is that of a difference
};

/// An empty cell, a number in SI, or a text.
using Cell = std::variant<std::monostate, double, std::string>;

/// A table of SI values and texts.
struct Table {
  std::string title;                    ///< heading
  std::vector<Column> columns;          ///< in order
  std::vector<std::vector<Cell>> rows;  ///< cells in the order of the columns
  /// On a page the first cell of each row leads to this file; empty: none does.
  std::vector<std::string> links{};
};

/// "T [degC]": name and unit of a column.
std::string heading(const Column& column, const DisplayUnits& units);

/// The decimals of a column: those of a pressure are meant for kPa and become more in larger units.
int shown_decimals(const Column& column, const DisplayUnits& units);

/// An SI value of a column in the unit it is shown in.
double shown_value(const Column& column, double si, const DisplayUnits& units);

/// A cell as it is read on a screen or a page: the decimals of its column, or significant digits where those
/// would lose them.
std::string cell_text(const Column& column, const Cell& cell, const DisplayUnits& units);

/// Whether a column holds numbers only, and stands to the right.
bool is_numeric(const Table& table, std::size_t column);

/// Aligned text with a header line of names and units.
std::string as_text(const Table& table, const DisplayUnits& units);

/// CSV with the units in the header, "T [degC]"; the title is a comment line above.
std::string as_csv(const std::vector<Table>& tables, const DisplayUnits& units);

}  // namespace jampot
