#include "jampot/draw/window.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

bool inside(const Panel& panel, const Spot& spot) {
  return spot.x >= panel.x.low && spot.x <= panel.x.high && spot.y >= panel.y.low && spot.y <= panel.y.high;
}

// The part of a straight piece within the frame, as shares of its length from 0 to 1 (Liang-Barsky).
std::optional<std::array<double, 2>> share_inside(const Panel& panel, const Spot& a, const Spot& b) {
  double from = 0, to = 1;
  const double dx = b.x - a.x, dy = b.y - a.y;
  for (const auto& [p, q] : {std::pair(-dx, a.x - panel.x.low), std::pair(dx, panel.x.high - a.x),
                             std::pair(-dy, a.y - panel.y.low), std::pair(dy, panel.y.high - a.y)}) {
    if (p == 0) {
      if (q < 0) return std::nullopt;
      continue;
    }
    (p < 0 ? from : to) = p < 0 ? std::max(from, q / p) : std::min(to, q / p);
  }
  if (from >= to) return std::nullopt;
  return std::array{from, to};
}

// A curve cut into the runs that lie within the frame.
std::vector<Series> cut(const Panel& panel, const Series& series) {
  std::vector<Series> runs;
  const auto between = [](const Spot& a, const Spot& b, double share) {
    return Spot{a.x + share * (b.x - a.x), a.y + share * (b.y - a.y)};
  };
  bool open = false;
  for (std::size_t k = 0; k + 1 < series.spots.size(); ++k) {
    const Spot &a = series.spots[k], &b = series.spots[k + 1];
    const auto share = share_inside(panel, a, b);
    if (!share) {
      open = false;
      continue;
    }
    if (!open || (*share)[0] > 0) {
      runs.push_back(series);
      runs.back().spots = {between(a, b, (*share)[0])};
      if (runs.size() > 1) runs.back().label.clear();
    }
    runs.back().spots.push_back(between(a, b, (*share)[1]));
    open = (*share)[1] == 1;
  }
  return runs;
}

}  // namespace

Window parse_window(const std::string& text) {
  Window window;
  for (const std::string& piece : split(text, ',')) {
    const std::size_t equals = piece.find('='), to = piece.find(" to ");
    const std::string axis(trimmed(std::string_view(piece).substr(0, std::min(equals, piece.size()))));
    std::optional<double> low, high;
    if (equals != std::string::npos && to != std::string::npos && to > equals) {
      low = parse_number(piece.substr(equals + 1, to - equals - 1));
      high = parse_number(piece.substr(to + 4));
    }
    if (!low || !high || !(*high > *low) || (axis != "x" && axis != "y")) {
      throw RequestError(fmt::format(
          "`window` '{}': expected the ends of the axes in the units shown, as in \"x=0 to 0.1, y=60 to 70\"",
          text));
    }
    (axis == "x" ? window.x : window.y) = {*low, *high};
  }
  return window;
}

Panel windowed(const Panel& panel, const Window& window) {
  Panel result = panel;
  if (window.x) std::tie(result.x.low, result.x.high) = std::pair((*window.x)[0], (*window.x)[1]);
  if (window.y) std::tie(result.y.low, result.y.high) = std::pair((*window.y)[0], (*window.y)[1]);
  result.series.clear();
  for (const Series& series : panel.series) {
    if (series.stroke == Stroke::none) {
      Series kept = series;
      std::erase_if(kept.spots, [&](const Spot& spot) { return !inside(result, spot); });
      if (!kept.spots.empty()) result.series.push_back(std::move(kept));
      continue;
    }
    for (Series& run : cut(result, series)) result.series.push_back(std::move(run));
  }
  std::erase_if(result.callouts, [&](const Callout& callout) { return !inside(result, callout.spot); });
  if (result.series.empty()) {  // nothing to see there: an empty frame says so better than a failure
    result.series.push_back({{{result.x.low, result.y.low}}, "", Stroke::none, Mark::none, 6});
  }
  return result;
}

}  // namespace jampot
