#pragma once
// The density of a liquid as people know it: at some temperature, or as a specific gravity with two of them.
#include <string_view>

namespace jampot {

/// Density of a saturated liquid against temperature.
struct LiquidDensity {
  double kg_m3 = 0;     ///< kg/m3
  double T_K = 298.15;  ///< K
};

/// Density of water at one atmosphere, kg/m3, from 0 to 100 degC. Source: G. S. Kell, J. Chem. Eng. Data 20
/// (1975) 97-105.
/// @throws RequestError outside that range
double water_density_kg_m3(double T_K);

/// Reads "867", "867 kg/m3", "0.867 g/cm3" or "867 kg/m3 at 20 degC"; 25 degC where no temperature is given.
/// @throws RequestError saying what was expected
LiquidDensity parse_density(std::string_view text);

/// Reads a specific gravity with the temperature of the liquid and that of the water it is compared with:
/// "0.867 at 20/4 degC", "0.867 at 60/60 degF".
/// @throws RequestError saying what was expected: without both temperatures a specific gravity is no density
LiquidDensity parse_specific_gravity(std::string_view text);

}  // namespace jampot
