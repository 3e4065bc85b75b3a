// Two liquids: a feed parted, the whole triangle, and its picture, all predicted by UNIFAC.
#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/draw/ternary_figure.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/phase/mixture.hpp"

int main() try {
  using namespace jampot;
  const double T_K = 25 + celsius_zero;
  Mixture mixture(substances_named({"water", "1-butanol", "acetone"}), "unifac-lle", {});

  // 1. One feed. No guess is needed, and one that does not part comes back as one liquid.
  const std::vector<double> feed{0.6, 0.35, 0.05};
  LiquidSplitter splitter(mixture.activity(), T_K);
  const LiquidSplit split = splitter.split(feed);
  fmt::print("{} liquids\n", split.phases());
  for (std::size_t k = 0; k < split.phases(); ++k) {
    fmt::print("  {:.4f} of the feed:", split.amount[k]);
    for (std::size_t i = 0; i < mixture.size(); ++i)
      fmt::print("  x({}) = {:.4f}", mixture.substances()[i].name, split.x[k][i]);
    fmt::print("\n");
  }

  // 2. Everything there is in the triangle: regions, plait points, tie lines, what to call it.
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), T_K);
  fmt::print("{}\n", diagram.description({"water", "1-butanol", "acetone"}));
  for (const PlaitPoint& point : diagram.plait_points)
    fmt::print("plait point at {:.4f} {:.4f} {:.4f}\n", point.x[0], point.x[1], point.x[2]);

  // 3. The picture.
  TernaryFigureOptions options;
  draw(ternary_figure({{"", diagram}}, mixture.substances(), options), "two-liquids.svg");
  return 0;
} catch (const std::exception& error) {
  fmt::print(stderr, "{}\n", error.what());
  return 1;
}
