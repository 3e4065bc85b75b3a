#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "fields.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/report/data.hpp"

namespace jampot {
namespace {

// Of three substances and more: every step over its uncertainty.
Figure steps_figure(const Consistency& result, const DataSet& data) {
  Figure figure;
  std::vector<std::string> names;
  for (const Substance& substance : data.substances) names.push_back(substance.name);
  figure.title = "Consistency of " + joined(names, ", ");
  figure.footer = fmt::format(
      "{}; sum of (x + x') d ln gamma from point to point, over its standard uncertainty; "
      "dotted: 95 % should lie within",
      std::filesystem::path(data.name).filename().string());
  Series steps = symbols(Mark::circle, colours::liquid);
  double most = 3;
  for (const ConsistencyStep& step : result.steps) {
    steps.spots.push_back({static_cast<double>(steps.spots.size()) + 1, step.difference / step.u});
    most = std::max(most, 1.1 * std::abs(steps.spots.back().y));
  }
  Panel panel;
  panel.x = {"number of the step along the points", 0, static_cast<double>(result.steps.size()) + 1};
  panel.y = {"step over its uncertainty", -std::ceil(most), std::ceil(most)};
  panel.series = {straight(looks::zero, {0, 0}, {panel.x.high, 0})};
  for (const double limit : {2.0, -2.0})
    panel.series.push_back(straight(looks::reference, {0, limit}, {panel.x.high, limit}));
  panel.series.push_back(std::move(steps));
  figure.panels = {std::move(panel)};
  return figure;
}

Figure consistency_figure(const Consistency& result, const DataSet& data) {
  if (result.points.empty()) return steps_figure(result, data);
  Figure figure;
  figure.title = fmt::format("Consistency of {} and {}", data.substances[0].name, data.substances[1].name);
  figure.footer = fmt::format("{}; symbols: measured; curve: gE fitted to the boiling points alone",
                              std::filesystem::path(data.name).filename().string());
  Series ratio{{}, "measured", Stroke::none, Mark::circle, 0}, curve{{}, "", Stroke::solid, Mark::none, 1},
      dy{{}, "", Stroke::none, Mark::square, 2};
  double low = 0, high = 0, most = 0.01;
  for (const ConsistencyPoint& point : result.points) {
    ratio.spots.push_back({point.x1, point.ln_ratio()});
    curve.spots.push_back({point.x1, point.ln_ratio_fit});
    dy.spots.push_back({point.x1, point.dy});
    low = std::min({low, point.ln_ratio(), point.ln_ratio_fit});
    high = std::max({high, point.ln_ratio(), point.ln_ratio_fit});
    most = std::max(most, std::abs(point.dy));
  }
  Panel above, below;
  const std::string x = fmt::format("mole fraction of {} in the liquid", data.substances[0].name);
  above.x = below.x = {x, 0, 1};
  above.y = rounded_axis("ln(gamma1/gamma2)", low, high);
  above.y.low = std::min(above.y.low, -0.1);
  above.series = {straight(looks::reference, {0, 0}, {1, 0}), std::move(curve), std::move(ratio)};
  below.y = rounded_axis("y1 calculated - measured", -1.1 * most, 1.1 * most);
  below.series = {straight(looks::zero, {0, 0}, {1, 0})};
  for (const double limit : {0.01, -0.01})
    below.series.push_back(straight(looks::reference, {0, limit}, {1, limit}));
  below.series.push_back(std::move(dy));
  figure.panels = {std::move(above), std::move(below)};
  for (const ConsistencyTest& test : result.tests) {
    if (test.verdict == Verdict::failed) figure.notices.push_back(test.name + " test failed");
  }
  return figure;
}

Fields<ConsistencyTest> test_fields() {
  using T = ConsistencyTest;
  const auto number = [](std::string key, const char* heading, double T::*member) {
    Field<T> field = number_field<T>(std::move(key), {heading}, member_of(member));
    field.cells = [member](const T& test) {
      return std::vector<Cell>(1, Cell(fmt::format("{:.4g}", test.*member)));
    };
    return field;
  };
  return {text_field<T>("name", "test", member_of(&T::name)),
          number("value", "value", &T::value),
          maybe_field<T>("u", {"uncertainty", Dimension::number, 2},
                         [](const T& test) { return test.u > 0 ? std::optional(test.u) : std::nullopt; }),
          number("limit", "limit", &T::limit),
          text_field<T>("unit", "unit", member_of(&T::unit)),
          text_field<T>("verdict", "verdict", [](const T& test) { return name_of(test.verdict); }),
          text_field<T>("meaning", "what it means", member_of(&T::meaning))};
}

Fields<ConsistencyPoint> tested_point_fields() {
  using P = ConsistencyPoint;
  const auto both = [](const P& p) { return std::array{p.ln_gamma_1, p.ln_gamma_2}; };
  return {number_field<P>("x1", {"x1", Dimension::fraction, 4}, member_of(&P::x1)),
          number_field<P>("T_K", {"T", Dimension::temperature, 3}, member_of(&P::T_K)),
          number_field<P>("P_Pa", {"P", Dimension::pressure, 3}, member_of(&P::P_Pa)),
          json_field<P>("ln_gamma", both),
          number_field<P>("", {"ln gamma1"}, member_of(&P::ln_gamma_1)),
          number_field<P>("", {"ln gamma2"}, member_of(&P::ln_gamma_2)),
          number_field<P>("gE_RT", {"gE/RT"}, member_of(&P::gE)),
          number_field<P>("gE_RT_fit", {"gE/RT fitted"}, member_of(&P::gE_fit)),
          number_field<P>("dy1", {"y1 calculated - measured", Dimension::number, 5}, member_of(&P::dy))};
}

Fields<ConsistencyStep> step_fields() {
  using S = ConsistencyStep;
  const auto line = [](int S::*member) {
    return [member](const S& step) { return static_cast<double>(step.*member); };
  };
  return {number_field<S>("from_line", {"from line", Dimension::number, 0}, line(&S::from)),
          number_field<S>("to_line", {"to line", Dimension::number, 0}, line(&S::to)),
          number_field<S>("difference", {"sum of (x + x') d ln gamma", Dimension::number, 4},
                          member_of(&S::difference)),
          number_field<S>("u", {"uncertainty", Dimension::number, 4}, member_of(&S::u))};
}

}  // namespace

Answer answer(const ConsistencyStudy& study, const AnswerOptions&) {
  Answer answer;
  *answer.json = plain_header("consistency");
  (*answer.json)["tests"] = Json::array();
  for (const auto& [data, result] : study.sets) {
    const std::string& file = data.name;
    const auto of_tests = test_fields();
    const auto of_points = tested_point_fields();
    const auto of_steps = step_fields();
    Table tests = table_of(fmt::format("Consistency of {} ({} mixed points)", file, result.used), of_tests,
                           result.tests);
    Table points = result.steps.empty() ? table_of("Point by point", of_points, result.points)
                                        : table_of("Step by step", of_steps, result.steps);
    const auto add = [&](const char* key, Json json) {
      Json entry{{"file", file}};
      entry.update(json);
      (*answer.json)[key].push_back(std::move(entry));
    };
    for (const ConsistencyTest& test : result.tests) add("tests", json_of(of_tests, test));
    for (const ConsistencyPoint& point : result.points) add("points", json_of(of_points, point));
    for (const ConsistencyStep& step : result.steps) add("steps", json_of(of_steps, step));
    add("quality", {{"value", result.quality}, {"from", result.quality_from}});
    answer.lines.push_back(fmt::format("quality of {}: {:.2f} of 1, {}",
                                       std::filesystem::path(file).filename().string(), result.quality,
                                       result.quality_from));
    answer.screen.push_back(tests);
    answer.screen.push_back(thinned(points));
    answer.tables.push_back(std::move(tests));
    answer.tables.push_back(std::move(points));
    if ((*answer.json)["substances"].empty()) {
      for (const Substance& substance : data.substances)
        (*answer.json)["substances"].push_back(to_json(substance));
    }
    if (!answer.figure) answer.figure = consistency_figure(result, data);
  }
  answer.notices = study.notices;
  answer.lines.emplace_back(
      "a passed test does not prove the data right; a failed one shows that something is wrong");
  return answer;
}

}  // namespace jampot
