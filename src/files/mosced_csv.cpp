#include "jampot/files/mosced_csv.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {

std::vector<MoscedPoint> read_mosced_points(const std::string& file, const std::string& own,
                                            const Bank& bank) {
  const CsvTable table(read_file(file), file);
  std::string T_unit;
  std::size_t T_column = table.header().size();
  for (std::size_t k = 0; k < table.header().size(); ++k) {
    const std::string& title = table.header()[k];
    const std::size_t open = title.find('[');
    if (trimmed(title.substr(0, open)) != "T" || open == std::string::npos) continue;
    T_column = k;
    T_unit = title.substr(open + 1, title.find(']') - open - 1);
  }
  if (T_column == table.header().size()) throw RequestError(table.header_place(), "no column 'T [degC]'");
  const std::size_t solute = table.column("solute"), solvent = table.column("solvent"),
                    gamma = table.column("gamma");
  const auto uncertainty = std::find(table.header().begin(), table.header().end(), "u(gamma)");
  std::vector<MoscedPoint> points;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const bool as_solute = lower_case(table.text(row, solute)) == lower_case(own);
    if (!as_solute && lower_case(table.text(row, solvent)) != lower_case(own)) {
      throw RequestError(table.place(row, solute), fmt::format("neither solute nor solvent is {}", own));
    }
    MoscedPoint point;
    try {
      point.partner = bank.require(table.text(row, as_solute ? solvent : solute));
    } catch (const RequestError& error) {
      throw RequestError(table.place(row, as_solute ? solvent : solute), error.what());
    }
    point.as_solute = as_solute;
    point.T_K = to_si(table.number(row, T_column), T_unit, Dimension::temperature);
    point.gamma = table.number(row, gamma);
    if (!(point.gamma > 0) || !(point.T_K > 0))
      throw RequestError(table.place(row, gamma), "gamma and T are positive");
    point.u_gamma = 0.05 * point.gamma;
    if (uncertainty != table.header().end()) {
      point.u_gamma = table.number(row, static_cast<std::size_t>(uncertainty - table.header().begin()));
      if (!(point.u_gamma > 0)) throw RequestError(table.place(row, gamma), "u(gamma) must be positive");
    }
    point.line = table.place(row, 0).line;
    points.push_back(std::move(point));
  }
  return points;
}

// "v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, beta=11"
MoscedParameters parse_mosced(const std::string& text) {
  MoscedParameters own;
  own.source = "given by the user";
  std::map<std::string, double*> wanted{{"v", &own.v_cm3_mol}, {"lambda", &own.lambda}, {"tau", &own.tau},
                                        {"q", &own.q},         {"alpha", &own.alpha},   {"beta", &own.beta}};
  for (const std::string& piece : split(text, ',')) {
    const std::size_t equals = piece.find('=');
    const auto target =
        wanted.find(std::string(trimmed(std::string_view(piece).substr(0, std::min(equals, piece.size())))));
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (target == wanted.end() || !value) break;
    *target->second = *value;
    wanted.erase(target);
  }
  if (!wanted.empty()) {
    throw RequestError(
        fmt::format("`mosced` '{}': expected all six once, \"v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, "
                    "beta=11\"",
                    text));
  }
  check_mosced(own);
  return own;
}

}  // namespace jampot
