#pragma once
// Substances told.
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/substance.hpp"

namespace jampot {

/// Names, formulas, CAS numbers and boiling points.
Answer answer(const FindStudy& study, const AnswerOptions& options = {});

/// The constants with their sources, or properties at states with their methods.
/// @throws RequestError where a figure is wanted of constants
Answer answer(const SubstanceStudy& study, const AnswerOptions& options = {});

/// How the saturation curve is shown.
struct SaturationAnswerOptions : AnswerOptions {
  SaturationAxes axes = SaturationAxes::log_P_against_inverse_T;  ///< how the axes are divided
};

/// The boiling curve, beside equations of state where asked for.
Answer answer(const SaturationStudy& study, const SaturationAnswerOptions& options = {});

}  // namespace jampot
