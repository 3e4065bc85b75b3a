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

/// Reads the six numbers of one substance, "v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, beta=11", in the
/// units of the table. @throws RequestError unless all six are there once and lie in their ranges
MoscedParameters parse_mosced(const std::string& text);

}  // namespace jampot
