#pragma once
// Mutual solubilities told.
#include "jampot/report/answer.hpp"
#include "jampot/study/solubility.hpp"

namespace jampot {

/// How the solubilities are shown.
struct SolubilityAnswerOptions : AnswerOptions {
  /// Draw each solubility by itself on a logarithmic axis: the dilute side magnified.
  bool logarithmic = false;
};

/// Both liquids by mole and by mass, critical solution points, deviations. The figure is drawn where it is
/// wanted.
Answer answer(const SolubilityStudy& study, const SolubilityAnswerOptions& options = {});

}  // namespace jampot
