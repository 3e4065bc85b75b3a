#pragma once
// Where the models that could be used do not agree, and no fact decides between them.
#include "jampot/known/held.hpp"

namespace jampot {

/// Of a predictive model with up to three substances: the other predictions and pairs fitted to facts are
/// asked for the azeotropes of each pair at the pressure of use, and whether its liquid parts at the
/// temperature of use and how much dissolves. Notices `models-disagree` where they differ in existence, by
/// more than 0.05 in mole fraction, by more than a factor of two in a solubility, or in the direction in
/// which pressure moves the azeotrope, and no fact near it decides.
Notices models_disagree(const Mixture& mixture, const UsedAt& used);

}  // namespace jampot
