#pragma once
// Tie lines of boiling liquids: their numbers, and where a composition lies among them.
#include <optional>

#include "jampot/diagram/boiling_region.hpp"
#include "triangle_plane.hpp"

namespace jampot {

/// A tie line between two (share 0 to 1) or beyond.
BoilingTieLine between(const BoilingTieLine& a, const BoilingTieLine& b, double share);

/// Where a composition lies among the tie lines of a region: between k and k + 1.
struct PlaceInRegion {
  std::size_t k = 0;
  double between = 0, share = 0;  ///< of tie line k + 1, of beta
};
std::optional<PlaceInRegion> place_in(const BoilingRegion& region, const Composition& x);

/// A start for the solver. What z does not hold stays out.
void fill(BoilingLiquids& state, const BoilingTieLine& line, double share, const Composition& z);
BoilingTieLine line_of(const BoilingLiquids& state);

}  // namespace jampot
