#include "jampot/draw/triangle.hpp"

#include <fmt/format.h>

namespace jampot {

Spot Triangle::at(std::span<const double> fractions) const {
  const double top = fractions[options_.corners[0]], right = fractions[options_.corners[2]];
  if (options_.right_angled) return {right, top};
  constexpr double half_root_3 = 0.8660254037844386;
  return {right + top / 2, half_root_3 * top};
}

Panel Triangle::panel(const std::array<std::string, 3>& names) const {
  Panel panel;
  panel.bare = true;
  panel.right_angled = options_.right_angled;
  for (std::size_t k = 0; k < 3; ++k) panel.corners[k] = names[options_.corners[k]];
  const auto spot = [&](double top, double left, double right) {
    std::array<double, 3> fractions{};
    fractions[options_.corners[0]] = top;
    fractions[options_.corners[1]] = left;
    fractions[options_.corners[2]] = right;
    return at(fractions);
  };
  panel.x = {"", -0.16, options_.right_angled ? 1.12 : 1.16};
  panel.y = {"", -0.12, options_.right_angled ? 1.08 : 0.94};
  constexpr int grid_colour = 8;
  for (int k = 1; k < 10; ++k) {
    const double f = 0.1 * k;
    for (const auto& [from, to] :
         {std::pair(spot(f, 1 - f, 0), spot(f, 0, 1 - f)), std::pair(spot(0, f, 1 - f), spot(1 - f, f, 0)),
          std::pair(spot(0, 1 - f, f), spot(1 - f, 0, f))}) {
      panel.guides.push_back({{from, to}, "", Stroke::solid, Mark::none, grid_colour, 0.6});
    }
    if (k % 2 != 0) continue;
    const std::string number = fmt::format("{:.1f}", f);
    const Spot base = spot(0, 1 - f, f), right = spot(f, 0, 1 - f), left = spot(1 - f, f, 0);
    panel.texts.push_back({{base.x, base.y - 0.03}, number, FixedText::Align::centre, true});
    panel.texts.push_back({{right.x + 0.015, right.y + 0.01}, number, FixedText::Align::left, true});
    panel.texts.push_back({{left.x - 0.015, left.y + 0.01}, number, FixedText::Align::right, true});
  }
  panel.guides.push_back(
      {{spot(1, 0, 0), spot(0, 1, 0), spot(0, 0, 1), spot(1, 0, 0)}, "", Stroke::solid, Mark::none, 9, 1.5});
  const Spot top = spot(1, 0, 0), left = spot(0, 1, 0), right = spot(0, 0, 1);
  panel.texts.push_back(
      {{top.x, top.y + 0.045}, names[options_.corners[0]], FixedText::Align::centre, false});
  panel.texts.push_back(
      {{left.x, left.y - 0.085}, names[options_.corners[1]], FixedText::Align::centre, false});
  panel.texts.push_back(
      {{right.x, right.y - 0.085}, names[options_.corners[2]], FixedText::Align::centre, false});
  return panel;
}

}  // namespace jampot
