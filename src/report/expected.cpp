#include "jampot/report/expected.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {
namespace {

// "T [degC]": name and unit.
std::pair<std::string, std::string> name_and_unit(const std::string& heading) {
  const std::size_t bracket = heading.find('[');
  if (bracket == std::string::npos) return {std::string(trimmed(heading)), ""};
  const std::size_t end = heading.find(']', bracket);
  return {std::string(trimmed(heading.substr(0, bracket))), heading.substr(bracket + 1, end - bracket - 1)};
}

// Names of one thing are one: substances by name, formula, CAS number, alias or label; no capitals.
class Names {
 public:
  explicit Names(const Answer& answer) {
    for (const Json& substance : answer.json->value("substances", Json::array())) {
      const std::string name = substance["name"];
      formulas_.emplace_back(lower_case(name), substance.value("formula", ""));
      std::vector<std::string> others{name, substance.value("formula", ""), substance.value("cas", ""),
                                      substance.value("label", "")};
      if (const Substance* known = Bank::built_in().find(name)) {
        others.push_back(known->short_name());
        others.insert(others.end(), known->aliases.begin(), known->aliases.end());
      }
      for (const std::string& other : others) {
        if (other.empty()) continue;
        const auto [at, fresh] = known_.emplace(lower_case(other), lower_case(name));
        if (!fresh && at->second != lower_case(name)) at->second = lower_case(other);  // of two: as it stands
      }
    }
  }

  std::string of(std::string_view text) const {
    const auto found = known_.find(lower_case(trimmed(text)));
    return found == known_.end() ? by_atoms(std::string(trimmed(text))) : found->second;
  }

  /// "x(EtOH)" as "x(ethanol)".
  std::string of_column(const std::string& name) const {
    const std::size_t open = name.find('('), close = name.rfind(')');
    if (open == std::string::npos || close == std::string::npos || close < open) return of(name);
    return lower_case(name.substr(0, open + 1)) + of(name.substr(open + 1, close - open - 1)) +
           lower_case(name.substr(close));
  }

 private:
  // "C2H5OH" is C2H6O, where only one of the substances has these atoms.
  std::string by_atoms(const std::string& text) const {
    std::string found;
    try {
      const auto atoms = atoms_in(text);
      for (const auto& [name, formula] : formulas_) {
        if (atoms.empty() || formula.empty() || atoms_in(formula) != atoms) continue;
        if (!found.empty()) return lower_case(text);
        found = name;
      }
    } catch (const RequestError&) {
      return lower_case(text);
    }
    return found.empty() ? lower_case(text) : found;
  }

  std::map<std::string, std::string> known_;
  std::vector<std::pair<std::string, std::string>> formulas_;
};

// The tables of a file: an empty line parts them, as in the files that the tool writes.
std::vector<CsvTable> tables_of(const std::string& file) {
  const std::string text = read_file(file);
  std::vector<CsvTable> tables;
  std::string block;
  std::size_t line = 0, rows = 0;
  const auto close = [&] {
    if (rows > 0) tables.emplace_back(block, file);
    block.assign(line, '\n');  // keeps the numbers of the lines
    rows = 0;
  };
  for (std::size_t from = 0; from < text.size();) {
    const std::size_t end = std::min(text.find('\n', from), text.size());
    const std::string_view here = trimmed(std::string_view(text).substr(from, end - from));
    ++line;
    if (here.empty() && rows > 0) {
      close();
    } else {
      block += std::string(here) + "\n";
      rows += !here.empty() && here.front() != '#';
    }
    from = end + 1;
  }
  close();
  if (tables.empty()) tables.emplace_back(text, file);  // says that there is nothing in it
  return tables;
}

struct Shared {
  std::size_t in_file, in_table;
  std::string unit;  // of the file
};

class Beside {
 public:
  Beside(Answer& answer, const DisplayUnits& units) : answer_(answer), units_(units), names_(answer) {}

  void add(const CsvTable& csv) {
    const Table* table = nullptr;
    std::vector<Shared> columns;
    std::string lacks_unit;  // of a column that would fit otherwise
    for (const Table& candidate : answer_.tables) {
      auto found = shared_columns(csv, candidate, lacks_unit);
      if (found.size() <= columns.size()) continue;
      columns = std::move(found);
      table = &candidate;
    }
    if (columns.size() < csv.header().size()) {
      if (totals(csv)) return;
      if (!lacks_unit.empty()) throw RequestError(csv.header_place(), lacks_unit);
    }
    demand_all(csv, table, columns);
    for (std::size_t row = 0; row < csv.rows(); ++row) {
      const std::vector<Cell>& result = row_for(csv, row, *table, columns);
      for (const Shared& column : columns) {
        const auto* own = std::get_if<double>(&result[column.in_table]);
        if (own == nullptr || csv.text(row, column.in_file).empty()) continue;
        const Column& of = table->columns[column.in_table];
        note(row, of, heading(of, units_), *own, in_si(csv, row, column, of));
      }
    }
  }

  void finish(const std::string& file) {
    answer_.lines.push_back(fmt::format("compared with {}: largest deviation {:.3g} per cent", file, worst_));
    if (!answer_.screen.empty()) answer_.screen.push_back(beside_);
    answer_.tables.push_back(std::move(beside_));
  }

 private:
  std::vector<Shared> shared_columns(const CsvTable& csv, const Table& table, std::string& lacks_unit) const {
    std::vector<Shared> list;
    for (std::size_t k = 0; k < csv.header().size(); ++k) {
      const auto [name, unit] = name_and_unit(csv.header()[k]);
      for (std::size_t c = 0; c < table.columns.size(); ++c) {
        const auto [own, own_unit] = name_and_unit(heading(table.columns[c], units_));
        if (names_.of_column(own) != names_.of_column(name)) continue;
        if (unit.empty() != own_unit.empty() && table.columns[c].dimension != Dimension::number) {
          lacks_unit = fmt::format("column '{}' needs a unit, as in '{} [{}]'", name, own, own_unit);
          continue;
        }
        list.push_back({k, c, unit});
        break;
      }
    }
    return list;
  }

  // Columns named like rows of a table with one column of numbers: "duty [kW]" beside the table of heats.
  bool totals(const CsvTable& csv) {
    struct Total {
      std::size_t in_file;
      const Column* column;
      double value;
      std::string name, unit;
    };
    std::vector<Total> found;
    for (std::size_t k = 0; k < csv.header().size(); ++k) {
      const auto [name, unit] = name_and_unit(csv.header()[k]);
      for (const Table& table : answer_.tables) {
        if (table.columns.size() != 2 || !is_numeric(table, 1)) continue;
        for (const std::vector<Cell>& row : table.rows) {
          const auto* text = std::get_if<std::string>(row.data());
          const auto* value = std::get_if<double>(&row[1]);
          if (text == nullptr || value == nullptr || names_.of(*text) != names_.of(name)) continue;
          const std::string own_unit = name_and_unit(heading(table.columns[1], units_)).second;
          if (unit.empty() != own_unit.empty())
            throw RequestError(csv.header_place(), fmt::format("column '{}' needs a unit, as in '{} [{}]'",
                                                               name, name, own_unit));
          found.push_back({k, &table.columns[1], *value, *text, unit});
        }
      }
    }
    // One value of each; with several the rows could not be told apart.
    if (found.size() != csv.header().size() || csv.rows() != 1) return false;
    for (const Total& total : found) {
      const std::string unit = name_and_unit(heading(*total.column, units_)).second;
      note(0, *total.column, unit.empty() ? total.name : fmt::format("{} [{}]", total.name, unit),
           total.value, in_si(csv, 0, {total.in_file, 0, total.unit}, *total.column));
    }
    return true;
  }

  void demand_all(const CsvTable& csv, const Table* table, const std::vector<Shared>& columns) const {
    std::vector<std::string> names;
    const auto add = [&](const std::string& name) {
      if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
    };
    for (const Table& candidate : answer_.tables) {
      for (const Column& column : candidate.columns) add(heading(column, units_));
    }
    if (table == nullptr)
      throw RequestError(csv.header_place(),
                         fmt::format("no column is named like one of the results: {}", joined(names, ", ")));
    for (std::size_t k = 0; k < csv.header().size(); ++k) {
      if (std::any_of(columns.begin(), columns.end(), [&](const Shared& c) { return c.in_file == k; }))
        continue;
      const bool elsewhere = std::any_of(names.begin(), names.end(), [&](const std::string& name) {
        return names_.of_column(name_and_unit(name).first) ==
               names_.of_column(name_and_unit(csv.header()[k]).first);
      });
      throw RequestError(csv.header_place(),
                         elsewhere
                             ? fmt::format("'{}' belongs to another table of the results than the other "
                                           "columns; separate the tables of the file by an empty line",
                                           csv.header()[k])
                             : fmt::format("no result is named '{}'; there are {}.{}", csv.header()[k],
                                           joined(names, ", "), did_you_mean(csv.header()[k], names)));
    }
  }

  static double in_si(const CsvTable& csv, std::size_t row, const Shared& column, const Column& own) {
    const double value = csv.number(row, column.in_file);
    return column.unit.empty() || own.dimension == Dimension::number
               ? value
               : parse_quantity(fmt::format("{} {}", value, column.unit), own.dimension);
  }

  // The row of the results with the same texts, T and P; else the one in the same place.
  const std::vector<Cell>& row_for(const CsvTable& csv, std::size_t row, const Table& table,
                                   const std::vector<Shared>& columns) const {
    const auto belongs = [&](const std::vector<Cell>& cells, bool exactly) {
      return std::all_of(columns.begin(), columns.end(), [&](const Shared& column) {
        const Cell& cell = cells[column.in_table];
        const Column& of = table.columns[column.in_table];
        if (const auto* text = std::get_if<std::string>(&cell))
          return names_.of(*text) == names_.of(csv.text(row, column.in_file));
        const auto* number = std::get_if<double>(&cell);
        if (number == nullptr || !(of.name == "T" || of.name == "P" || exactly)) return true;
        if (csv.text(row, column.in_file).empty()) return true;
        constexpr double near = 2e-3;  // as printed tables round
        return std::abs(in_si(csv, row, column, of) - *number) <= near * std::abs(*number);
      });
    };
    // A T or P that is itself a result may be further off: the same place, where the tables are equally long.
    if (csv.rows() == table.rows.size() && belongs(table.rows[row], true)) return table.rows[row];
    for (const std::vector<Cell>& cells : table.rows) {
      if (belongs(cells, false)) return cells;
    }
    if (csv.rows() != table.rows.size())
      throw RequestError(csv.place(row, 0),
                         "this row belongs to none of the results (by its texts, T and P)");
    return table.rows[row];
  }

  void note(std::size_t row, const Column& of, const std::string& title, double own, double given) {
    const double result = shown_value(of, own, units_), reference = shown_value(of, given, units_);
    const double percent = reference == 0 ? 0 : 100 * (result / reference - 1);
    beside_.rows.push_back({static_cast<double>(row + 1), title, result, reference, result - reference,
                            reference == 0 ? Cell() : Cell(percent)});
    worst_ = std::max(worst_, std::abs(percent));
    const auto [name, unit] = name_and_unit(title);
    (*answer_.json)["expected"].push_back({{"row", row + 1},
                                           {"quantity", name},
                                           {"unit", unit},
                                           {"result", result},
                                           {"reference", reference},
                                           {"deviation", result - reference}});
  }

  Answer& answer_;
  const DisplayUnits& units_;
  Names names_;
  double worst_ = 0;
  Table beside_{"Beside the reference",
                {{"row", Dimension::number, 0},
                 {"quantity"},
                 {"result", Dimension::number, 6},
                 {"reference", Dimension::number, 6},
                 {"deviation", Dimension::number, 6},
                 {"per cent", Dimension::number, 3}},
                {}};
};

}  // namespace

void add_expected(const std::string& file, Answer& answer, const DisplayUnits& units) {
  if (file.empty()) return;
  Beside beside(answer, units);
  for (const CsvTable& table : tables_of(file)) beside.add(table);
  beside.finish(file);
}

}  // namespace jampot
