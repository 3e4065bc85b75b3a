#include "jampot/draw/figure.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/draw/layout.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/text_file.hpp"
#include "support.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

// No label on another, on the key, on a curve, on a marked point or outside the frame.
void expect_clear(const Figure& figure) {
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

TEST(Layout, LabelsStandClear) {
  Mixture mixture = test::mtbe_methanol();
  FigureOptions options;
  options.measured = {read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv")};
  expect_clear(boiling_figure({txy(mixture, 101325)}, mixture, options));
  expect_clear(xy_figure({txy(mixture, 101325)}, mixture, options));
  std::vector<BinaryCurve> several;
  for (const double P : {5e4, 1e5, 2e5, 4e5}) several.push_back(txy(mixture, P));
  expect_clear(boiling_figure(several, mixture, {}));
  Mixture splitting = test::butanol_water();
  expect_clear(boiling_figure({txy(splitting, 50000), txy(splitting, 101325)}, splitting, {}));
  expect_clear(boiling_figure({pxy(splitting, 350)}, splitting, {}));
  expect_clear(xy_figure({txy(splitting, 101325)}, splitting, {}));
}

TEST(Layout, SegmentsAndBoxes) {
  const Box box{10, 10, 20, 20};
  EXPECT_TRUE(crosses(box, 0, 15, 30, 15));
  EXPECT_TRUE(crosses(box, 12, 12, 13, 13));
  EXPECT_FALSE(crosses(box, 0, 0, 30, 5));
  EXPECT_FALSE(crosses(box, 0, 25, 25, 40));
  EXPECT_FALSE(crosses(box, 5, 0, 5, 30));
}

TEST(Axis, EndsOnRoundNumbersAndHoldsTheValues) {
  for (const auto& [low, high] :
       {std::pair(51.3, 64.5), std::pair(0.001, 0.9), std::pair(95000.0, 160000.0)}) {
    const Axis axis = rounded_axis("T", low, high);
    EXPECT_LE(axis.low, low);
    EXPECT_GE(axis.high, high);
    EXPECT_GE(axis.low, 0);
    EXPECT_LT(axis.high - axis.low, 1.6 * (high - low));
  }
  const Axis flat = rounded_axis("T", 5, 5);
  EXPECT_LT(flat.low, 5);
  EXPECT_GT(flat.high, 5);
}

TEST(Draw, WritesEveryFormat) {
  Mixture mixture = test::mtbe_methanol();
  const Figure figure = boiling_figure({txy(mixture, 101325)}, mixture, {});
  const fs::path folder = fs::temp_directory_path() / "jampot-draw-test";
  fs::create_directories(folder);
  for (const auto& [name, beginning] :
       {std::pair("f.svg", "<?xml"), std::pair("f.png", "\x89PNG"), std::pair("f.pdf", "%PDF")}) {
    draw(figure, folder / name);
    EXPECT_TRUE(read_file(folder / name).starts_with(beginning)) << name;
  }
  const std::string svg = read_file(folder / "f.svg");
  EXPECT_NE(svg.find("azeotrope x = 0.6"), std::string::npos);
  EXPECT_NE(svg.find("methyl tert-butyl ether"), std::string::npos);
  draw(figure, folder / "again.svg");
  EXPECT_EQ(read_file(folder / "again.svg"), svg);
  EXPECT_THROW(draw(figure, folder / "f.gif"), RequestError);
  EXPECT_FALSE(fs::exists(folder / "f.gif"));
  fs::remove_all(folder);
}

}  // namespace
}  // namespace jampot
