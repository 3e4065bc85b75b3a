#pragma once
// The faces into which separatrices cut the triangle.
#include "jampot/diagram/residue_map.hpp"

namespace jampot {

/// Fills `regions` from singular points and separatrices, and says of each separatrix whether it is a
/// boundary. A face without exactly one unstable and one stable node is left out, with a notice.
void find_regions(ResidueMap& map);

}  // namespace jampot
