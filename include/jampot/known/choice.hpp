#pragma once
// Which of several models: by how they do on what handbooks say of exactly these substances.
#include <string>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// A model chosen by how it does on the facts.
struct ChosenModel {
  std::string model{};  ///< its name
  std::string why{};    ///< ", which agrees with 12 of 14 handbook facts of these substances; unifac with 10"
};

/// Where handbooks have no fact about the substances, by how the predictive ones do on pairs of the same
/// families. The first of `models` (words that need no further choice) of those with the smallest share of
/// misses, where an azeotrope or a split that is missing or invented counts double and a fact of grade C
/// half.
/// @pre at least one model, each of which can be made of the substances
ChosenModel best_on_facts(const std::vector<std::string>& models, const std::vector<Substance>& substances);

}  // namespace jampot
