#pragma once
// Ternary liquid-liquid diagrams as figures.
#include <set>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/draw/triangle.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

struct LabelledTernary {
  std::string label;  ///< of the model, where there are several
  TernaryDiagram diagram;
};

/// A composition to point out, by mole fractions.
struct TriangleMark {
  std::string text;
  std::array<double, 3> x{};
};

struct TernaryFigureOptions {
  DisplayUnits units;
  Basis basis = Basis::mole;
  Triangle::Options triangle;
  std::set<std::string> hidden;  ///< of ternary_layers()
  std::vector<DataSet> measured;
  std::vector<TriangleMark> marks;
  std::vector<TieLine> through;  ///< tie lines through compositions asked for, drawn strongly
  std::vector<std::vector<std::array<double, 3>>> bands;  ///< outlines of uncertainty along the binodal
  bool guide_lines = false;                               ///< from marks to the three sides
};

/// "area", "binodal", "tie-lines", "plait", "three-liquids", "measured", "marks", "numbers".
const std::vector<std::string>& ternary_layers();

Figure ternary_figure(const std::vector<LabelledTernary>& diagrams, const std::vector<Substance>& substances,
                      const TernaryFigureOptions& options);

/// Distribution coefficient and selectivity against the solute in the liquid of the carrier, logarithmic.
Panel distribution_panel(const std::vector<Distribution>& distributions,
                         const std::vector<std::string>& labels, const std::vector<Substance>& substances,
                         Basis basis);

}  // namespace jampot
