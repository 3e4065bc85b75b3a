#include "jampot/draw/screen_figure.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/draw/looks.hpp"

namespace jampot {
Figure screen_figure(const std::vector<ScreenedSpot>& spots, const std::string& capacity,
                     const std::string& selectivity, std::size_t named) {
  Figure figure;
  Panel panel;
  double left = HUGE_VAL, right = 0, low = HUGE_VAL, high = 0;
  Series others = symbols(Mark::circle, colours::frame, "candidates"),
         front = symbols(Mark::diamond, colours::vapour, "no other has more of both"),
         doubted = symbols(Mark::cross, colours::frame, "may mix with the second in all proportions");
  others.in_key = front.in_key = doubted.in_key = true;
  std::vector<Spot> best;
  std::size_t written = 0;
  for (const ScreenedSpot& spot : spots) {
    if (!(spot.capacity > 0) || !(spot.selectivity > 0)) continue;
    left = std::min(left, spot.capacity);
    right = std::max(right, spot.capacity);
    low = std::min(low, spot.selectivity);
    high = std::max(high, spot.selectivity);
    const Spot at{spot.capacity, spot.selectivity};
    (spot.on_front ? front : spot.doubted ? doubted : others).spots.push_back(at);
    if (spot.on_front) best.push_back(at);
    if (spot.on_front || written < named) {
      panel.callouts.push_back({at, spot.name});
      ++written;
    }
  }
  std::sort(best.begin(), best.end(), [](const Spot& a, const Spot& b) { return a.x < b.x; });
  if (best.size() > 1) panel.series.push_back({best, "", Stroke::dashed, Mark::none, colours::vapour, 1.2});
  if (!others.spots.empty()) panel.series.push_back(std::move(others));
  if (!front.spots.empty()) panel.series.push_back(std::move(front));
  if (!doubted.spots.empty()) panel.series.push_back(std::move(doubted));
  panel.x = logarithmic_axis(capacity, left, right);
  panel.y = logarithmic_axis(selectivity, low, high);
  figure.panels = {panel};
  return figure;
}

}  // namespace jampot
