#pragma once
// Limiting activity coefficients of a new substance in a table.
#include <string>
#include <vector>

#include "jampot/regression/mosced_fit.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// The columns solute, solvent, T with its unit, gamma and, where it is known, u(gamma) (else 5 %). One of
/// solute and solvent is the new substance, `own`, the other one of the bank.
/// @throws RequestError for a missing column, a substance that is not in the bank, or a number that is none
std::vector<MoscedPoint> read_mosced_points(const std::string& file, const std::string& own,
                                            const Bank& bank);

}  // namespace jampot
