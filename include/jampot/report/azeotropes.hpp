#pragma once
// Azeotropes told.
#include "jampot/report/answer.hpp"
#include "jampot/study/azeotropes.hpp"

namespace jampot {

/// How the azeotropes are shown.
struct AzeotropesAnswerOptions : AnswerOptions {
  bool all = false;  ///< list the pure substances too
};

/// Azeotropes with the way residue curves run about them, and the index balance; of three substances at one
/// pressure drawn in the triangle, at several pressures against pressure.
Answer answer(const AzeotropesStudy& study, const AzeotropesAnswerOptions& options = {});

}  // namespace jampot
