#include "ternary_trace.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/three_liquids.hpp"
#include "jampot/liquid/subsystem.hpp"

namespace jampot {
namespace {

constexpr double longest_step = 0.04;   // of an end of the tie line
constexpr double shortest_step = 1e-7;  // of its middle
constexpr double short_line = 0.12;     // a tie line from which a plait point is looked for

}  // namespace

TernaryTracer::TernaryTracer(ActivityModel& model, double T_K)
    : model_(model), T_K_(T_K), splitter_(model, T_K) {}

std::optional<TieLine> TernaryTracer::near(const Composition& z, const TieLine& guess, double* residual) {
  for (const double value : z) {
    if (!(value > 0)) return std::nullopt;
  }
  const auto split = splitter_.two_near(z, guess.alpha, guess.beta);
  if (!split) return std::nullopt;
  if (residual != nullptr) *residual = split->residual;
  return aligned(TieLine{array_of(split->x[0]), array_of(split->x[1])}, guess);
}

void TernaryTracer::run(TernaryDiagram& diagram, bool careful) {
  diagram_ = &diagram;
  careful_ = careful;
  diagram.T_K = T_K_;
  starts_.clear();
  find_edges();
  const auto follow_all = [&] {
    for (std::size_t k = 0; k < starts_.size(); ++k) {
      if (starts_[k].used) continue;
      starts_[k].used = true;
      const Start start = starts_[k];
      diagram_->regions.push_back(follow(start));
    }
  };
  follow_all();
  // Each island may send out triangles with sides of their own.
  std::size_t before = 0;
  do {
    before = diagram_->regions.size() + diagram_->three_liquids.size();
    follow_islands();
    follow_all();
  } while (diagram_->regions.size() + diagram_->three_liquids.size() > before);
}

void TernaryTracer::find_edges() {
  for (std::size_t absent = 0; absent < 3; ++absent) {
    const std::size_t i = absent == 0 ? 1 : 0, j = absent == 2 ? 1 : 2;
    Subsystem pair(model_, {i, j});
    for (const BinarySplit& split : binary_splits(pair, T_K_)) {
      Start start;
      const auto alpha = pair.in_whole(std::array{split.x1_alpha, 1 - split.x1_alpha});
      const auto beta = pair.in_whole(std::array{split.x1_beta, 1 - split.x1_beta});
      start.line = {array_of(alpha), array_of(beta)};
      start.end = {RegionEnd::Kind::edge, absent};
      start.direction[absent] = 1;
      start.direction[i] = start.direction[j] = -0.5;
      starts_.push_back(start);
      diagram_->splits_without[absent] = true;
    }
  }
}

std::optional<TieLine> TernaryTracer::step(const TieLine& last, const std::optional<TieLine>& before,
                                           const Composition& direction, double h) {
  const Composition z = combined(last.middle(), h, direction);
  TieLine guess = last;
  if (before) {
    const double ahead = h / std::max(1e-12, distance(last.middle(), before->middle()));
    const TieLine further{combined(last.alpha, ahead, difference(last.alpha, before->alpha)),
                          combined(last.beta, ahead, difference(last.beta, before->beta))};
    bool inside = true;
    for (std::size_t i = 0; i < 3; ++i)
      inside = inside && further.alpha[i] > 0.2 * last.alpha[i] && further.beta[i] > 0.2 * last.beta[i];
    if (inside) guess = further;
  }
  // What is absent from both ends of the last tie line enters in the proportion of its limits there.
  for (std::size_t k = 0; k < 3; ++k) {
    if (guess.alpha[k] > 0 && guess.beta[k] > 0) continue;
    std::array<double, 3> in_alpha{}, in_beta{};
    model_.set_temperature(T_K_);
    model_.evaluate(last.alpha, in_alpha);
    model_.evaluate(last.beta, in_beta);
    const double share = 1 / (1 + std::exp(in_beta[k] - in_alpha[k]));  // of beta, by 1/gamma
    guess.alpha[k] = 2 * z[k] * std::max(1 - share, 1e-12);
    guess.beta[k] = 2 * z[k] * std::max(share, 1e-12);
  }
  return near(z, guess);
}

bool TernaryTracer::third_liquid(const TieLine& line) {
  if (careful_) {
    double lowest = 0;
    return splitter_.more_stable(line.alpha, lowest).has_value();
  }
  const std::vector<double> ln_a = splitter_.ln_activities(line.alpha);
  const LiquidSurface& surface = splitter_.surface();
  for (std::size_t k = 0; k < surface.size(); ++k) {
    if (surface.distance(k, ln_a) < -1e-9) return true;
  }
  return false;
}

std::size_t TernaryTracer::add_triangle(const std::vector<std::vector<double>>& liquids) {
  ThreeLiquids triangle{array_of(liquids[0]), array_of(liquids[1]), array_of(liquids[2])};
  auto& known = diagram_->three_liquids;
  for (std::size_t k = 0; k < known.size(); ++k) {
    bool same = true;
    for (const Composition& vertex : triangle) {
      same = same && std::any_of(known[k].begin(), known[k].end(),
                                 [&](const Composition& other) { return distance(vertex, other) < 1e-5; });
    }
    if (same) return k;
  }
  known.push_back(triangle);
  queue_sides(known.size() - 1, std::nullopt);
  return known.size() - 1;
}

// Every side of a triangle is the first tie line of a region outside it.
void TernaryTracer::queue_sides(std::size_t triangle, std::optional<std::size_t> but) {
  const ThreeLiquids& corners = diagram_->three_liquids[triangle];
  for (std::size_t opposite = 0; opposite < 3; ++opposite) {
    if (but == opposite) continue;
    Start start;
    start.line = {corners[(opposite + 1) % 3], corners[(opposite + 2) % 3]};
    start.end = {RegionEnd::Kind::three_liquid, triangle};
    start.direction = difference(start.line.middle(), corners[opposite]);
    starts_.push_back(start);
  }
}

// The triangle that the tie line runs into. It may be so thin that its middle lies beyond the line: the third
// liquid, which lies below the plane of the tie line, then says where it is.
std::optional<std::size_t> TernaryTracer::triangle_near(const TieLine& line) {
  const LiquidSplit split = splitter_.split(line.middle());
  if (split.phases() == 3) return add_triangle(split.x);
  double lowest = 0;
  const auto third = splitter_.more_stable(line.alpha, lowest);
  if (!third) return std::nullopt;
  const auto triangle = three_liquids_near(model_, T_K_, {line.alpha, line.beta, array_of(*third)});
  if (!triangle || splitter_.more_stable((*triangle)[0], lowest)) return std::nullopt;
  std::vector<std::vector<double>> liquids;
  for (const Composition& x : *triangle) liquids.emplace_back(x.begin(), x.end());
  return add_triangle(liquids);
}

bool TernaryTracer::end_at_plait(TwoLiquidRegion& region, const Composition& direction) {
  const TieLine last = region.tie_lines.back();
  const Composition along = difference(last.beta, last.alpha);
  const auto plait =
      plait_point_near(model_, T_K_, last.middle(), along, direction, std::max(0.6 * norm(along), 1e-3));
  if (!plait) return false;
  const Composition point = array_of(plait->x);
  // Shorter and shorter tie lines make the dome of the binodal round.
  for (const double share : {0.75, 0.5, 0.3, 0.15, 0.06, 0.015}) {
    const double root = std::sqrt(share);
    const Composition z = combined(point, share, difference(last.middle(), point));
    const TieLine guess{combined(z, -0.5 * root, along), combined(z, 0.5 * root, along)};
    const auto line = near(z, guess);
    if (!line) continue;
    region.tie_lines.push_back(aligned(*line, region.tie_lines.back()));
  }
  region.tie_lines.push_back({point, point});
  auto& known = diagram_->plait_points;
  for (std::size_t k = 0; k < known.size(); ++k) {
    if (distance(array_of(known[k].x), point) < 1e-7) {
      region.end = {RegionEnd::Kind::plait, k};
      return true;
    }
  }
  known.push_back(*plait);
  region.end = {RegionEnd::Kind::plait, known.size() - 1};
  return true;
}

TwoLiquidRegion TernaryTracer::follow(const Start& start) {
  TwoLiquidRegion region;
  region.begin = start.end;
  region.tie_lines.push_back(start.line);
  Composition direction = across(start.line, start.direction);
  double h = start.end.kind == RegionEnd::Kind::edge ? 1e-3 : 4e-3;
  constexpr int most_steps = 3000;
  for (int count = 0; count < most_steps; ++count) {
    const TieLine last = region.tie_lines.back();
    std::optional<TieLine> before;
    if (region.tie_lines.size() > 1) before = region.tie_lines[region.tie_lines.size() - 2];
    if (last.length() < short_line && region.tie_lines.size() > 1 && end_at_plait(region, direction))
      return region;
    if (end_region_at_edge(region, starts_, direction)) return region;
    if (h < shortest_step) break;
    auto next = step(last, before, direction, h);
    if (next) {
      next = aligned(*next, last);
      const bool far = distance(*next, last) > longest_step || cosine_between(*next, last) < 0.97 ||
                       next->length() < 0.6 * last.length();
      if (far && h > 1e-5) next.reset();
    }
    if (!next) {
      h /= 2;
      continue;
    }
    if (third_liquid(*next)) {
      const auto triangle = triangle_near(*next);
      if (triangle) {
        // The last tie line is the side of the triangle nearest to this one.
        const ThreeLiquids& corners = diagram_->three_liquids[*triangle];
        double least = HUGE_VAL;
        std::size_t side = 0;
        for (std::size_t opposite = 0; opposite < 3; ++opposite) {
          const TieLine line =
              aligned(TieLine{corners[(opposite + 1) % 3], corners[(opposite + 2) % 3]}, last);
          if (distance(line, last) >= least) continue;
          least = distance(line, last);
          side = opposite;
        }
        region.tie_lines.push_back(aligned(TieLine{corners[(side + 1) % 3], corners[(side + 2) % 3]}, last));
        region.end = {RegionEnd::Kind::three_liquid, *triangle};
        for (Start& other : starts_) {  // that side is done
          if (other.end.kind == RegionEnd::Kind::three_liquid && other.end.number == *triangle &&
              distance(aligned(other.line, region.tie_lines.back()), region.tie_lines.back()) < 1e-9)
            other.used = true;
        }
        return region;
      }
      h /= 2;  // a step over a narrow triangle, into what is not stable
      continue;
    }
    direction = across(*next, direction);
    region.tie_lines.push_back(*next);
    if (distance(*next, last) < longest_step / 2) h = std::min(1.6 * h, 0.05);
  }
  throw CalculationError(fmt::format(
      "the two liquids near x = ({:.4f}, {:.4f}, {:.4f}) could not be followed to an end of their region",
      region.tie_lines.back().middle()[0], region.tie_lines.back().middle()[1],
      region.tie_lines.back().middle()[2]));
}

bool TernaryTracer::covered(const Composition& z) const {
  return diagram_->liquids_at(z) > 1;
}

void TernaryTracer::follow_islands() {
  std::vector<Composition> candidates;
  LiquidSurface& surface = splitter_.surface();
  for (const std::vector<double>& pocket : surface.pockets()) candidates.push_back(array_of(pocket));
  for (const std::size_t sample : surface.unstable()) {
    const auto x = surface.x(sample);
    candidates.push_back({x[0], x[1], x[2]});
  }
  for (Composition z : candidates) {
    // A point of an edge belongs to the region of its pair, a little inside it.
    constexpr double inside = 1e-4;
    double sum = 0;
    for (double& value : z) sum += value = std::max(value, inside);
    for (double& value : z) value /= sum;
    if (covered(z)) continue;
    const LiquidSplit split = splitter_.split(z);
    if (split.phases() == 3) {
      const std::size_t before = diagram_->three_liquids.size();
      add_triangle(split.x);
      if (diagram_->three_liquids.size() > before) return;
      continue;
    }
    if (split.phases() != 2) continue;
    const TieLine line{array_of(split.x[0]), array_of(split.x[1])};
    if (covered(line.middle())) continue;  // at the rim of a known region
    Start start;
    start.line = line;
    start.direction = across(line, {1, -0.5, -0.5});
    TwoLiquidRegion one = follow(start);
    for (double& value : start.direction) value = -value;
    const TwoLiquidRegion other = follow(start);
    std::reverse(one.tie_lines.begin(), one.tie_lines.end());
    one.begin = one.end;
    one.end = other.end;
    one.tie_lines.insert(one.tie_lines.end(), other.tie_lines.begin() + 1, other.tie_lines.end());
    diagram_->regions.push_back(std::move(one));
    return;
  }
}

}  // namespace jampot
