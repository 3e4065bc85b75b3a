#pragma once
// The answer to what a command was asked to decide, in a sentence.
#include <optional>
#include <string>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/solubility.hpp"
#include "jampot/study/azeotropes.hpp"

namespace jampot {

/// Which liquid takes the solute, by mole and by mass, at small and at larger content. Empty without tie
/// lines.
std::string solute_in_words(const Distribution& by_mole, const Distribution& by_mass,
                            const std::vector<Substance>& substances);

/// Of two substances at several pressures: how far the azeotrope moves, and whether that is enough for two
/// columns.
std::vector<std::string> pressure_in_words(const AzeotropesStudy& study);

/// Which models agree with the first on mutual solubilities, and which differ by a factor of two, on whether
/// there are two liquids, or on the direction of a trend.
std::vector<std::string> agreement_in_words(const std::vector<std::string>& models,
                                            const std::vector<SolubilityCurve>& curves,
                                            const std::vector<Substance>& substances);

/// Which models agree with the first on the azeotrope of two substances at one pressure or temperature.
std::vector<std::string> agreement_in_words(const std::vector<BinaryCurve>& curves);

}  // namespace jampot
