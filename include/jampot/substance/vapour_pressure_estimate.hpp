#pragma once
// The vapour pressure of a substance of which no coefficients are known.
#include <string>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// Corresponding states through the normal boiling point; where an enthalpy of vaporisation is known besides,
/// the curve follows the pressure to which the slope that goes with it leads from the boiling point down to
/// 25 degC, d ln P/dT = H / (R T^2 Z), H by the Watson relation and Z of the vapour less the
/// liquid by its second virial coefficient. On substances whose vapour pressure is known the second way is
/// better by far (tests/substance/vapour_pressure_estimate_test.cpp).
/// @param substance with a boiling point; what it has of a vapour pressure is not looked at
/// @param critical its critical point, and the acentric factor with which the curve meets the boiling point
/// @param whence where the critical point comes from, if not from the bank ("groups (Joback, Reid 1987)")
VapourPressure estimate_vapour_pressure(const Substance& substance,
                                        const CorrespondingStates::Critical& critical,
                                        const std::string& whence = "");

}  // namespace jampot
