#pragma once
// Ternary liquid-liquid diagrams told.
#include "jampot/draw/ternary_figure.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/ternary.hpp"

namespace jampot {

/// Which layers, corners and marks the figure has are in `looks`; what is drawn comes from the study.
struct TernaryAnswerOptions : AnswerOptions {
  TernaryFigureOptions looks{};  ///< how the triangle is drawn
  bool overview = false;         ///< distribution and selectivity beside the triangle
};

/// Tie lines, plait points, three liquids, distribution of the solute, deviations. The figure is drawn where
/// it is wanted.
Answer answer(const TernaryStudy& study, const TernaryAnswerOptions& options = {});

}  // namespace jampot
