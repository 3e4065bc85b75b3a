#pragma once
// Compositions in a table.
#include <string>
#include <vector>

#include "jampot/phase/composition.hpp"

namespace jampot {

/// Compositions from a CSV file with the columns x1, x2 ... in the order of the substances, or named like the
/// columns of our tables ("x(water)"); the last may be left out.
/// @param basis of the fractions in the file
/// @returns mole fractions
/// @throws RequestError for a missing column, a fraction outside 0..1, or a sum that is not 1
std::vector<std::vector<double>> read_compositions(const std::string& file,
                                                   const std::vector<Substance>& substances, Basis basis);

}  // namespace jampot
