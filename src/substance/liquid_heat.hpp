#pragma once
// Heat capacity of the liquid before the path of the enthalpy leaves it near the critical point.
#include "jampot/substance/properties.hpp"

namespace jampot {

inline constexpr double path_leaves_at = 0.85, path_ends_at = 0.95, path_known_to = 0.97;  ///< of Tc

/// The correlation of the bank within its range, carried on from its end; else the known value at 25 degC,
/// carried likewise. See `liquid_heat_capacity`.
Property known_liquid_heat_capacity(const Substance& substance, double T_K);

}  // namespace jampot
