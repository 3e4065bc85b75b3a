#pragma once
// Ternary liquid-liquid diagrams as figures.
#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/draw/triangle_figure.hpp"
#include "jampot/measured/data_set.hpp"

namespace jampot {

/// A diagram with the name it is labelled by.
struct LabelledTernary {
  std::string label;       ///< of the model, where there are several
  TernaryDiagram diagram;  ///< the diagram
};

/// Looks of a ternary liquid-liquid diagram.
struct TernaryFigureOptions : TriangleFigureOptions {
  std::vector<DataSet> measured;  ///< sets laid over it
  std::vector<TieLine> through;   ///< tie lines through compositions asked for, drawn strongly
  std::vector<std::vector<std::array<double, 3>>> bands;  ///< outlines of uncertainty along the binodal
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
