#pragma once
// Liquid-liquid equilibria of three substances at one temperature: everything a triangle shows, as numbers.
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/equilibrium/plait_point.hpp"
#include "jampot/equilibrium/three_liquids.hpp"

namespace jampot {

/// Two liquids in equilibrium, as mole fractions.
struct TieLine {
  std::array<double, 3> alpha{},  ///< mole fractions of the first liquid
      beta{};                     ///< mole fractions of the second liquid
  /// Halfway between the two liquids.
  std::array<double, 3> middle() const;
  double length() const;  ///< largest difference of a mole fraction
};

/// Where a region of two liquids ends.
struct RegionEnd {
  /// How a region of tie lines ends.
  enum class Kind {
    edge,         ///< at two liquids of a pair, the third substance absent
    plait,        ///< where the two liquids become one
    three_liquid  ///< at a side of a triangle of three liquids
  };
  Kind kind = Kind::edge;  ///< how it ends
  std::size_t number = 0;  ///< of the absent substance, the plait point, or the triangle
};

/// A region of two liquids: its tie lines in order, from one end to the other. alpha lies on the same side
/// throughout.
struct TwoLiquidRegion {
  std::vector<TieLine> tie_lines;  ///< close enough to each other to draw the binodal
  RegionEnd begin,                 ///< where its first tie line lies
      end;                         ///< where its last tie line lies
  /// The substances in which alpha and beta are richer than the other, by the largest difference over the
  /// region.
  std::size_t alpha_rich = 0,  ///< component of which the first liquid holds more
      beta_rich = 0;           ///< component of which the second liquid holds more
};

/// One of the tie lines to show, with what an extraction needs to know.
struct ShownTieLine {
  TieLine line;            ///< the tie line
  std::size_t region = 0;  ///< number of its region
  /// Of each substance its mole fraction in beta over that in alpha.
  std::array<double, 3> distribution{};
  double residual = 0;  ///< largest difference of ln(x_i gamma_i)
  double distance =
      0;  ///< lowest distance of any liquid from the tangent plane (global test); negative by rounding
};

/// All liquids in equilibrium in a triangle at one temperature.
struct TernaryDiagram {
  double T_K = 0;                           ///< temperature, K
  std::vector<TwoLiquidRegion> regions;     ///< regions of two liquids
  std::vector<PlaitPoint> plait_points;     ///< where a region closes
  std::vector<ThreeLiquids> three_liquids;  ///< triangles of three liquids
  std::vector<ShownTieLine> tie_lines;      ///< those to draw
  std::array<bool, 3> splits_without{};     ///< whether the pair without that substance parts
  Notices notices;                          ///< what the reader must know

  /// How many liquids a composition is, read off the regions as they are drawn.
  int liquids_at(const std::array<double, 3>& composition) const;

  /// "two pairs part, joined by a band": what an expert would call it.
  std::string description(const std::array<std::string, 3>& names) const;
};

/// How finely a ternary diagram is traced.
struct TernaryOptions {
  int tie_lines = 25;  ///< spread evenly over all regions
};

/// The diagram at T_K of a model of three components.
///
/// Method: the splits of the three pairs are followed into the triangle, each tie line being the least Gibbs
/// energy of its middle; a region ends at another pair, at a plait point, or where a third liquid appears,
/// whose triangle sends out two more regions. Whatever then still lies inside the spinodal and in no region
/// begins a region of its own (islands). The tie lines shown are tested for a further liquid over the whole
/// triangle.
/// @throws CalculationError where a region cannot be followed to an end
TernaryDiagram ternary_diagram(ActivityModel& model, double T_K, const TernaryOptions& options = {});

/// The tie line through a composition; nothing where that is one liquid or three.
std::optional<ShownTieLine> tie_line_through(ActivityModel& model, double T_K,
                                             const std::array<double, 3>& composition);

}  // namespace jampot
