#include "jampot/equilibrium/rachford_rice.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "jampot/basis/demand.hpp"
namespace jampot {

double rachford_rice(std::span<const double> z, std::span<const double> K) {
  demand_size(K.size(), z.size(), "K values");
  double least = HUGE_VAL, most = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    if (!(z[i] > 0)) continue;
    least = std::min(least, K[i]);
    most = std::max(most, K[i]);
  }
  if (!(least < 1 && most > 1)) return std::numeric_limits<double>::quiet_NaN();
  double low = 1 / (1 - most), high = 1 / (1 - least);
  double V = std::clamp(0.5, low, high);
  constexpr int most_steps = 200;
  for (int k = 0; k < most_steps; ++k) {
    double f = 0, slope = 0;
    for (std::size_t i = 0; i < z.size(); ++i) {
      const double d = (K[i] - 1) / (1 + V * (K[i] - 1));
      f += z[i] * d;
      slope -= z[i] * d * d;
    }
    (f > 0 ? low : high) = V;
    double next = V - f / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (std::abs(next - V) <= 1e-15 * (1 + std::abs(V))) return next;
    V = next;
  }
  return V;
}

}  // namespace jampot
