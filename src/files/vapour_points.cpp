#include "jampot/files/vapour_points.hpp"

#include <fmt/format.h>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {

// "40 degC = 10.2 kPa, 60 degC = 25 kPa", or a CSV file with the columns T and P.
std::vector<VapourPressurePoint> read_vapour_pressure_points(const std::string& text) {
  std::vector<VapourPressurePoint> points;
  if (lower_case(text).ends_with(".csv")) {
    const CsvTable table(read_file(text), text);
    const auto unit_of = [&](const std::string& name, Dimension dimension) {
      for (std::size_t column = 0; column < table.header().size(); ++column) {
        const std::string& heading = table.header()[column];
        const std::size_t open = heading.find('['), close = heading.find(']');
        if (trimmed(heading.substr(0, open)) != name) continue;
        if (open == std::string::npos || close == std::string::npos) {
          throw RequestError(table.header_place(),
                             fmt::format("the column {} needs its unit, \"{} [{}]\"", name, name,
                                         dimension == Dimension::pressure ? "kPa" : "degC"));
        }
        return std::pair(column, heading.substr(open + 1, close - open - 1));
      }
      throw RequestError(table.header_place(),
                         fmt::format("no column {}; expected \"T [degC], P [kPa]\"", name));
    };
    const auto [T, T_unit] = unit_of("T", Dimension::temperature);
    const auto [P, P_unit] = unit_of("P", Dimension::pressure);
    for (std::size_t row = 0; row < table.rows(); ++row) {
      points.push_back({to_si(table.number(row, T), T_unit, Dimension::temperature),
                        to_si(table.number(row, P), P_unit, Dimension::pressure)});
      if (!(points.back().T_K > 0)) throw RequestError(table.place(row, T), "below absolute zero");
      if (!(points.back().P_Pa > 0)) throw RequestError(table.place(row, P), "a pressure must be positive");
    }
  } else {
    for (const std::string& piece : split(text, ',')) {
      const std::size_t equals = piece.find('=');
      if (equals == std::string::npos) {
        throw RequestError(fmt::format(
            "`vapour-pressure-points` '{}': expected \"40 degC = 10.2 kPa, 60 degC = 25 kPa\" or a .csv file",
            piece));
      }
      points.push_back({parse_quantity(piece.substr(0, equals), Dimension::temperature),
                        parse_quantity(piece.substr(equals + 1), Dimension::pressure)});
    }
  }
  if (points.empty()) throw RequestError("`vapour-pressure-points`: there is no point");
  return points;
}

}  // namespace jampot
