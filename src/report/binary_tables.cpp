#include "binary_tables.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "fields.hpp"

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

namespace {

std::array<double, 2> both(double x1) {
  return {x1, 1 - x1};
}

// Of every curve: what is told of its points, its azeotropes, its three-phase lines and its critical points.

Fields<BinaryPoint> point_fields(const std::vector<Substance>& substances, Basis basis) {
  using P = BinaryPoint;
  const auto pair = [&](auto get) {
    return [get, &substances](const P& point) { return mass_fractions(get(point), substances); };
  };
  return {number_field<P>("T_K", {"T", Dimension::temperature, 3}, member_of(&P::T_K)),
          number_field<P>("P_Pa", {"P", Dimension::pressure, 3}, member_of(&P::P_Pa)),
          composition_field<P>("x", 'x', substances, basis, 4, member_of(&P::x), 1),
          composition_field<P>("y", 'y', substances, basis, 4, member_of(&P::y), 1),
          json_field<P>("w_liquid", pair(member_of(&P::x))),
          json_field<P>("w_vapour", pair(member_of(&P::y))),
          each_field<P>("K", "K", substances, {}, member_of(&P::K)),
          json_field<P>("residual", member_of(&P::residual)),
          json_field_where<P>([](const P& p) { return p.gamma[0] > 0; }, "gamma", member_of(&P::gamma)),
          number_field<P>("relative_volatility", {"relative volatility"},
                          [](const P& p) { return p.relative_volatility(); }),
          where([](const P& p) { return p.gamma[0] > 0; },
                each_field<P>("", "gamma", substances, {}, member_of(&P::gamma)))};
}

Fields<Azeotrope> azeotrope_fields(const std::vector<Substance>& substances, Basis basis) {
  using A = Azeotrope;
  const auto x = [](const A& azeotrope) { return both(azeotrope.x1); };
  return {number_field<A>("T_K", {"T", Dimension::temperature, 4}, member_of(&A::T_K)),
          number_field<A>("P_Pa", {"P", Dimension::pressure, 4}, member_of(&A::P_Pa)),
          composition_field<A>("x", 'x', substances, basis, 6, x, 1),
          json_field<A>("w", [x, &substances](const A& a) { return mass_fractions(x(a), substances); }),
          text_field<A>("kind", "kind",
                        [](const A& a) { return a.heterogeneous ? "heterogeneous" : "homogeneous"; }),
          text_field<A>("extremum", "extremum", [](const A& a) { return name_of(a.extremum); }),
          json_field<A>("residual", member_of(&A::residual))};
}

Fields<ThreePhase> three_phase_fields(const std::vector<Substance>& substances, Basis basis) {
  using L = ThreePhase;
  const auto alpha = [](const L& line) { return both(line.x1_alpha); };
  const auto beta = [](const L& line) { return both(line.x1_beta); };
  const auto y = [](const L& line) { return both(line.y1); };
  return {number_field<L>("T_K", {"T", Dimension::temperature, 4}, member_of(&L::T_K)),
          number_field<L>("P_Pa", {"P", Dimension::pressure, 4}, member_of(&L::P_Pa)),
          composition_field<L>("x_alpha", 'x', substances, basis, 6, alpha, 1, "alpha"),
          composition_field<L>("x_beta", 'x', substances, basis, 6, beta, 1, "beta"),
          composition_field<L>("y", 'y', substances, basis, 6, y, 1),
          json_field<L>("residual", member_of(&L::residual))};
}

Fields<BinaryPoint> critical_fields(const std::vector<Substance>& substances, Basis basis) {
  using P = BinaryPoint;
  return {number_field<P>("T_K", {"T", Dimension::temperature, 3}, member_of(&P::T_K)),
          number_field<P>("P_Pa", {"P", Dimension::pressure, 3}, member_of(&P::P_Pa)),
          composition_field<P>("x", 'x', substances, basis, 5, member_of(&P::x), 1)};
}

// The rows of all curves; where several models are compared, with the model behind.
template <class Row>
Table of_all(std::string title, const Fields<Row>& fields, const std::vector<BinaryCurve>& curves,
             std::vector<Row> BinaryCurve::*rows) {
  const bool compared = !curves.front().label.empty();
  Table all = table_of(std::move(title), fields, std::vector<Row>{});
  if (compared) all.columns.push_back({"model"});
  for (const BinaryCurve& curve : curves) {
    for (std::vector<Cell>& row : table_of("", fields, curve.*rows).rows) {
      if (compared) row.emplace_back(curve.label);
      all.rows.push_back(std::move(row));
    }
  }
  return all;
}

}  // namespace

Table curve_table(const BinaryCurve& curve, const Mixture& mixture, Basis basis, const DisplayUnits& units) {
  const auto& substances = mixture.substances();
  return table_of(
      fmt::format("{} and {} at {}", substances[0].name, substances[1].name, held_text(curve, units)),
      point_fields(substances, basis), curve.points);
}

Table azeotrope_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  return of_all("Azeotropes", azeotrope_fields(mixture.substances(), basis), curves,
                &BinaryCurve::azeotropes);
}

Table critical_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  return of_all("Critical points, where liquid and vapour become one",
                critical_fields(mixture.substances(), basis), curves, &BinaryCurve::critical);
}

Table three_phase_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  return of_all("Two liquids and vapour", three_phase_fields(mixture.substances(), basis), curves,
                &BinaryCurve::three_phases);
}

Json to_json(const BinaryCurve& curve, const std::vector<Substance>& substances) {
  const auto list = [](const auto& fields, const auto& rows) {
    Json array = Json::array();
    for (const auto& row : rows) array.push_back(json_of(fields, row));
    return array;
  };
  Json json;
  const BinaryPoint& any = curve.points.front();
  if (curve.sought == Sought::temperature) {
    json["P_Pa"] = any.P_Pa;
  } else {
    json["T_K"] = any.T_K;
  }
  json["points"] = list(point_fields(substances, Basis::mole), curve.points);
  json["azeotropes"] = list(azeotrope_fields(substances, Basis::mole), curve.azeotropes);
  json["three_phase"] = list(three_phase_fields(substances, Basis::mole), curve.three_phases);
  if (!curve.critical.empty())
    json["critical"] = list(critical_fields(substances, Basis::mole), curve.critical);
  json["evaluations"] = curve.evaluations;
  return json;
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
