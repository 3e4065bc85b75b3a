#pragma once
// Residue curve maps told.
#include "jampot/draw/residue_figure.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/residue.hpp"

namespace jampot {

/// Which layers, corners and marks the figure has are in `looks`; what is drawn comes from the study.
struct ResidueAnswerOptions : AnswerOptions {
  ResidueFigureOptions looks{};  ///< how the map is drawn
};

/// Singular points, boundaries, two liquids, what feeds can become. The figure is drawn where it is wanted.
Answer answer(const ResidueStudy& study, const ResidueAnswerOptions& options = {});

}  // namespace jampot
