#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "jampot/report/data.hpp"

namespace jampot {
namespace {

Figure consistency_figure(const Consistency& result, const DataSet& data) {
  Figure figure;
  figure.title = fmt::format("Consistency of {} and {}", data.substances[0].name, data.substances[1].name);
  figure.footer =
      fmt::format("{}; symbols: measured, ideal vapour; curve: gE fitted to the boiling points alone",
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
  above.series = {
      {{{0, 0}, {1, 0}}, "", Stroke::dotted, Mark::none, 6, 1.2}, std::move(curve), std::move(ratio)};
  below.y = rounded_axis("y1 calculated - measured", -1.1 * most, 1.1 * most);
  below.series = {{{{0, 0}, {1, 0}}, "", Stroke::solid, Mark::none, 6, 1.0}};
  for (const double limit : {0.01, -0.01})
    below.series.push_back({{{0, limit}, {1, limit}}, "", Stroke::dotted, Mark::none, 6, 1.2});
  below.series.push_back(std::move(dy));
  figure.panels = {std::move(above), std::move(below)};
  for (const ConsistencyTest& test : result.tests) {
    if (test.verdict == Verdict::failed) figure.notices.push_back(test.name + " test failed");
  }
  return figure;
}

}  // namespace

Answer answer(const ConsistencyStudy& study, const AnswerOptions&) {
  Answer answer;
  *answer.json = plain_header("consistency");
  (*answer.json)["tests"] = Json::array();
  for (const auto& [data, result] : study.sets) {
    const std::string& file = data.name;
    Table tests{fmt::format("Consistency of {} ({} mixed points)", file, result.points.size()),
                {{"test"}, {"value"}, {"limit"}, {"unit"}, {"verdict"}, {"what it means"}},
                {}};
    for (const ConsistencyTest& test : result.tests) {
      tests.rows.push_back({test.name, fmt::format("{:.4g}", test.value), fmt::format("{:.4g}", test.limit),
                            test.unit, std::string(name_of(test.verdict)), test.meaning});
      (*answer.json)["tests"].push_back({{"file", file},
                                         {"name", test.name},
                                         {"value", test.value},
                                         {"limit", test.limit},
                                         {"unit", test.unit},
                                         {"verdict", name_of(test.verdict)},
                                         {"meaning", test.meaning}});
    }
    Table points{"Point by point",
                 {{"x1", Dimension::fraction, 4},
                  {"T", Dimension::temperature, 3},
                  {"P", Dimension::pressure, 3},
                  {"ln gamma1"},
                  {"ln gamma2"},
                  {"gE/RT"},
                  {"gE/RT fitted"},
                  {"y1 calculated - measured", Dimension::number, 5}},
                 {}};
    for (const ConsistencyPoint& point : result.points) {
      points.rows.push_back({point.x1, point.T_K, point.P_Pa, point.ln_gamma_1, point.ln_gamma_2, point.gE,
                             point.gE_fit, point.dy});
      (*answer.json)["points"].push_back({{"file", file},
                                          {"x1", point.x1},
                                          {"T_K", point.T_K},
                                          {"P_Pa", point.P_Pa},
                                          {"ln_gamma", {point.ln_gamma_1, point.ln_gamma_2}},
                                          {"gE_RT", point.gE},
                                          {"gE_RT_fit", point.gE_fit},
                                          {"dy1", point.dy}});
    }
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
      "a test that is passed does not prove the data right; one that is failed says that something is wrong");
  return answer;
}

}  // namespace jampot
