#pragma once
// What public functions demand of their arguments, in one place: the same fault has the same message
// everywhere.
#include <cstddef>
#include <span>

namespace jampot {

/// Sums of fractions may be off by this much.
inline constexpr double sum_tolerance = 1e-6;

/// Each throws RequestError that names the argument, its value and what is expected.
void demand_temperature(double T_K);
void demand_pressure(double P_Pa);
/// A finite number above zero.
void demand_positive(double value, const char* what);
void demand_finite(double value, const char* what);
/// As many of something as there are substances (or whatever `wanted` counts).
void demand_size(std::size_t given, std::size_t wanted, const char* what);
/// Mole fractions of `components` substances: each in 0..1, their sum one.
void demand_fractions(std::span<const double> x, std::size_t components);

}  // namespace jampot
