#pragma once
// Where a straight line of compositions leads through distillation boundaries and out of the triangle.
#include <array>
#include <optional>
#include <vector>

#include "jampot/diagram/residue_map.hpp"

namespace jampot {

struct LineCrossing {
  double t = 0;                                 // steps along the line
  std::optional<std::size_t> separatrix, side;  // one of them: a boundary of the map, or the side it ends at
};

/// In the order along the line from x, that of the side last. A boundary on which x itself lies is not among
/// them.
/// @param along  a difference of compositions
std::vector<LineCrossing> line_crossings(const ResidueMap& map, const std::array<double, 3>& x,
                                         const std::array<double, 3>& along);

}  // namespace jampot
