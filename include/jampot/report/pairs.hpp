#pragma once
// Pair parameters told, in the conventions of print.
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/pairs.hpp"

namespace jampot {

/// In which unit terms are shown, and at which temperature those that depend on it.
struct PairsAnswerOptions : AnswerOptions {
  EnergyUnit unit = EnergyUnit::kelvin;
  double T_K = 298.15;
};

/// What would be used, pair by pair, what is missing, and what predicts.
Answer answer(const PairsStudy& study, const PairsAnswerOptions& options = {});

/// One set in all units of print.
Answer answer_converted(const PairParameters& pair, const std::vector<Substance>& substances,
                        const PairsAnswerOptions& options = {});

}  // namespace jampot
