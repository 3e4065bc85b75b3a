#pragma once
// Liquids for tests of many states.
#include <random>
#include <vector>

#include "support.hpp"

namespace jampot::test {

/// Random mole fractions, component by component; every seventh liquid lacks its first component.
inline std::vector<double> random_liquids(std::size_t n, std::size_t states, std::mt19937_64& random) {
  std::vector<double> x(n * states);
  for (std::size_t k = 0; k < states; ++k) {
    auto z = random_composition(random, n);
    if (k % 7 == 0) {
      z[1] += z[0];
      z[0] = 0;
    }
    for (std::size_t i = 0; i < n; ++i) x[i * states + k] = z[i];
  }
  return x;
}

}  // namespace jampot::test
