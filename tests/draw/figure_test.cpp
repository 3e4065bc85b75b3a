#include "jampot/draw/figure.hpp"

#include <gtest/gtest.h>

#include "clear_labels.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/draw/layout.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/text_file.hpp"
#include "support.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

TEST(Layout, LabelsStandClear) {
  Mixture mixture = test::mtbe_methanol();
  FigureOptions options;
  options.measured = {read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv")};
  test::expect_clear(boiling_figure({txy(mixture, 101325)}, mixture, options));
  test::expect_clear(xy_figure({txy(mixture, 101325)}, mixture, options));
  std::vector<BinaryCurve> several;
  for (const double P : {5e4, 1e5, 2e5, 4e5}) several.push_back(txy(mixture, P));
  test::expect_clear(boiling_figure(several, mixture, {}));
  Mixture splitting = test::butanol_water();
  test::expect_clear(boiling_figure({txy(splitting, 50000), txy(splitting, 101325)}, splitting, {}));
  test::expect_clear(boiling_figure({pxy(splitting, 350)}, splitting, {}));
  test::expect_clear(xy_figure({txy(splitting, 101325)}, splitting, {}));
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

// A footer longer than the figure is wide takes two lines and ends in dots, never in half a character.
// As where three models are compared at one state: a line of one point would be an empty figure.
TEST(Draw, ACurveOfOnePointIsAMark) {
  const auto marks_in = [](std::vector<Spot> spots) {
    Figure figure;
    figure.title = "one state";
    Panel panel;
    panel.x = rounded_axis("T", 300, 310);
    panel.y = rounded_axis("vapour fraction", 0, 1);
    panel.series.push_back({std::move(spots), "model"});
    figure.panels.push_back(panel);
    const fs::path file = fs::temp_directory_path() / "jampot-one-point.svg";
    draw(figure, file);
    const std::string svg = read_file(file);
    fs::remove(file);
    int marks = 0;
    for (std::size_t at = svg.find("<use "); at != std::string::npos; at = svg.find("<use ", at + 1)) ++marks;
    return marks;
  };
  EXPECT_GT(marks_in({{305, 0.5}}), marks_in({{302, 0.2}, {308, 0.8}}));
}

TEST(Draw, ALongFooterEndsInDots) {
  Mixture mixture = test::mtbe_methanol();
  Figure figure = boiling_figure({txy(mixture, 101325)}, mixture, {});
  for (const std::size_t letters : {80u, 150u, 151u, 400u, 401u}) {
    figure.footer = "a";
    for (std::size_t k = 0; k < letters; ++k) figure.footer += k % 9 == 8 ? " " : "\xC3\xA4";
    const fs::path file = fs::temp_directory_path() / "jampot-long-footer.svg";
    draw(figure, file);
    const std::string svg = read_file(file);
    EXPECT_EQ(readable(svg, Lines::several), svg) << letters;
    EXPECT_EQ(svg.find("...") != std::string::npos, letters >= 400) << letters;
    fs::remove(file);
  }
}

}  // namespace
}  // namespace jampot
