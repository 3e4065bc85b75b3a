#pragma once
// Directions and distances among compositions of three components. They are those of the equilateral
// triangle of side 1, in which no component is special.
#include <algorithm>
#include <array>
#include <cmath>
#include <utility>
#include <vector>

#include "jampot/diagram/ternary.hpp"

namespace jampot {

using Composition = std::array<double, 3>;

inline Composition combined(const Composition& a, double factor, const Composition& b) {
  return {a[0] + factor * b[0], a[1] + factor * b[1], a[2] + factor * b[2]};
}

inline Composition difference(const Composition& a, const Composition& b) {
  return combined(a, -1, b);
}

inline double inner(const Composition& a, const Composition& b) {
  return (a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) / 2;
}

inline double norm(const Composition& a) {
  return std::sqrt(inner(a, a));
}

inline double distance(const Composition& a, const Composition& b) {
  return norm(difference(a, b));
}

/// Twice the area between two directions; positive where the second lies to the left of the first, seen with
/// the corners 0, 1, 2 standing against the clock.
inline double cross(const Composition& a, const Composition& b) {
  return a[1] * b[2] - a[2] * b[1];
}

/// At right angles to a tie line, of length 1, on the side of `towards`.
inline Composition across(const TieLine& line, const Composition& towards) {
  const Composition along = difference(line.beta, line.alpha);
  Composition result{along[1] - along[2], along[2] - along[0], along[0] - along[1]};
  const double factor = (inner(result, towards) < 0 ? -1 : 1) / norm(result);
  for (double& value : result) value *= factor;
  return result;
}

inline double distance(const TieLine& a, const TieLine& b) {
  return std::max(distance(a.alpha, b.alpha), distance(a.beta, b.beta));
}

/// The other way round.
template <class Line>
Line turned(Line line) {
  std::swap(line.alpha, line.beta);
  return line;
}

/// The same tie line with alpha on the side of that of another.
template <class Line>
Line aligned(const Line& line, const TieLine& other) {
  const Line reverse = turned(line);
  return distance(line, other) <= distance(reverse, other) ? line : reverse;
}

/// Ends a region whose next step would leave the triangle at the nearest two liquids of the pair there, if
/// they are near. Starts have `line`, `end` and `used`.
template <class Region, class Starts>
bool end_region_at_edge(Region& region, Starts& starts, const Composition& direction) {
  const auto last = region.tie_lines.back();
  for (auto& start : starts) {
    if (start.end.kind != RegionEnd::Kind::edge) continue;
    const std::size_t absent = start.end.number;
    const double left = std::max(last.alpha[absent], last.beta[absent]);
    if (left > 0.02 || direction[absent] >= 0) continue;
    const auto line = aligned(start.line, last);
    if (distance(line, last) > std::min(0.03, 30 * left + 1e-5)) continue;
    if (start.used && region.begin.kind == RegionEnd::Kind::edge && region.begin.number == absent) continue;
    start.used = true;
    region.tie_lines.push_back(line);
    region.end = start.end;
    return true;
  }
  return false;
}

inline Composition array_of(const std::vector<double>& x) {
  return {x[0], x[1], x[2]};
}

/// A point of a side belongs to the region of its pair, a little inside it.
inline Composition inside_triangle(Composition z) {
  constexpr double least = 1e-4;
  double sum = 0;
  for (double& value : z) sum += value = std::max(value, least);
  for (double& value : z) value /= sum;
  return z;
}

/// Whether an extrapolated composition holds at least a fifth of everything that the last one holds.
inline bool keeps_all(const Composition& further, const Composition& last) {
  for (std::size_t i = 0; i < 3; ++i) {
    if (!(further[i] > 0.2 * last[i])) return false;
  }
  return true;
}

/// The cosine of the angle between two tie lines.
inline double cosine_between(const TieLine& a, const TieLine& b) {
  const Composition u = difference(a.beta, a.alpha), v = difference(b.beta, b.alpha);
  return inner(u, v) / (norm(u) * norm(v));
}

}  // namespace jampot
