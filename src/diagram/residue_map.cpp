#include "jampot/diagram/residue_map.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "residue_curves.hpp"
#include "residue_regions.hpp"

namespace jampot {
namespace {

// Compositions spread over the triangle and how far each is from everything drawn so far.
class Gaps {
 public:
  Gaps() {
    constexpr int steps = 30;
    for (int i = 1; i < steps; ++i) {
      for (int j = 1; i + j < steps; ++j) {
        x0_.push_back(1.0 * i / steps);
        x1_.push_back(1.0 * j / steps);
        constexpr double height = 0.8660254037844386;  // of the triangle of side 1
        const double side = height * std::min({i, j, steps - i - j}) / steps;
        free_.push_back(side * side);
      }
    }
  }

  void draw(const ResidueCurve& curve) {
    constexpr double spacing = 0.025;
    Composition last = curve.x.front();
    for (const Composition& x : curve.x) {
      const double length = distance(x, last);
      if (length < spacing && &x != &curve.x.front()) continue;
      const int pieces = std::max(1, static_cast<int>(length / spacing));
      for (int k = 1; k <= pieces; ++k)
        draw(combined(last, static_cast<double>(k) / pieces, difference(x, last)));
      last = x;
    }
  }

  Composition widest() const {
    const auto at = static_cast<std::size_t>(std::max_element(free_.begin(), free_.end()) - free_.begin());
    return {x0_[at], x1_[at], 1 - x0_[at] - x1_[at]};
  }

 private:
  // Number by number, so that the processor takes several spots at a time.
  void draw(const Composition& x) {
    const std::size_t count = free_.size();
    for (std::size_t k = 0; k < count; ++k) {
      const double a = x0_[k] - x[0], b = x1_[k] - x[1];
      const double square = a * a + b * b + a * b;  // of the distance in the triangle of side 1
      free_[k] = square < free_[k] ? square : free_[k];
    }
  }
  std::vector<double> x0_, x1_,  ///< the compositions
      free_;                     ///< square of the distance of each to what is drawn
};

}  // namespace

ResidueMap residue_map(Mixture& mixture, double P_Pa, const ResidueOptions& options) {
  if (mixture.size() != 3)
    throw RequestError(fmt::format("a residue curve map has three substances; {} are named", mixture.size()));
  demand_pressure(P_Pa);
  ResidueMap map;
  map.P_Pa = P_Pa;
  map.singular = singular_points(mixture, P_Pa, options.progress);
  if (options.progress != nullptr) options.progress->expected += options.curves;
  map.two_liquids = boiling_regions(mixture, P_Pa);
  map.notices.add(map.singular.notices);
  map.notices.add(map.two_liquids.notices);
  ResidueCurves curves(mixture, P_Pa, map.singular.points, map.two_liquids, options.each_slope_exact);
  std::size_t lost = 0;
  for (std::size_t k = 0; k < map.singular.points.size(); ++k) {
    for (Separatrix& line : curves.of_saddle(k)) {
      if (!line.begin || !line.end) ++lost;
      map.separatrices.push_back(std::move(line));
    }
  }
  find_regions(map);
  for (const Composition& x : options.through) map.through.push_back(curves.through(x));
  Gaps gaps;
  for (const Separatrix& line : map.separatrices) gaps.draw(line);
  for (const ResidueCurve& curve : map.through) gaps.draw(curve);
  for (int k = 0; k < options.curves; ++k) {
    if (options.progress != nullptr) ++options.progress->done;
    map.curves.push_back(curves.through(gaps.widest()));
    gaps.draw(map.curves.back());
  }
  for (const auto* list : {&map.curves, &map.through}) {
    for (const ResidueCurve& curve : *list) {
      if (!curve.begin || !curve.end) ++lost;
    }
  }
  if (lost > 0)
    map.notices.add("curves-lost", fmt::format("{} {} not end at a singular point that was found: one "
                                               "is missing, or is nearly tangent",
                                               counted(lost, "curve"), lost == 1 ? "does" : "do"));
  return map;
}

}  // namespace jampot
