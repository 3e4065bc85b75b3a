#include "sharp_split.hpp"

#include <algorithm>
#include <cmath>

#include "../diagram/line_crossings.hpp"
#include "../diagram/triangle_plane.hpp"

namespace jampot {
namespace {

constexpr double there = 1e-7;  // a composition that is a singular point

double share_of(const Composition& first, const Composition& second, const Composition& x) {
  const Composition along = difference(first, second);
  const double length = inner(along, along);
  return length > 0 ? inner(difference(x, second), along) / length : 0;
}

Composition clean(Composition x) {
  double total = 0;
  for (double& value : x) total += value = value < 1e-12 ? 0 : value;
  for (double& value : x) value /= total;
  return x;
}

}  // namespace

std::optional<std::size_t> pure_component(const Composition& x) {
  for (std::size_t i = 0; i < 3; ++i)
    if (x[i] > 1 - there) return i;
  return std::nullopt;
}

std::optional<std::size_t> absent_component(const Composition& x) {
  for (std::size_t i = 0; i < 3; ++i)
    if (x[i] < there) return i;
  return std::nullopt;
}

SharpSplits::SharpSplits(Mixture& mixture, const ResidueMap& map, std::optional<double> decanter_T_K)
    : map_(map), decanter_T_K_(decanter_T_K), boiling_(mixture, map.P_Pa, map.two_liquids) {
  if (!decanter_T_K) return;
  cold_.emplace(mixture);
  splitter_.emplace(cold_->activity(), *decanter_T_K);
}

std::optional<SharpSplit> SharpSplits::of(SplitKind kind, std::size_t region, const Composition& x) {
  switch (kind) {
    case SplitKind::on_a_side:
      return on_a_side(x);
    case SplitKind::decanter:
      return decanted(x);
    case SplitKind::lightest_first:
    case SplitKind::heaviest_first:
      break;
  }
  return within(region, kind == SplitKind::lightest_first, x);
}

std::optional<SharpSplit> SharpSplits::on_a_side(const Composition& x) const {
  const auto absent = absent_component(x);
  if (!absent) return std::nullopt;
  const std::size_t along = (*absent + 1) % 3;
  const SingularPoint *below = nullptr, *above = nullptr;
  for (const SingularPoint& point : map_.singular.points) {
    if (point.x[*absent] > there) continue;
    if (std::abs(point.x[along] - x[along]) < there) return std::nullopt;  // it is an azeotrope, or pure
    if (point.x[along] < x[along] && (!below || point.x[along] > below->x[along])) below = &point;
    if (point.x[along] > x[along] && (!above || point.x[along] < above->x[along])) above = &point;
  }
  if (!below || !above) return std::nullopt;
  if (below->T_K > above->T_K) std::swap(below, above);
  SharpSplit split{array_of(below->x), array_of(above->x), 0, false, std::nullopt};
  split.share_of_first = share_of(split.first, split.second, x);
  return split;
}

std::optional<SharpSplit> SharpSplits::decanted(const Composition& x) {
  SharpSplit split;
  if (splitter_) {
    const LiquidSplit found = splitter_->split(x);
    if (found.phases() != 2) return std::nullopt;
    split.first = clean(array_of(found.x[0]));
    split.second = clean(array_of(found.x[1]));
    split.share_of_first = share_of(split.first, split.second, x);
    return split;
  }
  for (const SingularPoint& point : map_.singular.points) {  // exactly its own liquids
    if (!point.heterogeneous || distance(array_of(point.x), x) > there) continue;
    split.first = array_of(point.liquids[0]);
    split.second = array_of(point.liquids[1]);
    split.share_of_first = share_of(split.first, split.second, x);
    return split;
  }
  const auto line = boiling_.tie_line(x);
  if (!line) return std::nullopt;
  split.first = clean(line->line.alpha);
  split.second = clean(line->line.beta);
  split.share_of_first = share_of(split.first, split.second, x);
  return split;
}

std::optional<SharpSplit> SharpSplits::within(std::size_t region, bool lightest, const Composition& x) const {
  if (absent_component(x)) return std::nullopt;
  const DistillationRegion& place = map_.regions[region];
  const Composition product = array_of(map_.singular.points[lightest ? place.from : place.to].x);
  const Composition along = difference(x, product);
  constexpr double near = 1e-6;
  if (norm(along) < near) return std::nullopt;
  // The first stretch of the line behind x that lies in the region.
  const std::vector<LineCrossing> ends = line_crossings(map_, x, along);
  double begin = 0;
  std::optional<LineCrossing> far;
  bool across = false;
  for (const LineCrossing& end : ends) {
    const double middle = (begin + end.t) / 2;
    const bool inside = map_.region_of(clean(combined(x, middle, along))) == region;
    if (end.t - begin > near && inside) {
      if (!far) across = begin > near;
      far = end;
    } else if (end.t - begin > near && far) {
      break;
    }
    begin = end.t;
  }
  if (!far || far->t < near) return std::nullopt;
  const Composition other = clean(combined(x, far->t, along));
  SharpSplit split{lightest ? product : other, lightest ? other : product, 0, across, far->separatrix};
  split.share_of_first = share_of(split.first, split.second, x);
  return split;
}

double SharpSplits::boiling_T_K(const Composition& x) {
  boiling_.at(x);
  return boiling_.T_K();
}

double SharpSplits::decanter_T_K(const Composition& n) {
  if (decanter_T_K_) return *decanter_T_K_;
  const double total = n[0] + n[1] + n[2];
  return boiling_T_K({n[0] / total, n[1] / total, n[2] / total});
}

}  // namespace jampot
