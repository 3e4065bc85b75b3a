#include "jampot/files/table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/csv.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
double shown_value(const Column& column, double si, const DisplayUnits& units) {
  const std::string& unit = units.of(column.dimension);
  if (unit.empty()) return si;
  return column.difference ? difference_from_si(si, unit, column.dimension)
                           : from_si(si, unit, column.dimension);
}

int shown_decimals(const Column& column, const DisplayUnits& units) {
  if (column.dimension != Dimension::pressure) return column.decimals;
  const double kPa = difference_to_si(1, units.pressure, Dimension::pressure) / 1000;
  return std::max(0, column.decimals + static_cast<int>(std::lround(std::log10(kPa))));
}

std::string heading(const Column& column, const DisplayUnits& units) {
  std::string unit = units.of(column.dimension);
  if (column.difference && unit == "degC") unit = "K";
  if (column.difference && unit == "degF") unit = "degR";
  return unit.empty() ? column.name : fmt::format("{} [{}]", column.name, unit);
}

std::string cell_text(const Column& column, const Cell& cell, const DisplayUnits& units) {
  if (const auto* text = std::get_if<std::string>(&cell)) return *text;
  if (std::holds_alternative<std::monostate>(cell)) return "";
  const int decimals = shown_decimals(column, units);
  const double value = shown_value(column, std::get<double>(cell), units);
  // A fraction or a K that would lose its digits to zeros, and anything too large for a column, in
  // significant digits.
  constexpr double rounding = 1e-14;  // what a sum of logarithms leaves where it should be zero
  const double size = std::abs(value) < rounding ? 0 : std::abs(value);
  const bool lost = size > 0 && decimals >= 4 && size < std::pow(10.0, 1 - decimals);
  if (lost || size >= 1e7) return fmt::format("{:.4g}", value);
  // A column of five decimals is about small numbers: 0.0001312 of toluene in water, not 0.00013.
  if (decimals >= 5 && size > 0 && size < std::pow(10.0, 2 - decimals)) return fmt::format("{:#.4g}", value);
  return fmt::format("{:.{}f}", size == 0 ? 0 : value, decimals);
}

bool is_numeric(const Table& table, std::size_t column) {
  return std::none_of(table.rows.begin(), table.rows.end(),
                      [&](const auto& row) { return std::holds_alternative<std::string>(row[column]); });
}

namespace {

// Width on the screen: bytes that continue a UTF-8 character take no place.
std::size_t width(const std::string& text) {
  return static_cast<std::size_t>(std::count_if(
      text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

}  // namespace

std::string as_text(const Table& table, const DisplayUnits& units) {
  std::vector<std::vector<std::string>> lines(1);
  for (const Column& column : table.columns) lines[0].push_back(heading(column, units));
  for (const auto& row : table.rows) {
    std::vector<std::string> line;
    for (std::size_t k = 0; k < row.size(); ++k) line.push_back(cell_text(table.columns[k], row[k], units));
    lines.push_back(std::move(line));
  }
  std::vector<std::size_t> widths(table.columns.size());
  std::vector<bool> numeric(table.columns.size());
  for (std::size_t k = 0; k < widths.size(); ++k) {
    for (const auto& line : lines) widths[k] = std::max(widths[k], width(line[k]));
    numeric[k] = is_numeric(table, k);
  }
  std::string text = table.title.empty() ? "" : table.title + "\n";
  for (const auto& line : lines) {
    std::string out;
    for (std::size_t k = 0; k < line.size(); ++k) {
      const std::string blanks(widths[k] - width(line[k]), ' ');
      out += (k > 0 ? "  " : "") + (numeric[k] ? blanks + line[k] : line[k] + blanks);
    }
    out.erase(out.find_last_not_of(' ') + 1);
    text += out + "\n";
  }
  return text;
}

namespace {

// What spreadsheets take as the beginning of a formula.
bool begins_formula(std::string_view text) {
  return !text.empty() && std::string_view("=+-@").find(text.front()) != std::string_view::npos;
}

// A text as a cell that no spreadsheet calculates: an apostrophe before what would begin a formula, unless it
// is a number or a single sign.
std::string text_cell(const std::string& text) {
  std::string cell = one_line(readable(text));
  if (begins_formula(trimmed(cell)) && trimmed(cell).size() > 1 && !parse_number(cell))
    cell.insert(0, 1, '\'');
  return csv_field(cell);
}

// The title as a comment; a spreadsheet takes it apart at commas.
std::string title_line(const std::string& title) {
  std::string line = "# ";
  for (const char c : one_line(readable(title))) {
    if (begins_formula(std::string(1, c)) && (line.back() == ',' || line.back() == ';')) line += '\'';
    line += c;
  }
  return line + "\n";
}

}  // namespace

std::string as_csv(const std::vector<Table>& tables, const DisplayUnits& units) {
  std::string text;
  for (const Table& table : tables) {
    if (!text.empty()) text += "\n";
    if (!table.title.empty()) text += title_line(table.title);
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
      text += (k > 0 ? "," : "") + text_cell(heading(table.columns[k], units));
    }
    text += "\n";
    for (const auto& row : table.rows) {
      for (std::size_t k = 0; k < row.size(); ++k) {
        if (k > 0) text += ",";
        if (const auto* value = std::get_if<double>(&row[k])) {
          text += fmt::format("{:.12g}", shown_value(table.columns[k], *value, units));
        } else if (const auto* words = std::get_if<std::string>(&row[k])) {
          text += text_cell(*words);
        }
      }
      text += "\n";
    }
  }
  return text;
}

}  // namespace jampot
