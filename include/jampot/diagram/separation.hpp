#pragma once
// What a feed can be distilled into, read off a residue curve map.
#include <array>
#include <optional>
#include <vector>

#include "jampot/diagram/residue_map.hpp"

namespace jampot {

/// A feed parted into two products on one straight balance line.
struct BalanceLine {
  std::array<double, 3> distillate{},  ///< composition at the top
      bottoms{};                       ///< composition at the bottom
  double distillate_share = 0;         ///< moles of distillate per mole of feed
  /// What stops the line at its far end: a separatrix of the map, or the side without this component.
  std::optional<std::size_t> separatrix,  ///< number of the boundary that limits it
      side;                               ///< number of the side of the triangle that limits it
};

/// Two liquids of a decanter and the regions in which they lie.
struct DecanterReading {
  double T_K = 0;                           ///< temperature, K
  std::array<double, 3> z{},                ///< what enters
      alpha{},                              ///< mole fractions of the first liquid
      beta{};                               ///< mole fractions of the second liquid
  double share = 0;                         ///< of beta
  std::optional<std::size_t> region_alpha,  ///< number of the distillation region of the first liquid
      region_beta;                          ///< number of the distillation region of the second liquid
  /// Whether the liquids may be distilled into different products.
  bool crosses() const { return region_alpha && region_beta && *region_alpha != *region_beta; }
};

/// What a feed can become: products of sharp splits, and of a decanter.
struct FeedReading {
  std::array<double, 3> z{};          ///< the feed
  double T_K = 0;                     ///< at which it boils
  std::optional<std::size_t> region;  ///< number of its distillation region
  /// Direct split: the unstable node of the region goes overhead, the bottoms lie as far behind the feed as
  /// the region allows. Indirect: the stable node is the bottoms. Nothing where the feed is in no region.
  std::optional<BalanceLine> direct,  ///< the lightest product taken first
      indirect;                       ///< the heaviest product taken first
  /// The feed's own two liquids at its boiling point; those of the overhead of a direct split.
  std::optional<DecanterReading> feed_decanter,  ///< the feed itself in a decanter
      overhead_decanter;                         ///< the condensed distillate in a decanter
};

/// Reads a feed. The products are limits for sharp splits in long columns at high reflux, with boundaries
/// taken as they are for total reflux: they follow from the topology, not from a column.
/// @param decanter_T_K a decanter colder than boiling; nothing: at the boiling point
FeedReading read_feed(Mixture& mixture, const ResidueMap& map, const std::array<double, 3>& z,
                      std::optional<double> decanter_T_K = std::nullopt);

}  // namespace jampot
