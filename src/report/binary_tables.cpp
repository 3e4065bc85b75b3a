#include "binary_tables.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "jampot/report/answer.hpp"

namespace jampot {

double shown_fraction(double x1, const Mixture& mixture, Basis basis) {
  const std::array<double, 2> x{x1, 1 - x1};
  return basis == Basis::mole ? x1 : mass_fractions(x, mixture.substances())[0];
}

std::string held_text(const BinaryCurve& curve, const DisplayUnits& units) {
  const BinaryPoint& point = curve.points.front();
  const bool isobaric = curve.sought == Sought::temperature;
  const Dimension dimension = isobaric ? Dimension::pressure : Dimension::temperature;
  return fmt::format("{:.6g} {}", from_si(isobaric ? point.P_Pa : point.T_K, units.of(dimension), dimension),
                     units.of(dimension));
}

Table curve_table(const BinaryCurve& curve, const Mixture& mixture, Basis basis, const DisplayUnits& units) {
  const Substance &first = mixture.substances()[0], &second = mixture.substances()[1];
  Table table{fmt::format("{} and {} at {}", first.name, second.name, held_text(curve, units)),
              {{"T", Dimension::temperature, 3},
               {"P", Dimension::pressure, 3},
               {fraction_heading('x', first, basis), Dimension::fraction, 4},
               {fraction_heading('y', first, basis), Dimension::fraction, 4},
               {fmt::format("K({})", first.short_name())},
               {fmt::format("K({})", second.short_name())},
               {"relative volatility"}},
              {}};
  const bool activity = curve.points.front().gamma[0] > 0;
  for (const Substance* substance : {&first, &second}) {
    if (activity) table.columns.push_back({fmt::format("gamma({})", substance->short_name())});
  }
  for (const BinaryPoint& point : curve.points) {
    table.rows.push_back({point.T_K, point.P_Pa, shown_fraction(point.x[0], mixture, basis),
                          shown_fraction(point.y[0], mixture, basis), point.K[0], point.K[1],
                          point.relative_volatility()});
    if (activity) table.rows.back().insert(table.rows.back().end(), {point.gamma[0], point.gamma[1]});
  }
  return table;
}

Table azeotrope_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  const bool compared = !curves.front().label.empty();
  Table table{"Azeotropes",
              {{"T", Dimension::temperature, 4},
               {"P", Dimension::pressure, 4},
               {fraction_heading('x', mixture.substances()[0], basis), Dimension::fraction, 6},
               {"kind"},
               {"extremum"}},
              {}};
  if (compared) table.columns.push_back({"model"});
  for (const BinaryCurve& curve : curves) {
    for (const Azeotrope& azeotrope : curve.azeotropes) {
      table.rows.push_back({azeotrope.T_K, azeotrope.P_Pa, shown_fraction(azeotrope.x1, mixture, basis),
                            std::string(azeotrope.heterogeneous ? "heterogeneous" : "homogeneous"),
                            std::string(description(azeotrope.extremum))});
      if (compared) table.rows.back().emplace_back(curve.label);
    }
  }
  return table;
}

Table critical_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  Table table{"Critical points, where liquid and vapour become one",
              {{"T", Dimension::temperature, 3},
               {"P", Dimension::pressure, 3},
               {fraction_heading('x', mixture.substances()[0], basis), Dimension::fraction, 5}},
              {}};
  const bool compared = !curves.front().label.empty();
  if (compared) table.columns.push_back({"model"});
  for (const BinaryCurve& curve : curves) {
    for (const BinaryPoint& point : curve.critical) {
      table.rows.push_back({point.T_K, point.P_Pa, shown_fraction(point.x[0], mixture, basis)});
      if (compared) table.rows.back().emplace_back(curve.label);
    }
  }
  return table;
}

Table three_phase_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  const Substance& first = mixture.substances()[0];
  Table table{"Two liquids and vapour",
              {{"T", Dimension::temperature, 4},
               {"P", Dimension::pressure, 4},
               {fraction_heading('x', first, basis, "alpha"), Dimension::fraction, 6},
               {fraction_heading('x', first, basis, "beta"), Dimension::fraction, 6},
               {fraction_heading('y', first, basis), Dimension::fraction, 6}},
              {}};
  const bool compared = !curves.front().label.empty();
  if (compared) table.columns.push_back({"model"});
  for (const BinaryCurve& curve : curves) {
    for (const ThreePhase& line : curve.three_phases) {
      table.rows.push_back({line.T_K, line.P_Pa, shown_fraction(line.x_alpha, mixture, basis),
                            shown_fraction(line.x_beta, mixture, basis),
                            shown_fraction(line.y, mixture, basis)});
      if (compared) table.rows.back().emplace_back(curve.label);
    }
  }
  return table;
}

Table deviation_table(const Comparison& comparison, const std::string& name) {
  // One quantity a row would mix units in a column; so one column a quantity.
  Table table{
      fmt::format("Model minus measured, {}", name), {{"deviation"}, {"points", Dimension::number, 0}}, {}};
  std::vector<const DeviationSummary*> summaries;
  const auto add = [&](const DeviationSummary& summary, Column column) {
    table.columns.push_back(std::move(column));
    summaries.push_back(&summary);
  };
  if (comparison.T_K) add(*comparison.T_K, {"T", Dimension::temperature, 4, true});
  if (comparison.P_Pa) add(*comparison.P_Pa, {"P", Dimension::pressure, 4, true});
  for (std::size_t i = 0; i < comparison.y.size(); ++i) {
    if (comparison.y.size() == 2 && i == 1) break;  // the mirror image of the first
    add(comparison.y[i], {fmt::format("y{}", i + 1), Dimension::number, 5});
  }
  for (const auto& [word, member] : {std::pair("mean", &DeviationSummary::mean),
                                     std::pair("mean absolute", &DeviationSummary::mean_absolute),
                                     std::pair("RMS", &DeviationSummary::root_mean_square),
                                     std::pair("largest", &DeviationSummary::largest)}) {
    std::vector<Cell> row{std::string(word), static_cast<double>(comparison.rows.size())};
    for (const DeviationSummary* summary : summaries) row.emplace_back(summary->*member);
    table.rows.push_back(std::move(row));
  }
  return table;
}

}  // namespace jampot
