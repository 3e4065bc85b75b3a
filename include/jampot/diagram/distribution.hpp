#pragma once
// Which liquid the solute prefers: distribution coefficients and selectivities along a ternary diagram.
#include <optional>

#include "jampot/diagram/ternary.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

/// The roles of three substances in an extraction.
struct Extraction {
  std::size_t solute = 0;   ///< what is extracted
  std::size_t carrier = 0;  ///< what it comes in
  std::size_t solvent = 0;  ///< number of the solvent
};

/// How a solute is shared between two liquids on one tie line.
struct DistributionPoint {
  double in_carrier = 0,   ///< fraction of the solute in the carrier
      in_solvent = 0;      ///< fraction of the solute in the liquid of the carrier and of the solvent
  double coefficient = 0;  ///< in_solvent / in_carrier
  double selectivity = 0;  ///< coefficient of the solute over that of the carrier
};

/// Distribution along a region of two liquids.
struct Distribution {
  Extraction roles;                       ///< which component is solute, carrier and solvent
  std::vector<DistributionPoint> points;  ///< by rising content of the solute
};

/// The roles in a diagram: the solute is the substance in which neither liquid of the widest region is rich;
/// of the other two the one named later is the solvent. Either can be given instead.
/// @throws RequestError where solute and solvent are the same
Extraction roles_in(const TernaryDiagram& diagram, std::optional<std::size_t> solute,
                    std::optional<std::size_t> solvent);

/// Along the tie lines shown, in fractions of moles or mass.
Distribution distribution(const TernaryDiagram& diagram, const Extraction& roles,
                          const std::vector<Substance>& substances, Basis basis);

}  // namespace jampot
