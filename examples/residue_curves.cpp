// Can it be distilled apart? All azeotropes of three solvents, the regions between the boundaries, and the
// picture.
#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/draw/residue_figure.hpp"
#include "jampot/phase/mixture.hpp"

int main() try {
  using namespace jampot;
  Mixture mixture(substances_named({"methanol", "ethyl acetate", "water"}), "unifac", {});
  const ResidueMap map = residue_map(mixture, 101325.0);

  for (const SingularPoint& point : map.singular.points) {
    fmt::print("{:8.2f} degC  {:13} ", point.T_K - celsius_zero, name_of(point.stability));
    for (const std::size_t member : point.members)
      fmt::print(" {} {:.4f}", mixture.substances()[member].name, point.x[member]);
    fmt::print("{}\n", point.liquids.empty() ? "" : "  (two liquids)");
  }
  // Topology demands this of any complete set.
  fmt::print("index balance {}\n", map.singular.balanced() ? "met" : "NOT met");
  fmt::print("{} distillation regions\n", map.regions.size());

  // In which of them does a feed lie?
  const std::array<double, 3> feed{0.2, 0.5, 0.3};
  if (const auto region = map.region_of(feed))
    fmt::print("the feed lies in region {}: from point {} to point {}\n", *region + 1,
               map.regions[*region].from + 1, map.regions[*region].to + 1);
  draw(residue_figure(map, mixture.substances(), {}), "residue-curves.svg");
  for (const Notice& notice : map.notices) fmt::print("notice: {}\n", notice.text);
  return 0;
} catch (const std::exception& error) {
  fmt::print(stderr, "{}\n", error.what());
  return 1;
}
