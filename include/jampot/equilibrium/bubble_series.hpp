#pragma once
// Bubble points of many liquids one after another, as along a measured curve or through a column.
#include <span>
#include <vector>

#include "jampot/equilibrium/bubble_dew.hpp"

namespace jampot {

/// Bubble temperatures at P_Pa of the liquids `compositions`, each as bubble_temperature(mixture, P_Pa, x)
/// has it. Each search sets out from the point before it, so that neighbours are best given one after
/// another; where that start does not lead to a solution the search sets out anew.
/// @throws as bubble_temperature does, for the first composition that has no bubble point.
std::vector<VlePoint> bubble_temperatures(const Mixture& mixture, double P_Pa,
                                          std::span<const std::vector<double>> compositions);

/// Bubble pressures at T_K of the liquids `compositions`.
std::vector<VlePoint> bubble_pressures(const Mixture& mixture, double T_K,
                                       std::span<const std::vector<double>> compositions);

}  // namespace jampot
