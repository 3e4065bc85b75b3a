#pragma once
// An extraction told.
#include "jampot/draw/triangle.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/extract.hpp"

namespace jampot {

/// How an extraction is shown.
struct ExtractAnswerOptions : AnswerOptions {
  Triangle::Options triangle{};  ///< how the triangle is drawn
};

/// Least solvent, stages, balances, and the construction in the triangle with the solute of both liquids
/// beside it.
Answer answer(const ExtractStudy& study, const ExtractAnswerOptions& options = {});

}  // namespace jampot
