#pragma once
// Residue curve maps as figures.
#include "jampot/diagram/isotherms.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/draw/triangle_figure.hpp"

namespace jampot {

/// A map under the name by which it is told apart.
struct LabelledMap {
  std::string label;  ///< what tells it from the others
  ResidueMap map;     ///< the residue curve map
};

/// Looks of a residue curve map.
struct ResidueFigureOptions : TriangleFigureOptions {
  std::vector<Isotherm> isotherms;        ///< lines of equal boiling point
  std::vector<BoilingTieLine> tie_lines;  ///< through compositions asked for, drawn strongly
  int shown_tie_lines = 12;               ///< spread over each region of two liquids
  /// Azeotropes as handbooks have them, laid over as small crosses.
  std::vector<std::array<double, 3>> handbook;
  /// Maps by other models: of these boundaries, two liquids and azeotropes are drawn over the first.
  std::vector<LabelledMap> compared;
};

/// "regions", "curves", "arrows", "boundaries", "through", "two-liquids", "tie-lines", "vapour-line",
/// "isotherms", "nodes", "temperatures", "handbook", "marks", "numbers".
const std::vector<std::string>& residue_layers();

Figure residue_figure(const ResidueMap& map, const std::vector<Substance>& substances,
                      const ResidueFigureOptions& options);

}  // namespace jampot
