#pragma once
// The score of a solvent: its parts, what they weigh, and what they say.
#include "jampot/study/screen.hpp"

namespace jampot {

/// The weights asked for, together 1. @throws RequestError for an unknown part or a weight that is none
std::vector<std::pair<std::string, double>> weights_of(const ScreenRequest& request);

/// Fills parts, score and verdict from the numbers of a solvent.
void score(ScreenedSolvent& solvent, SolventRole role, const std::vector<Substance>& pair,
           const std::vector<std::pair<std::string, double>>& weights);

}  // namespace jampot
