#pragma once
// Lines of constant boiling temperature in a triangle.
#include <array>
#include <vector>

#include "jampot/diagram/boiling_region.hpp"

namespace jampot {

/// A line of one boiling temperature in the triangle.
struct Isotherm {
  double T_K = 0;                        ///< temperature, K
  std::vector<std::array<double, 3>> x;  ///< one unbroken line; closed where its ends are the same
};

/// The boiling temperatures at P_Pa on a lattice of the triangle, 1/80 apart, and through them the lines of
/// the temperatures wanted, exact to about 0.01 K where they cross it, straight within each cell.
/// Temperatures that do not occur have no line.
std::vector<Isotherm> isotherms(Mixture& mixture, double P_Pa, const BoilingRegions& two_liquids,
                                const std::vector<double>& T_K);

}  // namespace jampot
