#include "line_crossings.hpp"

#include <algorithm>

#include "triangle_plane.hpp"

namespace jampot {

std::vector<LineCrossing> line_crossings(const ResidueMap& map, const Composition& x,
                                         const Composition& along) {
  LineCrossing out{HUGE_VAL, std::nullopt, std::nullopt};
  for (std::size_t i = 0; i < 3; ++i) {
    if (!(along[i] < 0)) continue;
    const double t = x[i] / -along[i];
    if (t < out.t) out = {t, std::nullopt, i};
  }
  std::vector<LineCrossing> found;
  for (std::size_t k = 0; k < map.separatrices.size(); ++k) {
    const Separatrix& separatrix = map.separatrices[k];
    if (!separatrix.boundary) continue;
    for (std::size_t p = 1; p < separatrix.x.size(); ++p) {
      const Composition a = separatrix.x[p - 1], piece = difference(separatrix.x[p], a);
      const double slant = cross(along, piece);
      if (slant == 0) continue;
      const Composition to_a = difference(a, x);
      const double t = cross(to_a, piece) / slant, s = cross(to_a, along) / slant;
      constexpr double beyond = 1e-9;
      if (s >= 0 && s <= 1 && t > beyond && t < out.t) found.push_back({t, k, std::nullopt});
    }
  }
  std::sort(found.begin(), found.end(),
            [](const LineCrossing& a, const LineCrossing& b) { return a.t < b.t; });
  found.push_back(out);
  return found;
}

}  // namespace jampot
