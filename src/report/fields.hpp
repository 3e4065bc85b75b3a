#pragma once
// One description of each kind of row: where a quantity stands in the JSON, how its columns are headed, how
// it is had. Tables, CSV, workbooks and JSON come from it.
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
  /// What tables show. Nothing: the same as the JSON.
  std::function<std::vector<Cell>(const Row&)> cells{};
  /// Whether a row has it; else it is in neither. Of a table the first row decides. Nothing: always.
  std::function<bool(const Row&)> there{};
  /// Of a composition that tables show in mass fractions.
  const std::vector<Substance>* by_mass = nullptr;
};

template <class Row>
using Fields = std::vector<Field<Row>>;

/// A JSON value as cells, one for each column: a number, a text, an empty cell for null, those of a list.
/// @param by_mass if there, the list is a composition in mole fractions to be shown in mass fractions
std::vector<Cell> cells_of(const Json& value, const std::vector<Column>& columns,
                           const std::vector<Substance>* by_mass);

/// A column for each substance, headed "K(water)".
std::vector<Column> columns_of_each(const std::string& heading, const std::vector<Substance>& substances,
                                    Column like);

/// A column for each of the first `shown` substances, headed as fractions are.
std::vector<Column> columns_of_composition(char phase, const std::vector<Substance>& substances, Basis basis,
                                           int decimals, std::size_t shown, std::string_view which);

/// A member of a row as a getter.
template <class Row, class Value>
auto member_of(Value Row::*member) {
  return [member](const Row& row) -> const Value& { return row.*member; };
}

/// In the JSON only.
template <class Row, class Getter>
Field<Row> json_field(std::string key, Getter get) {
  return {std::move(key), {}, [get](const Row& row) { return Json(get(row)); }};
}

/// A number.
template <class Row, class Getter>
Field<Row> number_field(std::string key, Column column, Getter get) {
  return {std::move(key), {std::move(column)}, [get](const Row& row) { return Json(get(row)); }};
}

/// A number that may be missing: null, an empty cell.
template <class Row, class Getter>
Field<Row> maybe_field(std::string key, Column column, Getter get) {
  return {std::move(key), {std::move(column)}, [get](const Row& row) {
            const auto value = get(row);
            return value ? Json(*value) : Json(nullptr);
          }};
}

/// A word.
template <class Row, class Getter>
Field<Row> text_field(std::string key, std::string heading, Getter get) {
  return {
      std::move(key), {{std::move(heading)}}, [get](const Row& row) { return Json(std::string(get(row))); }};
}

/// A number for each substance, headed "K(water)".
template <class Row, class Getter>
Field<Row> each_field(std::string key, const std::string& heading, const std::vector<Substance>& substances,
                      Column like, Getter get) {
  return {std::move(key), columns_of_each(heading, substances, std::move(like)),
          [get](const Row& row) { return Json(get(row)); }};
}

/// A composition: mole fractions under the key, in tables by the basis that is shown.
/// @param phase 'x' of a liquid, 'y' of a vapour
/// @param shown how many of the substances have a column
template <class Row, class Getter>
Field<Row> composition_field(std::string key, char phase, const std::vector<Substance>& substances,
                             Basis basis, int decimals, Getter get, std::size_t shown = 1000,
                             std::string_view which = {}) {
  Field<Row> field = json_field<Row>(std::move(key), get);
  field.columns = columns_of_composition(phase, substances, basis, decimals, shown, which);
  if (basis == Basis::mass) field.by_mass = &substances;
  return field;
}

/// The same where a row has it.
template <class Row, class There>
Field<Row> where(There there, Field<Row> field) {
  field.there = there;
  return field;
}

/// In the JSON only, of rows that have it.
template <class Row, class There, class Getter>
Field<Row> json_field_where(There there, std::string key, Getter get) {
  return where(there, json_field<Row>(std::move(key), get));
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
      const std::vector<Cell> own =
          field->cells ? field->cells(row) : cells_of(field->json(row), field->columns, field->by_mass);
      cells.insert(cells.end(), own.begin(), own.end());
    }
    table.rows.push_back(std::move(cells));
  }
  return table;
}

}  // namespace jampot
