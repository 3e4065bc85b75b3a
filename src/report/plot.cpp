// --plot: any two columns of the tables against each other.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {
namespace {

std::optional<std::size_t> column_of(const Table& table, const std::string& name) {
  for (std::size_t k = 0; k < table.columns.size(); ++k) {
    if (lower_case(table.columns[k].name) == lower_case(name)) return k;
  }
  return std::nullopt;
}

bool numeric(const Table& table, std::size_t column) {
  return std::any_of(table.rows.begin(), table.rows.end(),
                     [&](const auto& row) { return std::holds_alternative<double>(row[column]); });
}

}  // namespace

Figure plot_figure(const std::vector<Table>& tables, const std::string& wanted, const DisplayUnits& units) {
  const std::size_t against = wanted.find(" against ");
  if (against == std::string::npos) {
    throw RequestError(
        fmt::format("`plot` '{}': expected two columns, as in \"T against x(water)\"", wanted));
  }
  const std::string y_name(trimmed(std::string_view(wanted).substr(0, against)));
  const std::string x_name(trimmed(std::string_view(wanted).substr(against + 9)));
  Panel panel;
  double x_low = HUGE_VAL, x_high = -HUGE_VAL, y_low = HUGE_VAL, y_high = -HUGE_VAL;
  std::vector<std::string> known;
  for (const Table& table : tables) {
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
      const std::string& name = table.columns[k].name;
      if (numeric(table, k) && std::find(known.begin(), known.end(), name) == known.end())
        known.push_back(name);
    }
    const auto x = column_of(table, x_name), y = column_of(table, y_name);
    if (!x || !y || !numeric(table, *x) || !numeric(table, *y)) continue;
    const auto colour = static_cast<int>(panel.series.size());
    Series series{{}, table.title, colour % 2 == 0 ? Stroke::solid : Stroke::dashed, Mark::none, colour};
    for (const auto& row : table.rows) {
      const auto *x_value = std::get_if<double>(&row[*x]), *y_value = std::get_if<double>(&row[*y]);
      if (x_value == nullptr || y_value == nullptr) continue;
      const Spot spot{shown_value(table.columns[*x], *x_value, units),
                      shown_value(table.columns[*y], *y_value, units)};
      series.spots.push_back(spot);
      x_low = std::min(x_low, spot.x);
      x_high = std::max(x_high, spot.x);
      y_low = std::min(y_low, spot.y);
      y_high = std::max(y_high, spot.y);
    }
    panel.x.label = heading(table.columns[*x], units);
    panel.y.label = heading(table.columns[*y], units);
    panel.series.push_back(std::move(series));
  }
  if (panel.series.empty()) {
    throw RequestError(fmt::format("`plot` '{}': no table has both columns; there are {}.{}{}", wanted,
                                   joined(known, ", "), did_you_mean(y_name, known),
                                   did_you_mean(x_name, known)));
  }
  if (panel.series.size() == 1) panel.series.front().label.clear();
  panel.x = rounded_axis(panel.x.label, x_low, x_high);
  panel.y = rounded_axis(panel.y.label, y_low, y_high);
  Figure figure;
  figure.title = fmt::format("{} against {}", y_name, x_name);
  figure.panels = {panel};
  return figure;
}

}  // namespace jampot
