#pragma once
// Boiling diagrams of two substances told.
#include "jampot/report/answer.hpp"
#include "jampot/study/binary.hpp"

namespace jampot {

/// What is drawn.
enum class BinaryDiagram {
  boiling,  ///< T or P against both compositions
  xy,       ///< vapour against liquid composition
  overview  ///< both and the activity coefficients
};

/// The beginning of the command's name in the JSON is that of the diagram: txy, pxy or xy.
struct BinaryAnswerOptions : AnswerOptions {
  BinaryDiagram diagram = BinaryDiagram::boiling;  ///< which diagram
  bool xy_asked = false;                           ///< of an overview: that the x-y diagram was asked for
};

/// Curves, azeotropes, two liquids, critical points, deviations from measured sets.
Answer answer(const BinaryStudy& study, const BinaryAnswerOptions& options = {});

}  // namespace jampot
