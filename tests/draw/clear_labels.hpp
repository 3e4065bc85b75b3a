#pragma once
// Figure geometry: that labels stand clear.
#include <gtest/gtest.h>

#include <algorithm>
#include <array>

#include "jampot/draw/layout.hpp"

namespace jampot::test {

// No label on another, on the key, on a curve, on a marked point or outside the frame.
inline void expect_clear(const Figure& figure) {
  const auto layouts = lay_out(figure);
  for (std::size_t p = 0; p < layouts.size(); ++p) {
    const auto& [panel, layout] = std::tie(figure.panels[p], layouts[p]);
    for (std::size_t a = 0; a < layout.labels.size(); ++a) {
      const PlacedLabel& label = layout.labels[a];
      EXPECT_TRUE(layout.frame.contains(label.box)) << label.text;
      EXPECT_FALSE(layout.key.overlaps(label.box)) << label.text;
      for (std::size_t b = a + 1; b < layout.labels.size(); ++b) {
        EXPECT_FALSE(label.box.overlaps(layout.labels[b].box))
            << label.text << " on " << layout.labels[b].text;
      }
      const auto leader = [](const PlacedLabel& one) {
        return std::array{one.anchor_x, one.anchor_y, std::clamp(one.anchor_x, one.box.left, one.box.right),
                          std::clamp(one.anchor_y, one.box.top, one.box.bottom)};
      };
      for (std::size_t b = a + 1; label.leader && b < layout.labels.size(); ++b) {
        if (!layout.labels[b].leader) continue;
        const auto [ax, ay, bx, by] = leader(label);
        const auto [cx, cy, dx, dy] = leader(layout.labels[b]);
        const auto side = [](double x1, double y1, double x2, double y2, double x, double y) {
          return (x2 - x1) * (y - y1) - (y2 - y1) * (x - x1);
        };
        EXPECT_FALSE(side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 &&
                     side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0)
            << label.text << " across " << layout.labels[b].text;
      }
      for (const Series& series : panel.series) {
        for (std::size_t k = 1; k < series.spots.size() && series.stroke != Stroke::none; ++k) {
          EXPECT_FALSE(crosses(label.box, pixel_x(panel, layout.frame, series.spots[k - 1].x),
                               pixel_y(panel, layout.frame, series.spots[k - 1].y),
                               pixel_x(panel, layout.frame, series.spots[k].x),
                               pixel_y(panel, layout.frame, series.spots[k].y)))
              << label.text;
        }
        for (const Spot& spot : series.spots) {
          if (series.mark == Mark::none) continue;
          const double x = pixel_x(panel, layout.frame, spot.x), y = pixel_y(panel, layout.frame, spot.y);
          EXPECT_FALSE(label.box.overlaps({x - 5, y - 5, x + 5, y + 5})) << label.text;
        }
      }
    }
    EXPECT_EQ(
        std::count_if(layout.labels.begin(), layout.labels.end(), [](const auto& l) { return l.colour < 0; }),
        static_cast<std::ptrdiff_t>(panel.callouts.size()));
  }
}

}  // namespace jampot::test
