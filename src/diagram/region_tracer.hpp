#pragma once
// Follows regions of two liquids through the triangle, tie line by tie line, whatever its tie lines are: at
// one temperature, or boiling at one pressure.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <optional>
#include <vector>

#include "jampot/basis/error.hpp"
#include "triangle_plane.hpp"

namespace jampot {

/// How large the steps are from one tie line to the next.
struct StepLimits {
  double longest = 0.04;       ///< of an end of the tie line
  double least_cosine = 0.97;  ///< of the angle between two neighbours
  double least_length = 0.6;   ///< of a tie line, as part of the one before
  double near_plait = 0.12;    ///< length of a tie line from which a plait point is looked for
  double desperate = 0;        ///< the same where no further step succeeds; 0: never
  double first_from_edge = 1e-3, first = 4e-3;
  const char* liquids = "liquids";  ///< for the message where a region gets lost
};

/// The walk itself. What a tie line is, the derived class knows. Regions have `tie_lines`, `begin` and `end`.
template <class Region>
class RegionTracer {
 public:
  using Line = typename decltype(Region::tie_lines)::value_type;

 protected:
  struct Start {
    Line line;
    RegionEnd end;          ///< what lies behind
    Composition direction;  ///< into the region
    bool used = false;
  };

  RegionTracer(std::vector<Region>& regions, const StepLimits& limits) : regions_(regions), limits_(limits) {}
  ~RegionTracer() = default;

  /// Finds all regions: those of the pairs, and then what parts in no region that is known.
  void run() {
    for (std::size_t absent = 0; absent < 3; ++absent) {
      const std::size_t i = absent == 0 ? 1 : 0, j = absent == 2 ? 1 : 2;
      for (const Line& line : lines_of_pair(i, j)) {
        Start start{line, {RegionEnd::Kind::edge, absent}, {}};
        start.direction[absent] = 1;
        start.direction[i] = start.direction[j] = -0.5;
        starts_.push_back(start);
      }
    }
    follow_starts();
    for (const Composition& z : unstable_liquids()) {
      if (covered(z)) continue;
      const auto line = line_at(z);
      follow_starts();  // of a triangle that was found instead
      if (!line || covered(z) || covered(line->middle()) || is_known(*line)) continue;  // at a known rim
      follow_both_ways(*line);
      follow_starts();
    }
  }

  /// Every side of a triangle of three liquids is the first tie line of a region outside it.
  void queue_sides(std::size_t triangle) {
    for (std::size_t opposite = 0; opposite < 3; ++opposite) {
      Start start{side(triangle, opposite), {RegionEnd::Kind::three_liquid, triangle}, {}};
      start.direction = difference(start.line.middle(), corner(triangle, opposite));
      starts_.push_back(start);
    }
  }

  /// The tie lines of two components without the third.
  virtual std::vector<Line> lines_of_pair(std::size_t i, std::size_t j) = 0;
  /// The tie line through z near a guess.
  virtual std::optional<Line> through(const Composition& z, const Line& guess) = 0;
  /// A tie line between two (0 to 1) or beyond.
  virtual Line between(const Line& a, const Line& b, double share) const = 0;
  /// Whether an extrapolated tie line lost no component on the way.
  virtual bool keeps(const Line& guess, const Line& last) const = 0;
  /// Gives a guess what is absent from the last tie line, in the proportion of its limits there.
  virtual void let_in(Line& guess, const Line& last, const Composition& z) = 0;
  /// Whether a further liquid would form.
  virtual bool third_liquid(const Line& line) = 0;
  /// The number of the triangle that the tie line runs into; a new one queues its sides.
  virtual std::optional<std::size_t> triangle_near(const Line& line) = 0;
  virtual Line side(std::size_t triangle, std::size_t opposite) const = 0;
  virtual Composition corner(std::size_t triangle, std::size_t number) const = 0;
  virtual bool end_at_plait(Region& region, const Composition& direction) = 0;
  /// Compositions that part, or would: where islands are looked for.
  virtual std::vector<Composition> unstable_liquids() = 0;
  /// The tie line through one of them; where there are three liquids none, and the triangle is known then.
  virtual std::optional<Line> line_at(const Composition& z) = 0;
  virtual bool covered(const Composition& z) const = 0;

 private:
  static constexpr double shortest_step = 1e-7;  // of the middle of a tie line

  void follow_starts() {
    for (std::size_t k = 0; k < starts_.size(); ++k) {
      if (starts_[k].used) continue;
      starts_[k].used = true;
      const Start start = starts_[k];
      regions_.push_back(follow(start));
    }
  }

  // Whether a tie line stands between two of a known region: closer to one than its neighbours may be.
  bool is_known(const Line& line) const {
    for (const Region& region : regions_) {
      for (const Line& other : region.tie_lines) {
        if (distance(aligned(line, other), other) < limits_.longest) return true;
      }
    }
    return false;
  }

  void follow_both_ways(const Line& line) {
    Start start{line, {}, across(line, {1, -0.5, -0.5})};
    Region one = follow(start);
    for (double& value : start.direction) value = -value;
    const Region other = follow(start);
    std::reverse(one.tie_lines.begin(), one.tie_lines.end());
    one.begin = one.end;
    one.end = other.end;
    one.tie_lines.insert(one.tie_lines.end(), other.tie_lines.begin() + 1, other.tie_lines.end());
    regions_.push_back(std::move(one));
  }

  std::optional<Line> step(const Region& region, const Composition& direction, double h) {
    const auto& lines = region.tie_lines;
    const Line& last = lines.back();
    const Composition z = combined(last.middle(), h, direction);
    Line guess = last;
    if (lines.size() > 1) {
      const Line& before = lines[lines.size() - 2];
      const Line further =
          between(before, last, 1 + h / std::max(1e-12, distance(last.middle(), before.middle())));
      if (keeps(further, last)) guess = further;
    }
    let_in(guess, last, z);
    const auto found = through(z, guess);
    return found ? std::optional(aligned(*found, last)) : std::nullopt;
  }

  bool too_far(const Line& next, const Line& last) const {
    return distance(next, last) > limits_.longest || cosine_between(next, last) < limits_.least_cosine ||
           next.length() < limits_.least_length * last.length();
  }

  // The last tie line before a triangle is the side of it that is nearest.
  void end_at_triangle(Region& region, std::size_t triangle) {
    const Line last = region.tie_lines.back();
    Line nearest = last;
    double least = HUGE_VAL;
    for (std::size_t opposite = 0; opposite < 3; ++opposite) {
      const Line line = aligned(side(triangle, opposite), last);
      if (distance(line, last) >= least) continue;
      least = distance(line, last);
      nearest = line;
    }
    region.tie_lines.push_back(nearest);
    region.end = {RegionEnd::Kind::three_liquid, triangle};
    for (Start& other : starts_) {  // that side is done
      if (other.end.kind == RegionEnd::Kind::three_liquid && other.end.number == triangle &&
          distance(aligned(other.line, nearest), nearest) < 1e-9)
        other.used = true;
    }
  }

  Region follow(const Start& start) {
    Region region;
    region.begin = start.end;
    region.tie_lines.push_back(start.line);
    Composition direction = across(start.line, start.direction);
    double h = start.end.kind == RegionEnd::Kind::edge ? limits_.first_from_edge : limits_.first;
    constexpr int most_steps = 3000;
    for (int count = 0; count < most_steps; ++count) {
      const Line last = region.tie_lines.back();
      const bool begun = region.tie_lines.size() > 1;
      if (begun && last.length() < limits_.near_plait && end_at_plait(region, direction)) return region;
      if (end_region_at_edge(region, starts_, direction)) return region;
      if (h < shortest_step) {
        if (begun && last.length() < limits_.desperate && end_at_plait(region, direction)) return region;
        break;
      }
      const auto next = step(region, direction, h);
      if (!next || (h > 1e-5 && too_far(*next, last))) {
        h /= 2;
        continue;
      }
      if (third_liquid(*next)) {
        if (const auto triangle = triangle_near(*next)) {
          end_at_triangle(region, *triangle);
          return region;
        }
        h /= 2;  // a step over a narrow triangle, into what is not stable
        continue;
      }
      direction = across(*next, direction);
      region.tie_lines.push_back(*next);
      if (distance(*next, last) < limits_.longest / 2) h = std::min(1.6 * h, 0.05);
    }
    const Composition lost = region.tie_lines.back().middle();
    throw CalculationError(fmt::format(
        "the two {} near x = ({:.4f}, {:.4f}, {:.4f}) could not be followed to an end of their region",
        limits_.liquids, lost[0], lost[1], lost[2]));
  }

  std::vector<Region>& regions_;
  StepLimits limits_;
  std::deque<Start> starts_;
};

}  // namespace jampot
