#pragma once
// What handbooks have of an extraction, in place of what a model predicts of it.
#include "jampot/known/held.hpp"
#include "jampot/study/screen.hpp"

namespace jampot {

/// Puts the distribution coefficient and the mutual solubilities of handbooks (grades A and B, within 15 K of
/// T_K) into the figures of a solvent, keeps what was predicted beside them, and counts the facts against
/// which the model no longer has to stand.
/// @param pair  solute and carrier
/// @param held  the facts about the candidate with what the model says there
void take_from_handbooks(ScreenedSolvent& solvent, const std::vector<Substance>& pair, double T_K,
                         const std::vector<HeldFact>& held);

}  // namespace jampot
