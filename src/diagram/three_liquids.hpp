#pragma once
// Three liquids in equilibrium from three near ones, whatever the amounts.
#include <optional>

#include "jampot/diagram/ternary.hpp"

namespace jampot {

/// Newton's method on equal ln(x_i gamma_i) in all three, in the six independent logarithmic ratios. Unlike
/// the parting of a feed it does not need a feed inside the triangle, which may be too thin to hit.
/// @returns nothing where it does not converge to three distinct liquids
std::optional<ThreeLiquids> three_liquids_near(ActivityModel& model, double T_K, const ThreeLiquids& guess);

}  // namespace jampot
