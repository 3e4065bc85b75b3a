#pragma once
// The two products of a column with a sharp split, or of a decanter, on a residue curve map.
#include <optional>

#include "jampot/diagram/boiling_region.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/equilibrium/liquid_split.hpp"

namespace jampot {

/// How a composition of three is parted.
enum class SplitKind {
  lightest_first,  ///< the unstable node of a region goes overhead
  heaviest_first,  ///< its stable node is the bottoms
  on_a_side,       ///< of two components: into the neighbours on their side of the triangle
  decanter         ///< into two liquids
};

struct SharpSplit {
  std::array<double, 3> first{}, second{};  ///< distillate and bottoms, or the two liquids
  double share_of_first = 0;
  bool across = false;                  ///< the feed lies in another region than the products
  std::optional<std::size_t> boundary;  ///< at which the far product lies
};

/// The component that a composition is made of alone.
std::optional<std::size_t> pure_component(const std::array<double, 3>& x);
/// The component that a composition of two has none of.
std::optional<std::size_t> absent_component(const std::array<double, 3>& x);

class SharpSplits {
 public:
  SharpSplits(Mixture& mixture, const ResidueMap& map, std::optional<double> decanter_T_K);

  /// Nothing where it cannot be done.
  std::optional<SharpSplit> of(SplitKind kind, std::size_t region, const std::array<double, 3>& x);
  double boiling_T_K(const std::array<double, 3>& x);
  /// Of amounts that enter a decanter.
  double decanter_T_K(const std::array<double, 3>& n);

 private:
  std::optional<SharpSplit> on_a_side(const std::array<double, 3>& x) const;
  std::optional<SharpSplit> decanted(const std::array<double, 3>& x);
  std::optional<SharpSplit> within(std::size_t region, bool lightest, const std::array<double, 3>& x) const;

  const ResidueMap& map_;
  std::optional<double> decanter_T_K_;
  BoilingLiquid boiling_;
  std::optional<Mixture> cold_;  // a copy, whose temperature stays that of the decanter
  std::optional<LiquidSplitter> splitter_;
};

}  // namespace jampot
