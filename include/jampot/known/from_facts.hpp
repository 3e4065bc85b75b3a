#pragma once
// Pair parameters fitted to what handbooks say of the pair, where nobody has measured points at hand.
#include <optional>
#include <string>
#include <vector>

#include "jampot/known/held.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

/// A pair of a model that its facts determine, with how it does on them.
struct PairFromFacts {
  PairParameters pair{};         ///< source: "fitted to handbook facts (2 azeotropes, 1 solubility)"
  std::vector<HeldFact> held{};  ///< all facts about the pair
  double alpha = 0;              ///< non-randomness of NRTL
  /// No fact of grade A or B of an azeotrope, its absence, a miscibility or a solubility fails.
  bool sound() const;
};

/// Fits to the azeotropes, solubilities, critical solution temperatures, limiting activity coefficients and
/// excess enthalpies of the pair, each weighed by its uncertainty, with predicted limits (within a factor of
/// two) beside them where a table of groups has any. Of NRTL alpha is one of 0.2, 0.25, 0.3, 0.4 and 0.47,
/// and the terms follow 1/T, or A + B/T where facts at several temperatures ask for it; of these the plainest
/// that fails in the fewest facts.
/// @returns nothing where no number is known of the pair (that it is miscible, or has no azeotrope, is none),
/// or where no fit converges
std::optional<PairFromFacts> pair_from_facts(const Substance& first, const Substance& second,
                                             const std::string& model = "nrtl");

/// The same from some of the facts about the pair, so that others can be held against what comes out.
/// @param facts  each about these two substances
std::optional<PairFromFacts> pair_from_facts(const Substance& first, const Substance& second,
                                             const std::string& model, const std::vector<const Fact*>& facts);

}  // namespace jampot
