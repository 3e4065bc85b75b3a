#pragma once
// Which columns and decanters, in which order, part three substances: read off a residue curve map.
#include <array>
#include <optional>
#include <vector>

#include "jampot/diagram/residue_map.hpp"

namespace jampot {

/// Where a stream goes.
struct StreamEnd {
  /// What takes it.
  enum class Kind {
    product,  ///< it is a pure product
    unit,     ///< the next unit parts it further
    back      ///< it is sent back to an earlier unit
  };
  Kind kind = Kind::product;  ///< what takes it
  std::size_t number = 0;     ///< of the component of a product, else of the unit
};

/// A stream that leaves a unit.
struct RouteStream {
  std::array<double, 3> n{};  ///< moles of each component per mole of fresh feed
  double T_K = 0;             ///< boiling point, or temperature of the decanter
  StreamEnd to{};             ///< where it goes

  /// Moles per mole of fresh feed.
  double total() const { return n[0] + n[1] + n[2]; }
  /// Mole fractions.
  std::array<double, 3> x() const;
};

/// A column with a sharp split, or a decanter.
struct RouteUnit {
  bool decanter = false;                        ///< true of a decanter
  std::array<double, 3> in{};                   ///< moles of each that enter, per mole of fresh feed
  std::array<RouteStream, 2> out{};             ///< distillate and bottoms; of a decanter its two liquids
  std::optional<std::size_t> region{};          ///< of the map, in which the products of a column lie
  std::optional<std::size_t> feed_region{};     ///< of the map, from which the feed of a column comes
  std::optional<std::size_t> along_boundary{};  ///< number of the boundary at which the far product lies

  /// The column takes its feed from the other side of a boundary, or from the boundary itself at which a
  /// column on the other side ended: that works by the curvature of the boundary alone.
  bool relies_on_curvature() const { return region && feed_region && *region != *feed_region; }
};

/// A sequence that makes pure products of the whole feed.
struct Route {
  std::vector<RouteUnit> units{};  ///< in the order of the flow
  double recycled = 0;             ///< moles sent back per mole of fresh feed
  double entrainer = 0;            ///< moles of the component the feed has none of that go round with it

  /// True where one of its columns works by the curvature of a boundary.
  bool relies_on_curvature() const;
};

/// What is to be parted.
struct RouteTask {
  std::array<double, 3> z{};           ///< mole fractions of the feed; one component may be missing
  std::optional<double> decanter_T_K;  ///< nothing: liquids are parted at their boiling point
  std::size_t most_units = 5;          ///< columns and decanters together, 1 to 6
  std::size_t most_routes = 5;         ///< how many are returned
};

/// Sequences of the fewest units that part the whole feed into pure products, those without use of a curved
/// boundary first, then those with the least recycle. Columns are sharp splits: the unstable node of a region
/// of the map overhead, or its stable node as bottoms, and on the straight line through the feed as far as
/// the region goes; on a side the two neighbours. Both products lie in one region; where the feed does not,
/// the split relies on the curvature of the boundary between. Streams that are no product are parted further
/// or sent back to an earlier unit; recycles are closed by repeated substitution. A component that the feed
/// has none of is an entrainer: it goes round, pure or not, in an amount that is tried.
///
/// Limits: long columns at high reflux, boundaries taken as they are for total reflux.
/// Source: M. F. Doherty, G. A. Caldarola, Ind. Eng. Chem. Fundam. 24 (1985) 474-485.
std::vector<Route> routes(Mixture& mixture, const ResidueMap& map, const RouteTask& task);

}  // namespace jampot
