#include "triangle_drawer.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/draw/looks.hpp"

namespace jampot {

void TriangleDrawer::begin(const std::array<std::string, 3>& names) {
  panel_ = corners_.panel(names);
  if (!shows("numbers")) std::erase_if(panel_.texts, [](const FixedText& text) { return text.small; });
}

Spot TriangleDrawer::spot(const std::array<double, 3>& x) const {
  if (options_.basis == Basis::mole) return corners_.at(x);
  return corners_.at(mass_fractions(x, substances_));
}

std::vector<Spot> TriangleDrawer::spots(const std::vector<std::array<double, 3>>& list) const {
  std::vector<Spot> result;
  for (const auto& x : list) result.push_back(spot(x));
  return result;
}

void TriangleDrawer::add_marks() {
  for (const auto& [from, to] : options_.balance_lines) {
    panel_.series.push_back(
        straight(looks::balance, spot(options_.marks[from].x), spot(options_.marks[to].x)));
  }
  for (const TriangleMark& mark : options_.marks) {
    panel_.callouts.push_back({spot(mark.x), mark.text, Mark::circle});
    if (!options_.guide_lines) continue;
    // A line of constant fraction of each substance, to the side where its number stands.
    const std::vector<double> f = options_.basis == Basis::mole
                                      ? std::vector<double>(mark.x.begin(), mark.x.end())
                                      : mass_fractions(mark.x, substances_);
    for (std::size_t k = 0; k < 3; ++k) {
      std::array<double, 3> end{};
      end[options_.triangle.corners[k]] = f[options_.triangle.corners[k]];
      end[options_.triangle.corners[(k + 2) % 3]] = 1 - f[options_.triangle.corners[k]];
      panel_.guides.push_back(straight(looks::guide, corners_.at(f), corners_.at(end)));
    }
  }
}

std::string TriangleDrawer::footer() const {
  return fmt::format("{} fractions; {}", options_.basis == Basis::mole ? "mole" : "mass", triangle_note);
}

}  // namespace jampot
