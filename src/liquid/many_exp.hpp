#pragma once
// Exponentials and logarithms of many numbers.
#include <cstddef>

namespace jampot {

/// values[k] = exp(values[k]), to a few units of the last place. Finite numbers only.
void exp_of_all(double* values, std::size_t count);

/// values[k] = ln(values[k]) likewise. Positive numbers only.
void log_of_all(double* values, std::size_t count);

}  // namespace jampot
