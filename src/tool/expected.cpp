#include "expected.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot::tool {
namespace {

struct Shared {
  std::size_t in_file, in_table;
  std::string unit;  // of the file
};

// "T [degC]": name and unit.
std::pair<std::string, std::string> name_and_unit(const std::string& heading) {
  const std::size_t bracket = heading.find('[');
  if (bracket == std::string::npos) return {std::string(trimmed(heading)), ""};
  const std::size_t end = heading.find(']', bracket);
  return {std::string(trimmed(heading.substr(0, bracket))), heading.substr(bracket + 1, end - bracket - 1)};
}

std::vector<Shared> shared_columns(const CsvTable& csv, const Table& table, const DisplayUnits& units) {
  std::vector<Shared> list;
  for (std::size_t k = 0; k < csv.header().size(); ++k) {
    const auto [name, unit] = name_and_unit(csv.header()[k]);
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
      const auto [own, own_unit] = name_and_unit(heading(table.columns[c], units));
      if (lower_case(own) != lower_case(name)) continue;
      if (unit.empty() != own_unit.empty() && table.columns[c].dimension != Dimension::number)
        throw RequestError(csv.header_place(),
                           fmt::format("column '{}' needs a unit, as in '{} [{}]'", name, own, own_unit));
      list.push_back({k, c, unit});
    }
  }
  return list;
}

}  // namespace

void add_expected_option(CLI::App& command, std::string& file) {
  command
      .add_option("--expect", file,
                  "A reference table laid beside the results: columns named as in the tables, with units")
      ->type_name("FILE.csv");
}

void add_expected(const std::string& file, Answer& answer, const DisplayUnits& units) {
  if (file.empty()) return;
  const CsvTable csv(read_file(file), file);
  const Table* table = nullptr;
  std::vector<Shared> columns;
  for (const Table& candidate : answer.tables) {
    auto found = shared_columns(csv, candidate, units);
    if (found.size() <= columns.size()) continue;
    columns = std::move(found);
    table = &candidate;
  }
  std::vector<std::string> names;
  for (const Table& candidate : answer.tables) {
    for (const Column& column : candidate.columns) {
      if (std::find(names.begin(), names.end(), column.name) == names.end()) names.push_back(column.name);
    }
  }
  if (table == nullptr)
    throw RequestError(csv.header_place(),
                       fmt::format("no column is named like one of the results: {}", joined(names, ", ")));
  for (std::size_t k = 0; k < csv.header().size(); ++k) {
    const bool used =
        std::any_of(columns.begin(), columns.end(), [&](const Shared& c) { return c.in_file == k; });
    if (!used)
      throw RequestError(
          csv.header_place(),
          fmt::format("no result is named '{}'; there are {}.{}", csv.header()[k], joined(names, ", "),
                      did_you_mean(name_and_unit(csv.header()[k]).first, names)));
  }
  const auto in_si = [&](std::size_t row, const Shared& column) {
    const double value = csv.number(row, column.in_file);
    const Column& own = table->columns[column.in_table];
    return column.unit.empty() || own.dimension == Dimension::number
               ? value
               : parse_quantity(fmt::format("{} {}", value, column.unit), own.dimension);
  };
  Table beside{"Beside the reference",
               {{"row", Dimension::number, 0},
                {"quantity"},
                {"result", Dimension::number, 6},
                {"reference", Dimension::number, 6},
                {"deviation", Dimension::number, 6},
                {"per cent", Dimension::number, 3}},
               {}};
  double worst = 0;
  for (std::size_t row = 0; row < csv.rows(); ++row) {
    std::optional<std::size_t> match;
    const auto belongs = [&](const std::vector<Cell>& cells) {
      for (const Shared& column : columns) {
        const Cell& cell = cells[column.in_table];
        const std::string& name = table->columns[column.in_table].name;
        if (const auto* text = std::get_if<std::string>(&cell)) {
          if (lower_case(*text) != lower_case(csv.text(row, column.in_file))) return false;
        } else if (const auto* number = std::get_if<double>(&cell);
                   number != nullptr && (name == "T" || name == "P")) {
          constexpr double near = 2e-3;  // as printed tables round
          if (std::abs(in_si(row, column) / *number - 1) > near) return false;
        }
      }
      return true;
    };
    for (std::size_t r = 0; r < table->rows.size() && !match; ++r) {
      if (belongs(table->rows[r])) match = r;
    }
    // A T or P that is itself a result may be further off.
    if (!match && csv.rows() == table->rows.size()) match = row;
    if (!match)
      throw RequestError(csv.place(row, 0),
                         "this row belongs to none of the results (by its texts, T and P)");
    for (const Shared& column : columns) {
      const auto* own = std::get_if<double>(&table->rows[*match][column.in_table]);
      if (own == nullptr) continue;
      const Column& of = table->columns[column.in_table];
      const double result = shown_value(of, *own, units),
                   reference = shown_value(of, in_si(row, column), units);
      const double percent = reference == 0 ? 0 : 100 * (result / reference - 1);
      beside.rows.push_back({static_cast<double>(row + 1), heading(of, units), result, reference,
                             result - reference, reference == 0 ? Cell() : Cell(percent)});
      worst = std::max(worst, std::abs(percent));
      answer.json["expected"].push_back({{"row", row + 1},
                                         {"quantity", of.name},
                                         {"unit", name_and_unit(heading(of, units)).second},
                                         {"result", result},
                                         {"reference", reference},
                                         {"deviation", result - reference}});
    }
  }
  answer.lines.push_back(fmt::format("beside {}: largest deviation {:.3g} per cent", file, worst));
  if (!answer.screen.empty()) answer.screen.push_back(beside);
  answer.tables.push_back(std::move(beside));
}

}  // namespace jampot::tool
