#pragma once
// What a feed can be distilled into, read off a residue curve map.
#include <array>
#include <optional>
#include <vector>

#include "jampot/diagram/residue_map.hpp"

namespace jampot {

/// A feed parted into two products on one straight balance line.
struct BalanceLine {
  std::array<double, 3> distillate{}, bottoms{};
  double distillate_share = 0;  ///< moles of distillate per mole of feed
  /// What stops the line at its far end: a separatrix of the map, or the side without this component.
  std::optional<std::size_t> separatrix, side;
};

/// Two liquids of a decanter and the regions in which they lie.
struct DecanterReading {
  double T_K = 0;
  std::array<double, 3> z{}, alpha{}, beta{};
  double share = 0;  ///< of beta
  std::optional<std::size_t> region_alpha, region_beta;
  /// Whether the liquids may be distilled into different products.
  bool crosses() const { return region_alpha && region_beta && *region_alpha != *region_beta; }
};

/// What a feed can become: products of sharp splits, and of a decanter.
struct FeedReading {
  std::array<double, 3> z{};
  double T_K = 0;  ///< at which it boils
  std::optional<std::size_t> region;
  /// Direct split: the unstable node of the region goes overhead, the bottoms lie as far behind the feed as
  /// the region allows. Indirect: the stable node is the bottoms. Nothing where the feed is in no region.
  std::optional<BalanceLine> direct, indirect;
  /// The feed's own two liquids at its boiling point; those of the overhead of a direct split.
  std::optional<DecanterReading> feed_decanter, overhead_decanter;
};

/// Reads a feed. The products are limits for sharp splits in long columns at high reflux, with boundaries
/// taken as they are for total reflux: they follow from the topology, not from a column.
/// @param decanter_T_K a decanter colder than boiling; nothing: at the boiling point
FeedReading read_feed(Mixture& mixture, const ResidueMap& map, const std::array<double, 3>& z,
                      std::optional<double> decanter_T_K = std::nullopt);

}  // namespace jampot
