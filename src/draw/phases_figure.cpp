#include "jampot/draw/phases_figure.hpp"

#include <fmt/format.h>

namespace jampot {
namespace {

// A bare panel: one unit is as long in y as in x, and a bar is one unit long.
constexpr double bar_height = 0.07, row_height = 0.115, narrowest_with_number = 0.06;

std::vector<Spot> rectangle(double left, double bottom, double right, double top) {
  return {{left, bottom}, {right, bottom}, {right, top}, {left, top}, {left, bottom}};
}

void add_bar(const PhaseBar& bar, double bottom, Panel& panel) {
  double left = 0;
  for (std::size_t i = 0; i < bar.fractions.size(); ++i) {
    const double right = left + bar.fractions[i];
    const auto colour = static_cast<int>(i % 8);
    panel.areas.push_back({rectangle(left, bottom, right, bottom + bar_height), colour});
    panel.guides.push_back(
        {rectangle(left, bottom, right, bottom + bar_height), "", Stroke::solid, Mark::none, colour, 1.4});
    if (bar.fractions[i] > narrowest_with_number)
      panel.texts.push_back(
          {{(left + right) / 2, bottom + bar_height / 2}, fmt::format("{:.4f}", bar.fractions[i])});
    left = right;
  }
  panel.texts.push_back({{-0.015, bottom + 0.65 * bar_height}, bar.name, FixedText::Align::right, false});
  panel.texts.push_back({{-0.015, bottom + 0.2 * bar_height},
                         fmt::format("{:.4g} % of the whole", 100 * bar.amount),
                         FixedText::Align::right});
}

}  // namespace

Figure phases_figure(const std::vector<PhaseBar>& bars, const std::vector<Substance>& substances,
                     Basis basis) {
  Panel panel;
  panel.bare = true;
  double top = 0;
  for (const PhaseBar& bar : bars) {
    top -= row_height;
    add_bar(bar, top, panel);
  }
  // The colours with their names below, in lines as wide as the bars.
  double left = 0, line = top - 0.6 * row_height;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const std::string& name = substances[i].name;
    const double width = 0.06 + 0.0095 * static_cast<double>(name.size());
    if (left > 0 && left + width > 1.05) {
      left = 0;
      line -= 0.045;
    }
    const auto colour = static_cast<int>(i % 8);
    panel.areas.push_back({rectangle(left, line, left + 0.025, line + 0.025), colour});
    panel.guides.push_back(
        {rectangle(left, line, left + 0.025, line + 0.025), "", Stroke::solid, Mark::none, colour, 1.4});
    panel.texts.push_back({{left + 0.035, line + 0.0125}, name, FixedText::Align::left, false});
    left += width;
  }
  panel.texts.push_back({{0.5, line - 0.05},
                         fmt::format("{} fractions", basis == Basis::mole ? "mole" : "mass"),
                         FixedText::Align::centre});
  panel.x = {"", -0.33, 1.03};
  panel.y = {"", line - 0.08, 0.03};
  Figure figure;
  figure.panels = {std::move(panel)};
  return figure;
}

}  // namespace jampot
