#include "jampot/regression/consistency.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "tests.hpp"

namespace jampot {

std::string_view name_of(Verdict verdict) {
  switch (verdict) {
    case Verdict::passed:
      return "passed";
    case Verdict::failed:
      return "failed";
    case Verdict::cannot_tell:
      break;
  }
  return "cannot tell";
}

double ConsistencyTest::mark() const {
  // A test whose number lies within its uncertainty of the limit still says how near; one without a number
  // does not.
  if (!(value >= 0) || (verdict == Verdict::cannot_tell && u == 0)) return -1;
  return value > limit ? limit / value : 1;
}

namespace consistency {

std::vector<const DataPoint*> mixed_points(const DataSet& data) {
  std::vector<const DataPoint*> points;
  for (const DataPoint& point : data.points) {
    if (point.is_pure() || !point.used()) continue;
    bool whole = true;
    for (const std::size_t i : point.present()) whole = whole && point.x[i] > 0 && point.y[i] > 0;
    if (whole) points.push_back(&point);
  }
  constexpr std::size_t least = 5;
  if (points.size() < least)
    throw CalculationError(
        fmt::format("{} mixed points are too few for a test of consistency; five are needed", points.size()));
  return points;
}

ConsistencyTest end_points(const DataSet& data, const MeasuredGamma& gamma) {
  ConsistencyTest test{.name = "end points", .limit = 1, .unit = "% of P"};
  std::string which;
  bool any = false;
  for (const DataPoint& point : data.points) {
    if (!point.is_pure() || !point.used()) continue;
    const auto i = static_cast<std::size_t>(std::find(point.x.begin(), point.x.end(), 1.0) - point.x.begin());
    const double off = std::abs(100 * (point.P_Pa / gamma.saturation_Pa(i, point.T_K) - 1));
    any = true;
    if (off < test.value) continue;
    test.value = off;
    which = data.substances[i].name;
  }
  if (!any) {
    test.meaning = "the pure substances were not measured";
    return test;
  }
  test.verdict = test.value <= test.limit ? Verdict::passed : Verdict::failed;
  test.meaning = fmt::format(
      "the measured pressure of a pure substance differs from the vapour pressure in use by at most {:.2f} % "
      "({})",
      test.value, which);
  return test;
}

namespace {

void add_quality(Consistency& result) {
  double ends = 1, sum = 0;
  bool ends_measured = false;
  int count = 0;
  std::vector<std::string> parts;
  for (const ConsistencyTest& test : result.tests) {
    const double mark = test.mark();
    if (mark < 0) continue;
    if (test.name == "end points") {
      ends = mark;
      ends_measured = true;
      continue;
    }
    sum += mark;
    ++count;
    parts.push_back(fmt::format("{} {:.2f}", test.name, mark));
  }
  result.quality = count > 0 ? ends * sum / count : 0;
  result.quality_from =
      fmt::format("end points {}, times the mean of {} (each its limit over its value, at most 1)",
                  ends_measured ? fmt::format("{:.2f}", ends) : "not measured", joined(parts, ", "));
}

}  // namespace
}  // namespace consistency

Consistency check_consistency(const DataSet& data, const ConsistencyOptions& options) {
  demand_points(data);
  if (!vapour_liquid(data.kind) || !has_vapour(data.kind))
    throw RequestError(
        "consistency tests compare measured vapours with measured boiling points; these data have no vapour "
        "analyses");
  Consistency result = data.substances.size() == 2 ? consistency::check_binary(data, options)
                                                   : consistency::check_more(data, options);
  consistency::add_quality(result);
  if (options.vapour.model == "ideal")
    result.notices.add("ideal-vapour",
                       "the tests take the vapour as an ideal gas; with associating vapours and above a few "
                       "bar they fail even for good data: choose another `vapour`");
  return result;
}

}  // namespace jampot
