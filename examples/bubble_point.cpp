// One page: where does a liquid boil, and what vapour does it give?
#include <fmt/format.h>

#include "jampot/equilibrium/bubble_dew.hpp"

int main() {
  using namespace jampot;
  // Substances come from the built-in bank by name, alias, formula or CAS number. The ideal model needs no
  // parameters.
  Mixture mixture(substances_named({"ethanol", "acetone", "toluene"}), "ideal", {});

  const std::vector<double> x{0.3, 0.3, 0.4};
  const VlePoint point = bubble_temperature(mixture, 101325.0, x);  // SI everywhere: Pa in, K out

  fmt::print("bubble point {:.2f} K\n", point.T_K);
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    fmt::print("  {:10} x = {:.3f}  y = {:.3f}\n", mixture.substances()[i].name, point.x[i], point.y[i]);
  }
  // A result carries what has to be said about it.
  for (const Notice& notice : point.notices) fmt::print("notice: {}\n", notice.text);
}
