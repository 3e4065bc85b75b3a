#pragma once
// Pair parameters told, in the conventions of print.
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/report/answer.hpp"
#include "jampot/study/pairs.hpp"

namespace jampot {

/// In which unit terms are shown, and at which temperature those that depend on it.
struct PairsAnswerOptions : AnswerOptions {
  EnergyUnit unit = EnergyUnit::kelvin;  ///< of energies
  double T_K = 298.15;                   ///< where values are checked, K
};

/// What would be used, pair by pair, what is missing, and what predicts.
Answer answer(const PairsStudy& study, const PairsAnswerOptions& options = {});

/// Sets as they go into another program or into print: each term as a formula of T in the unit of the
/// options, the equations it belongs to, volumes or sizes, and limiting activity coefficients to check by at
/// the temperature of the options. What is written reads back by `parse_formula`.
Answer answer_exported(const std::vector<PairParameters>& pairs, const std::vector<Substance>& substances,
                       const PairsAnswerOptions& options = {});

/// One set in all units of print.
Answer answer_converted(const PairParameters& pair, const std::vector<Substance>& substances,
                        const PairsAnswerOptions& options = {});

}  // namespace jampot
