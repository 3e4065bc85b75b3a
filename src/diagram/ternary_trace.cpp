#include "ternary_trace.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/three_liquids.hpp"
#include "jampot/liquid/subsystem.hpp"

namespace jampot {

TernaryTracer::TernaryTracer(ActivityModel& model, double T_K, TernaryDiagram& diagram, bool careful)
    : RegionTracer(diagram.regions, StepLimits{}),
      model_(model),
      T_K_(T_K),
      splitter_(model, T_K),
      careful_(careful),
      diagram_(diagram) {
  diagram_.T_K = T_K_;
  run();
}

std::optional<TieLine> TernaryTracer::near(const Composition& z, const TieLine& guess, double* residual) {
  for (const double value : z) {
    if (!(value > 0)) return std::nullopt;
  }
  const auto split = splitter_.two_near(z, guess.alpha, guess.beta);
  if (!split) return std::nullopt;
  if (residual != nullptr) *residual = split->residual;
  return aligned(TieLine{array_of(split->x[0]), array_of(split->x[1])}, guess);
}

std::vector<TieLine> TernaryTracer::lines_of_pair(std::size_t i, std::size_t j) {
  std::vector<TieLine> lines;
  Subsystem pair(model_, {i, j});
  for (const BinarySplit& split : binary_splits(pair, T_K_)) {
    lines.push_back({array_of(pair.in_whole(std::array{split.x1_alpha, 1 - split.x1_alpha})),
                     array_of(pair.in_whole(std::array{split.x1_beta, 1 - split.x1_beta}))});
    diagram_.splits_without[3 - i - j] = true;
  }
  return lines;
}

TieLine TernaryTracer::between(const TieLine& a, const TieLine& b, double share) const {
  return {combined(a.alpha, share, difference(b.alpha, a.alpha)),
          combined(a.beta, share, difference(b.beta, a.beta))};
}

bool TernaryTracer::keeps(const TieLine& guess, const TieLine& last) const {
  return keeps_all(guess.alpha, last.alpha) && keeps_all(guess.beta, last.beta);
}

void TernaryTracer::let_in(TieLine& guess, const TieLine& last, const Composition& z) {
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

TieLine TernaryTracer::side(std::size_t triangle, std::size_t opposite) const {
  const ThreeLiquids& corners = diagram_.three_liquids[triangle];
  return {corners[(opposite + 1) % 3], corners[(opposite + 2) % 3]};
}

Composition TernaryTracer::corner(std::size_t triangle, std::size_t number) const {
  return diagram_.three_liquids[triangle][number];
}

std::size_t TernaryTracer::add_triangle(const ThreeLiquids& triangle) {
  auto& known = diagram_.three_liquids;
  for (std::size_t k = 0; k < known.size(); ++k) {
    bool same = true;
    for (const Composition& vertex : triangle) {
      same = same && std::any_of(known[k].begin(), known[k].end(),
                                 [&](const Composition& other) { return distance(vertex, other) < 1e-5; });
    }
    if (same) return k;
  }
  known.push_back(triangle);
  queue_sides(known.size() - 1);
  return known.size() - 1;
}

// The triangle may be so thin that its middle lies beyond the tie line: the third liquid, which lies below
// the plane of the tie line, then says where it is.
std::optional<std::size_t> TernaryTracer::triangle_near(const TieLine& line) {
  const LiquidSplit split = splitter_.split(line.middle());
  if (split.phases() == 3)
    return add_triangle({array_of(split.x[0]), array_of(split.x[1]), array_of(split.x[2])});
  double lowest = 0;
  const auto third = splitter_.more_stable(line.alpha, lowest);
  if (!third) return std::nullopt;
  const auto triangle = three_liquids_near(model_, T_K_, {line.alpha, line.beta, array_of(*third)});
  if (!triangle || splitter_.more_stable((*triangle)[0], lowest)) return std::nullopt;
  return add_triangle(*triangle);
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
  auto& known = diagram_.plait_points;
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

std::vector<Composition> TernaryTracer::unstable_liquids() {
  std::vector<Composition> found;
  LiquidSurface& surface = splitter_.surface();
  for (const std::vector<double>& pocket : surface.pockets())
    found.push_back(inside_triangle(array_of(pocket)));
  for (const std::size_t sample : surface.unstable()) {
    const auto x = surface.x(sample);
    found.push_back(inside_triangle({x[0], x[1], x[2]}));
  }
  return found;
}

std::optional<TieLine> TernaryTracer::line_at(const Composition& z) {
  const LiquidSplit split = splitter_.split(z);
  if (split.phases() == 3) add_triangle({array_of(split.x[0]), array_of(split.x[1]), array_of(split.x[2])});
  if (split.phases() != 2) return std::nullopt;
  return TieLine{array_of(split.x[0]), array_of(split.x[1])};
}

}  // namespace jampot
