#include "fields.hpp"

#include <algorithm>

#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

Cell cell_of(const Json& value) {
  if (value.is_null()) return {};
  if (value.is_string()) return value.get<std::string>();
  return value.get<double>();
}

}  // namespace

std::vector<Cell> cells_of(const Json& value, const std::vector<Column>& columns,
                           const std::vector<Substance>* by_mass) {
  if (!value.is_array()) return {cell_of(value)};
  const std::size_t shown = std::min(columns.size(), value.size());
  std::vector<Cell> cells;
  if (by_mass != nullptr) {
    const std::vector<double> w = mass_fractions(value.get<std::vector<double>>(), *by_mass);
    for (std::size_t i = 0; i < shown; ++i) cells.emplace_back(w[i]);
  } else {
    for (std::size_t i = 0; i < shown; ++i) cells.push_back(cell_of(value[i]));
  }
  return cells;
}

std::vector<Column> columns_of_each(const std::string& heading, const std::vector<Substance>& substances,
                                    Column like) {
  std::vector<Column> columns;
  for (const Substance& substance : substances) {
    like.name = heading + "(" + substance.short_name() + ")";
    columns.push_back(like);
  }
  return columns;
}

std::vector<Column> columns_of_composition(char phase, const std::vector<Substance>& substances, Basis basis,
                                           int decimals, std::size_t shown, std::string_view which) {
  std::vector<Column> columns;
  for (std::size_t i = 0; i < std::min(shown, substances.size()); ++i)
    columns.push_back({fraction_heading(phase, substances[i], basis, which), Dimension::fraction, decimals});
  return columns;
}

}  // namespace jampot
