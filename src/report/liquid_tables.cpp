#include "liquid_tables.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

namespace jampot {

std::vector<Table> liquid_deviation_tables(const LiquidComparison& comparison, const std::string& name,
                                           const std::vector<Substance>& substances) {
  Table points{fmt::format("Measured pairs of liquids, {} (model minus measured, mole fraction)", name),
               {{"T", Dimension::temperature, 2}},
               {}};
  for (const char* side : {"one liquid", "other liquid"}) {
    for (std::size_t i = 0; i + 1 < substances.size(); ++i) {
      points.columns.push_back(
          {fmt::format("x({}) {}", substances[i].short_name(), side), Dimension::fraction, 4});
      points.columns.push_back({"deviation", Dimension::fraction, 4});
    }
  }
  points.columns.push_back({"distance", Dimension::fraction, 4});
  for (const auto& row : comparison.rows) {
    std::vector<Cell> cells{row.measured.T_K};
    const bool parts = !row.alpha.empty();
    for (const auto& [measured, model] :
         {std::pair(&row.measured.x, &row.alpha), std::pair(&row.measured.y, &row.beta)}) {
      for (std::size_t i = 0; i + 1 < substances.size(); ++i) {
        cells.emplace_back((*measured)[i]);
        cells.push_back(parts ? Cell((*model)[i] - (*measured)[i]) : Cell(std::string("one liquid")));
      }
    }
    cells.push_back(parts ? Cell(row.distance) : Cell());
    points.rows.push_back(std::move(cells));
  }
  Table summary{fmt::format("Deviations, {}", name),
                {{"quantity"}, {"points"}, {"mean"}, {"mean absolute"}, {"RMS"}, {"largest"}},
                {}};
  const auto add = [&](const std::string& what, const DeviationSummary& s) {
    const auto number = [](double value) { return fmt::format("{:.5f}", value); };
    summary.rows.push_back({what, fmt::format("{}", s.count), number(s.mean), number(s.mean_absolute),
                            number(s.root_mean_square), number(s.largest)});
  };
  for (std::size_t i = 0; i < comparison.x.size(); ++i)
    add(fmt::format("x({}), both liquids", substances[i].short_name()), comparison.x[i]);
  add("distance of a pair", comparison.distance);
  if (comparison.without > 0)
    summary.rows.push_back({fmt::format("without: {} where the model is one liquid", comparison.without)});
  summary.rows.back().resize(summary.columns.size());
  return {std::move(points), std::move(summary)};
}

Json to_json(const LiquidComparison& comparison) {
  Json json{{"without", comparison.without}, {"points", Json::array()}};
  for (const auto& row : comparison.rows) {
    json["points"].push_back({{"T_K", row.measured.T_K},
                              {"measured_alpha", row.measured.x},
                              {"measured_beta", row.measured.y},
                              {"alpha", row.alpha},
                              {"beta", row.beta},
                              {"distance", row.alpha.empty() ? Json(nullptr) : Json(row.distance)}});
  }
  for (const DeviationSummary& s : comparison.x) json["x"].push_back(to_json(s));
  json["distance"] = to_json(comparison.distance);
  return json;
}

void add_deviations(const std::vector<LiquidsBeside>& beside, const std::vector<Contender>& contenders,
                    Answer& answer) {
  const bool compared = contenders.size() > 1;
  for (const LiquidsBeside& one : beside) {
    const std::string& label = contenders[one.contender].label;
    for (Table& table : liquid_deviation_tables(one.comparison, compared ? one.set + ", " + label : one.set,
                                                contenders.front().mixture.substances()))
      answer.tables.push_back(std::move(table));
    Json json = to_json(one.comparison);
    json["file"] = one.set;
    if (compared) json["liquid"] = label;
    (*answer.json)["measured"].push_back(std::move(json));
  }
}

}  // namespace jampot
