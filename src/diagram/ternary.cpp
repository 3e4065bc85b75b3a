#include "jampot/diagram/ternary.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "ternary_trace.hpp"

namespace jampot {
namespace {

double span_of(const TieLine& a, const TieLine& b) {
  const Composition m = a.middle(), n = b.middle();
  return std::sqrt(
      ((m[0] - n[0]) * (m[0] - n[0]) + (m[1] - n[1]) * (m[1] - n[1]) + (m[2] - n[2]) * (m[2] - n[2])) / 2);
}

double length_of(const TwoLiquidRegion& region) {
  double sum = 0;
  for (std::size_t k = 1; k < region.tie_lines.size(); ++k)
    sum += span_of(region.tie_lines[k - 1], region.tie_lines[k]);
  return sum;
}

void name_sides(TwoLiquidRegion& region) {
  Composition sum{};
  for (const TieLine& line : region.tie_lines) {
    for (std::size_t i = 0; i < 3; ++i) sum[i] += line.alpha[i] - line.beta[i];
  }
  region.alpha_rich = static_cast<std::size_t>(std::max_element(sum.begin(), sum.end()) - sum.begin());
  region.beta_rich = static_cast<std::size_t>(std::min_element(sum.begin(), sum.end()) - sum.begin());
}

ShownTieLine shown(const TieLine& line, std::size_t region) {
  ShownTieLine result;
  result.line = line;
  result.region = region;
  for (std::size_t i = 0; i < 3; ++i) result.distribution[i] = line.beta[i] / line.alpha[i];
  return result;
}

// Tie lines at equal distances between the ends of a region; a pair's own tie line at an edge is one of them.
void choose(TernaryTracer& tracer, const TwoLiquidRegion& region, std::size_t number, int wanted,
            std::vector<ShownTieLine>& list) {
  const double whole = length_of(region);
  const bool to_plait = region.end.kind == RegionEnd::Kind::plait;
  const bool from_plait = region.begin.kind == RegionEnd::Kind::plait;
  const double first = from_plait ? 0.5 : 0;
  const double last = wanted - 1 + first + (to_plait ? 0.5 : 0);
  double passed = 0;
  std::size_t k = 1;
  for (int count = 0; count < wanted; ++count) {
    const double at = last > 0 ? whole * (count + first) / last : whole / 2;
    while (k + 1 < region.tie_lines.size() &&
           passed + span_of(region.tie_lines[k - 1], region.tie_lines[k]) < at) {
      passed += span_of(region.tie_lines[k - 1], region.tie_lines[k]);
      ++k;
    }
    const TieLine &one = region.tie_lines[k - 1], &other = region.tie_lines[k];
    const double step = span_of(one, other),
                 share = step > 0 ? std::clamp((at - passed) / step, 0.0, 1.0) : 0;
    if (share == 0 || share > 1 - 1e-9) {  // one that is known: the edge's own, or the side of a triangle
      const TieLine& known = share == 0 ? one : other;
      if (known.length() > 0) list.push_back(shown(known, number));
      continue;
    }
    const auto between = [&](const Composition& a, const Composition& b) {
      Composition x{};
      for (std::size_t i = 0; i < 3; ++i) x[i] = (1 - share) * a[i] + share * b[i];
      return x;
    };
    const TieLine guess{between(one.alpha, other.alpha), between(one.beta, other.beta)};
    ShownTieLine line;
    const auto found = tracer.near(guess.middle(), guess, &line.residual);
    if (!found) continue;  // within rounding of a plait point
    const double residual = line.residual;
    line = shown(*found, number);
    line.residual = residual;
    list.push_back(line);
  }
}

using Polygon = std::vector<std::array<double, 3>>;

// Counts how often a ray from the point crosses the outline, in the plane of the first two fractions.
bool inside(const Polygon& corners, const Composition& z) {
  bool in = false;
  for (std::size_t i = 0, j = corners.size() - 1; i < corners.size(); j = i++) {
    const Composition &a = corners[i], &b = corners[j];
    if ((a[1] > z[1]) != (b[1] > z[1]) && z[0] < (b[0] - a[0]) * (z[1] - a[1]) / (b[1] - a[1]) + a[0])
      in = !in;
  }
  return in;
}

}  // namespace

int TernaryDiagram::liquids_at(const std::array<double, 3>& z) const {
  for (const ThreeLiquids& triangle : three_liquids) {
    if (inside({triangle.begin(), triangle.end()}, z)) return 3;
  }
  for (const TwoLiquidRegion& region : regions) {
    Polygon outline;
    for (const TieLine& line : region.tie_lines) outline.push_back(line.alpha);
    for (auto line = region.tie_lines.rbegin(); line != region.tie_lines.rend(); ++line)
      outline.push_back(line->beta);
    if (inside(outline, z)) return 2;
  }
  return 1;
}

std::array<double, 3> TieLine::middle() const {
  return {(alpha[0] + beta[0]) / 2, (alpha[1] + beta[1]) / 2, (alpha[2] + beta[2]) / 2};
}

double TieLine::length() const {
  return std::max({std::abs(alpha[0] - beta[0]), std::abs(alpha[1] - beta[1]), std::abs(alpha[2] - beta[2])});
}

TernaryDiagram ternary_diagram(ActivityModel& model, double T_K, const TernaryOptions& options) {
  if (model.size() != 3) throw RequestError("a triangle has three substances");
  demand_temperature(T_K);
  if (options.tie_lines < 1 || options.tie_lines > 10000)
    throw RequestError("tie lines: expected a number from 1 to 10000");
  for (const bool careful : {false, true}) {
    TernaryDiagram diagram;
    TernaryTracer tracer(model, T_K, diagram, careful);
    double whole = 0;
    for (TwoLiquidRegion& region : diagram.regions) {
      name_sides(region);
      whole += length_of(region);
    }
    for (std::size_t k = 0; k < diagram.regions.size(); ++k) {
      const double share = length_of(diagram.regions[k]) / whole;
      choose(tracer, diagram.regions[k], k,
             std::max(1, static_cast<int>(std::lround(share * options.tie_lines))), diagram.tie_lines);
    }
    bool stable = true;
    for (ShownTieLine& line : diagram.tie_lines)
      stable = !tracer.splitter().more_stable(line.line.alpha, line.distance) && stable;
    if (stable) return diagram;
    if (careful) {
      diagram.notices.add("unstable-tie-lines",
                          "some of the tie lines shown are not stable: a further liquid would form, and the "
                          "region it belongs to was not found");
      return diagram;
    }
  }
  throw std::logic_error("unreachable");
}

std::optional<ShownTieLine> tie_line_through(ActivityModel& model, double T_K,
                                             const std::array<double, 3>& composition) {
  LiquidSplitter splitter(model, T_K);
  const LiquidSplit split = splitter.split(composition);
  if (split.phases() != 2) return std::nullopt;
  TieLine line;
  std::copy(split.x[0].begin(), split.x[0].end(), line.alpha.begin());
  std::copy(split.x[1].begin(), split.x[1].end(), line.beta.begin());
  ShownTieLine result = shown(line, 0);
  result.residual = split.residual;
  result.distance = split.distance;
  return result;
}

std::string TernaryDiagram::description(const std::array<std::string, 3>& names) const {
  if (regions.empty() && three_liquids.empty()) return "one liquid everywhere";
  const auto pair = [&](std::size_t absent) {
    return fmt::format("{} and {}", names[absent == 0 ? 1 : 0], names[absent == 2 ? 1 : 2]);
  };
  std::vector<std::string> parts, pairs;
  for (std::size_t k = 0; k < 3; ++k) {
    if (splits_without[k]) pairs.push_back(pair(k));
  }
  using Kind = RegionEnd::Kind;
  if (pairs.empty()) {
    parts.emplace_back("no pair parts");
  } else {
    parts.push_back(fmt::format("{} part{}", joined(pairs, "; "), pairs.size() == 1 ? "" : " (each pair)"));
  }
  int islands = 0, bands = 0, closed = 0;
  for (const TwoLiquidRegion& region : regions) {
    const bool from_plait = region.begin.kind == Kind::plait, to_plait = region.end.kind == Kind::plait;
    const bool from_edge = region.begin.kind == Kind::edge, to_edge = region.end.kind == Kind::edge;
    islands += from_plait && to_plait ? 1 : 0;
    bands += from_edge && to_edge ? 1 : 0;
    closed += (from_edge && to_plait) || (from_plait && to_edge) ? 1 : 0;
  }
  const auto count = [](int number, const char* one, const char* several) {
    return fmt::format("{} {}", number, number == 1 ? one : several);
  };
  if (closed > 0)
    parts.push_back(count(closed, "region from an edge closes", "regions from edges close") +
                    " at a plait point");
  if (bands > 0) parts.push_back(count(bands, "band joins two edges", "bands join two edges"));
  if (islands > 0)
    parts.push_back(count(islands, "island inside the triangle", "islands inside the triangle"));
  if (!three_liquids.empty())
    parts.push_back(count(static_cast<int>(three_liquids.size()), "triangle of three liquids",
                          "triangles of three liquids"));
  return joined(parts, "; ");
}

}  // namespace jampot
