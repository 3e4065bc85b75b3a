#pragma once
// Terms of a pair as print states them, temperature dependence included, and back.
#include <string>

#include "jampot/liquid/published_pairs.hpp"

namespace jampot {

/// A term as a formula of T in K: as the term itself "a + b/T + e ln T + f T"; as an energy what the term
/// times R T is, "b + a T + e T ln T + f T^2" in its unit (times T alone in K). Ten digits; "0" where all is
/// zero.
std::string printed_formula(const TemperatureFunction& term, EnergyUnit unit);

/// Reads such a formula. @throws RequestError saying what was expected
TemperatureFunction parse_formula(const std::string& text, EnergyUnit unit);

}  // namespace jampot
