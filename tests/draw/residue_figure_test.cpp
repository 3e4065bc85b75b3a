// Residue curve maps as figures: every label clear, layers that come and go.
#include "jampot/draw/residue_figure.hpp"

#include <set>

#include "clear_labels.hpp"
#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

struct Case {
  const char* a;
  const char* b;
  const char* c;
  std::size_t singular;
};

class ResidueFigure : public ::testing::TestWithParam<Case> {};

// The temperatures of up to seven singular points, marks and isotherms, among 25 and 60 curves.
TEST_P(ResidueFigure, LabelsStandClear) {
  const auto substances = substances_named({GetParam().a, GetParam().b, GetParam().c});
  Mixture mixture(substances, "unifac", {});
  for (const int curves : {25, 60}) {
    const ResidueMap map = residue_map(mixture, standard_atmosphere, {curves, {{0.2, 0.3, 0.5}}});
    EXPECT_EQ(map.singular.points.size(), GetParam().singular);
    for (const Basis basis : {Basis::mole, Basis::mass}) {
      for (const bool right_angled : {false, true}) {
        ResidueFigureOptions options;
        options.basis = basis;
        options.triangle.right_angled = right_angled;
        options.marks = {{"feed", {0.3, 0.3, 0.4}}};
        const Figure figure = residue_figure(map, substances, options);
        test::expect_clear(figure);
        for (const PanelLayout& layout : lay_out(figure)) {
          for (const PlacedLabel& label : layout.labels) {
            for (const Arrow& arrow : figure.panels[0].arrows) {
              const double x = pixel_x(figure.panels[0], layout.frame, arrow.to.x),
                           y = pixel_y(figure.panels[0], layout.frame, arrow.to.y);
              EXPECT_FALSE(label.box.overlaps({x - 3, y - 3, x + 3, y + 3})) << label.text;
            }
          }
        }
      }
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Topologies, ResidueFigure,
                         ::testing::Values(Case{"acetone", "chloroform", "methanol", 7},
                                           Case{"ethanol", "benzene", "water", 7},
                                           Case{"1-butanol", "n-butyl acetate", "water", 7},
                                           Case{"methanol", "ethanol", "water", 4},
                                           Case{"benzene", "toluene", "ethylbenzene", 3}));

TEST(ResidueFigureLayers, AreShownAndHidden) {
  const auto substances = substances_named({"ethanol", "benzene", "water"});
  Mixture mixture(substances, "unifac", {});
  const ResidueMap map = residue_map(mixture, standard_atmosphere);
  ResidueFigureOptions options;
  options.isotherms = isotherms(mixture, standard_atmosphere, map.two_liquids, {345, 350});
  const auto parts = [&](const std::set<std::string>& hidden) {
    ResidueFigureOptions less = options;
    less.hidden = hidden;
    const Panel panel = residue_figure(map, substances, less).panels[0];
    return std::array{panel.series.size(), panel.arrows.size(), panel.areas.size(), panel.callouts.size(),
                      panel.texts.size()};
  };
  const auto all = parts({});
  EXPECT_EQ(parts({"curves"})[0], all[0] - 25);
  EXPECT_EQ(parts({"arrows"})[1], 0u);
  EXPECT_EQ(parts({"regions"})[2], 1u);  // the two liquids
  EXPECT_EQ(parts({"temperatures"})[3], 0u);
  EXPECT_EQ(parts({"tie-lines"})[0], all[0] - 12);
  EXPECT_EQ(parts({"vapour-line"})[0], all[0] - 1);
  EXPECT_EQ(parts({"nodes"})[0], all[0] - 3);
  EXPECT_LT(parts({"numbers"})[4], all[4]);
  EXPECT_LT(parts({"isotherms"})[0], all[0]);
  EXPECT_EQ(parts({"boundaries"})[0], all[0] - map.separatrices.size());
}

}  // namespace
}  // namespace jampot
