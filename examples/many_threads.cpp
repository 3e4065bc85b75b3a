// Many diagrams at once: a mixture holds scratch space, so every thread works with a copy of its own.
#include <fmt/format.h>

#include <future>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/phase/mixture.hpp"

int main() {
  using namespace jampot;
  const Mixture mixture(substances_named({"ethanol", "water"}), "unifac", {});
  std::vector<std::future<BinaryCurve>> curves;
  for (int k = 1; k <= 8; ++k) {
    curves.push_back(
        std::async(std::launch::async, [copy = mixture, k]() mutable { return txy(copy, 25e3 * k); }));
  }
  for (auto& pending : curves) {
    const BinaryCurve curve = pending.get();
    fmt::print("{:6.0f} kPa:", curve.points.front().P_Pa / 1000);
    for (const Azeotrope& azeotrope : curve.azeotropes)
      fmt::print(" azeotrope at x(ethanol) = {:.4f}, {:.2f} K", azeotrope.x1, azeotrope.T_K);
    fmt::print("\n");
  }
}
