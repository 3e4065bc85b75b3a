#pragma once
// Residue curve maps of three components at a pressure.
#include <array>
#include <optional>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/diagram/boiling_region.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// The composition of a liquid that boils away, dx/dt = x - y(x), from its coldest end to its hottest. Where
/// the liquid is two, x is the whole of both.
struct ResidueCurve {
  std::vector<std::array<double, 3>> x;  ///< compositions along it, from the unstable to the stable end
  std::vector<double> T_K;               ///< boiling points along it, K
  std::optional<std::size_t> begin,      ///< number of the singular point where it begins
      end;                               ///< number of the singular point where it ends; none: it got lost
};

/// A residue curve that leaves or enters a saddle across the triangle.
struct Separatrix : ResidueCurve {
  std::size_t saddle = 0;  ///< its number among the singular points
  /// Whether the curves on its two sides have different ends: a distillation boundary.
  bool boundary = true;
};

/// All compositions whose residue curves run from one unstable node to one stable node.
struct DistillationRegion {
  std::size_t from = 0,  ///< number of the unstable node
      to = 0;            ///< number of the stable node
  /// Closed outlines without holes, against the clock with the corners 0, 1, 2; several where a separatrix
  /// that is no boundary runs through.
  std::vector<std::vector<std::array<double, 3>>> outlines;
};

/// A residue curve map: singular points, boundaries, regions and curves.
struct ResidueMap {
  double P_Pa = 0;                          ///< pressure, Pa
  SingularPoints singular;                  ///< its singular points
  BoilingRegions two_liquids;               ///< where two liquids boil
  std::vector<Separatrix> separatrices;     ///< boundaries of distillation
  std::vector<DistillationRegion> regions;  ///< regions of distillation
  std::vector<ResidueCurve> curves;         ///< spread evenly
  std::vector<ResidueCurve> through;        ///< through the compositions asked for
  Notices notices;                          ///< what the reader must know

  /// The number of the region in which a composition lies; none where the map is incomplete there. A point of
  /// a side counts as lying a little inside.
  std::optional<std::size_t> region_of(const std::array<double, 3>& x) const;
};

/// What is drawn into a map.
struct ResidueOptions {
  int curves = 25;                             ///< number of curves
  std::vector<std::array<double, 3>> through;  ///< compositions through which a curve is drawn besides
  Progress* progress = nullptr;  ///< counts searches for azeotropes and curves, where somebody watches
  /// Every slope from a boiling point of its own, not read off polynomials through boiling points, which are
  /// within 1e-6 of the vapour and 1e-4 K: slower, for comparison.
  bool each_slope_exact = false;
};

/// The map of a mixture of three at P_Pa.
///
/// Method: all singular points and regions of two boiling liquids first; from every saddle its separatrices
/// across the triangle; curves one after the other through the composition furthest from all that is drawn
/// so far, integrated both ways in the length of the curve (Dormand-Prince) to the nodes. Regions are the
/// faces into which separatrices and sides cut the triangle. Source: M. F. Doherty, J. D. Perkins, Chem. Eng.
/// Sci. 33 (1978) 281-301; the whole liquid of two: H. N. Pham, M. F. Doherty, Chem. Eng. Sci. 45 (1990)
/// 1837-1843.
/// @throws RequestError where there are not three components; CalculationError as `singular_points`
ResidueMap residue_map(Mixture& mixture, double P_Pa, const ResidueOptions& options = {});

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline ResidueMap residue_map(const Mixture& mixture, double P_Pa, const ResidueOptions& options = {}) {
  Mixture own = mixture;
  return residue_map(own, P_Pa, options);
}

}  // namespace jampot
