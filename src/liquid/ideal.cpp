#include "jampot/liquid/ideal.hpp"

#include <algorithm>

namespace jampot {

void IdealSolution::evaluate(std::span<const double>, std::span<double> ln_gamma, std::span<double> dT,
                             std::span<double> dn) {
  std::fill(ln_gamma.begin(), ln_gamma.end(), 0.0);
  std::fill(dT.begin(), dT.end(), 0.0);
  std::fill(dn.begin(), dn.end(), 0.0);
}

}  // namespace jampot
