#include "jampot/diagram/separation.hpp"

#include <cmath>

#include "line_crossings.hpp"
#include "triangle_plane.hpp"

namespace jampot {
namespace {

// From `from` through z on to the first side or boundary behind it.
BalanceLine far_end(const ResidueMap& map, const Composition& from, const Composition& z, Composition& end) {
  const Composition along = difference(z, from);
  const LineCrossing first = line_crossings(map, z, along).front();
  BalanceLine line;
  line.separatrix = first.separatrix;
  line.side = first.side;
  end = combined(z, first.t, along);
  for (double& value : end) value = std::max(0.0, value);
  return line;
}

double share_of_first(const Composition& first, const Composition& second, const Composition& z) {
  const Composition along = difference(first, second);
  const double length = inner(along, along);
  return length > 0 ? inner(difference(z, second), along) / length : 0;
}

}  // namespace

FeedReading read_feed(Mixture& mixture, const ResidueMap& map, const Composition& z,
                      std::optional<double> decanter_T_K) {
  FeedReading reading;
  reading.z = z;
  BoilingLiquid boiling(mixture, map.P_Pa, map.two_liquids);
  boiling.at(z);
  reading.T_K = boiling.T_K();
  const auto decanted = [&](const Composition& whole) -> std::optional<DecanterReading> {
    DecanterReading decanter;
    decanter.z = whole;
    if (decanter_T_K) {
      LiquidSplitter splitter(mixture.activity(), *decanter_T_K);
      const LiquidSplit split = splitter.split(whole);
      if (split.phases() != 2) return std::nullopt;
      decanter.T_K = *decanter_T_K;
      decanter.alpha = array_of(split.x[0]);
      decanter.beta = array_of(split.x[1]);
      decanter.share = split.amount[1] / (split.amount[0] + split.amount[1]);
    } else {
      const auto line = boiling.tie_line(whole);
      if (!line) return std::nullopt;
      decanter.T_K = line->line.T_K;
      decanter.alpha = line->line.alpha;
      decanter.beta = line->line.beta;
      decanter.share = line->share;
    }
    decanter.region_alpha = map.region_of(decanter.alpha);
    decanter.region_beta = map.region_of(decanter.beta);
    return decanter;
  };
  reading.feed_decanter = decanted(z);
  reading.region = map.region_of(z);
  if (!reading.region) return reading;
  const DistillationRegion& region = map.regions[*reading.region];
  const Composition coldest = array_of(map.singular.points[region.from].x),
                    hottest = array_of(map.singular.points[region.to].x);
  // From one product through the feed to the other, as far as the region goes.
  const auto sharp = [&](const Composition& product, bool overhead) -> std::optional<BalanceLine> {
    constexpr double there = 1e-6;  // a feed that is the product already
    if (distance(z, product) < there) return std::nullopt;
    Composition end{};
    BalanceLine line = far_end(map, product, z, end);
    line.distillate = overhead ? product : end;
    line.bottoms = overhead ? end : product;
    line.distillate_share = share_of_first(line.distillate, line.bottoms, z);
    return line;
  };
  reading.direct = sharp(coldest, true);
  reading.indirect = sharp(hottest, false);
  if (const SingularPoint& overhead = map.singular.points[region.from];
      decanter_T_K || overhead.heterogeneous) {
    if (overhead.heterogeneous && !decanter_T_K) {  // exactly its own liquids
      DecanterReading decanter;
      decanter.z = coldest;
      decanter.T_K = overhead.T_K;
      decanter.alpha = array_of(overhead.liquids[0]);
      decanter.beta = array_of(overhead.liquids[1]);
      decanter.share = share_of_first(decanter.beta, decanter.alpha, coldest);
      decanter.region_alpha = map.region_of(decanter.alpha);
      decanter.region_beta = map.region_of(decanter.beta);
      reading.overhead_decanter = decanter;
    } else {
      reading.overhead_decanter = decanted(coldest);
    }
  }
  return reading;
}

}  // namespace jampot
