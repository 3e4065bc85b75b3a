#pragma once
// One description of each kind of row: where a quantity stands in the JSON, how its columns are headed, how
// it is had. Tables, CSV, workbooks and JSON come from it.
#include <fmt/format.h>

#include <functional>
#include <nlohmann/json.hpp>
#include <string>
#include <utility>
#include <vector>

#include "jampot/files/json_results.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// A quantity of a row.
template <class Row>
struct Field {
  std::string key;              ///< in the JSON; empty: in tables only
  std::vector<Column> columns;  ///< in tables: one, or one for each substance; none: in the JSON only
  std::function<Json(const Row&)> json;
  std::function<std::vector<Cell>(const Row&)> cells;
  /// Whether a row has it; else it is in neither. Of a table the first row decides. Nothing: always.
  std::function<bool(const Row&)> there{};
};

template <class Row>
using Fields = std::vector<Field<Row>>;

/// A member of a row as a getter.
template <class Row, class Value>
auto member_of(Value Row::*member) {
  return [member](const Row& row) -> const Value& { return row.*member; };
}

/// A number.
template <class Row, class Getter>
Field<Row> number_field(std::string key, Column column, Getter get) {
  return {std::move(key),
          {std::move(column)},
          [get](const Row& row) { return Json(get(row)); },
          [get](const Row& row) { return std::vector<Cell>(1, Cell(static_cast<double>(get(row)))); }};
}

/// A number that may be missing: null, an empty cell.
template <class Row, class Getter>
Field<Row> maybe_field(std::string key, Column column, Getter get) {
  return {std::move(key),
          {std::move(column)},
          [get](const Row& row) { return get(row) ? Json(*get(row)) : Json(nullptr); },
          [get](const Row& row) { return std::vector<Cell>(1, get(row) ? Cell(*get(row)) : Cell()); }};
}

/// A word.
template <class Row, class Getter>
Field<Row> text_field(std::string key, std::string heading, Getter get) {
  return {std::move(key),
          {{std::move(heading)}},
          [get](const Row& row) { return Json(std::string(get(row))); },
          [get](const Row& row) { return std::vector<Cell>(1, Cell(std::string(get(row)))); }};
}

/// A number for each substance, headed "K(water)".
template <class Row, class Getter>
Field<Row> each_field(std::string key, const std::string& heading, const std::vector<Substance>& substances,
                      Column like, Getter get) {
  std::vector<Column> columns;
  for (const Substance& substance : substances) {
    like.name = fmt::format("{}({})", heading, substance.short_name());
    columns.push_back(like);
  }
  return {std::move(key), std::move(columns), [get](const Row& row) { return Json(get(row)); },
          [get](const Row& row) {
            const auto& values = get(row);
            return std::vector<Cell>(values.begin(), values.end());
          }};
}

/// A composition: mole fractions under the key, in tables by the basis that is shown.
/// @param phase 'x' of a liquid, 'y' of a vapour
/// @param shown how many of the substances have a column
template <class Row, class Getter>
Field<Row> composition_field(std::string key, char phase, const std::vector<Substance>& substances,
                             Basis basis, int decimals, Getter get, std::size_t shown = 1000,
                             std::string_view which = {}) {
  std::vector<Column> columns;
  for (std::size_t i = 0; i < std::min(shown, substances.size()); ++i)
    columns.push_back({fraction_heading(phase, substances[i], basis, which), Dimension::fraction, decimals});
  return {std::move(key), std::move(columns), [get](const Row& row) { return Json(get(row)); },
          [get, &substances, basis, shown](const Row& row) {
            const auto& x = get(row);
            std::vector<double> values(x.begin(), x.end());
            if (basis == Basis::mass) values = mass_fractions(values, substances);
            values.resize(std::min(shown, values.size()));
            return std::vector<Cell>(values.begin(), values.end());
          }};
}

/// In the JSON only.
template <class Row, class Getter>
Field<Row> json_field(std::string key, Getter get) {
  return {std::move(key), {}, [get](const Row& row) { return Json(get(row)); }, {}};
}

/// The same, of rows that have it.
template <class Row, class There, class Getter>
Field<Row> json_field_where(There there, std::string key, Getter get) {
  Field<Row> field = json_field<Row>(std::move(key), get);
  field.there = there;
  return field;
}

/// The same where a row has it.
template <class Row, class There>
Field<Row> where(There there, Field<Row> field) {
  field.there = there;
  return field;
}

template <class Row>
Json json_of(const Fields<Row>& fields, const Row& row) {
  Json json = Json::object();
  for (const Field<Row>& field : fields) {
    if (!field.key.empty() && (!field.there || field.there(row))) json[field.key] = field.json(row);
  }
  return json;
}

template <class Row, class Rows>
Table table_of(std::string title, const Fields<Row>& fields, const Rows& rows) {
  Table table{std::move(title), {}, {}};
  std::vector<const Field<Row>*> shown;
  for (const Field<Row>& field : fields) {
    if (field.columns.empty() || (field.there && !rows.empty() && !field.there(*rows.begin()))) continue;
    shown.push_back(&field);
    table.columns.insert(table.columns.end(), field.columns.begin(), field.columns.end());
  }
  for (const Row& row : rows) {
    std::vector<Cell> cells;
    for (const Field<Row>* field : shown) {
      const std::vector<Cell> own = field->cells(row);
      cells.insert(cells.end(), own.begin(), own.end());
    }
    table.rows.push_back(std::move(cells));
  }
  return table;
}

}  // namespace jampot
