// Compiled with -ffast-math where GCC then takes the vector functions of the C library.
#include "many_exp.hpp"

#include <cmath>

#include "clones.hpp"

namespace jampot {

JAMPOT_CLONES
void exp_of_all(double* values, std::size_t count) {
  for (std::size_t k = 0; k < count; ++k) values[k] = std::exp(values[k]);
}

JAMPOT_CLONES
void log_of_all(double* values, std::size_t count) {
  for (std::size_t k = 0; k < count; ++k) values[k] = std::log(values[k]);
}

}  // namespace jampot
