#pragma once
// Shares of two phases from K values.
#include <span>

namespace jampot {

/// The share V of the second phase, sum_i z_i (K_i - 1)/(1 + V (K_i - 1)) = 0 between the poles next to 0..1.
/// Below 0 or above 1 there is only one of the phases (negative flash). The function falls all the way
/// between its poles, so that a bracket around Newton's method cannot fail.
/// @return NaN where all K_i are on the same side of 1: no share gives both phases
///
/// Source: H. H. Rachford, J. D. Rice, J. Pet. Technol. 4 (1952) 19-20; C. H. Whitson, M. L. Michelsen, Fluid
/// Phase Equilib. 53 (1989) 51-71 (the limits).
double rachford_rice(std::span<const double> z, std::span<const double> K);

}  // namespace jampot
