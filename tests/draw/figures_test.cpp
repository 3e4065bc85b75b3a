// Figures of every kind as geometry: what is in them, where it stands, and that labels stand clear.
#include <gtest/gtest.h>
#include <unistd.h>

#include <cmath>

#include "clear_labels.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/fit_figures.hpp"
#include "jampot/draw/gamma_figure.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/draw/solubility_figure.hpp"
#include "jampot/draw/substance_figure.hpp"
#include "jampot/draw/ternary_figure.hpp"
#include "jampot/draw/triangle.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/draw/window.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/regression/fit.hpp"
#include "support.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

TEST(Triangles, CornersAndMiddleStandWhereTheyShould) {
  for (const bool right_angled : {false, true}) {
    Triangle::Options options;
    options.right_angled = right_angled;
    const Triangle triangle(options);
    const Spot top = triangle.at(std::vector<double>{1, 0, 0}),
               left = triangle.at(std::vector<double>{0, 1, 0}),
               right = triangle.at(std::vector<double>{0, 0, 1});
    const auto length = [](Spot a, Spot b) { return std::hypot(a.x - b.x, a.y - b.y); };
    EXPECT_NEAR(left.y, right.y, 1e-12);
    EXPECT_GT(top.y, left.y);
    EXPECT_LT(left.x, right.x);
    if (right_angled) {
      EXPECT_NEAR(top.x, left.x, 1e-12);
      EXPECT_NEAR(length(top, left), length(left, right), 1e-12);
    } else {
      EXPECT_NEAR(length(top, left), length(left, right), 1e-12);
      EXPECT_NEAR(length(top, right), length(left, right), 1e-12);
    }
    // Compositions are mixed where the straight line between them says.
    const Spot middle = triangle.at(std::vector<double>{0.25, 0.25, 0.5});
    EXPECT_NEAR(middle.x, 0.25 * top.x + 0.25 * left.x + 0.5 * right.x, 1e-12);
    EXPECT_NEAR(middle.y, 0.25 * top.y + 0.25 * left.y + 0.5 * right.y, 1e-12);
  }
}

TEST(Triangles, WhoStandsWhereIsChosen) {
  Triangle::Options options;
  options.corners = {2, 0, 1};
  const Triangle chosen(options), usual(Triangle::Options{});
  const Spot third = chosen.at(std::vector<double>{0, 0, 1}), top = usual.at(std::vector<double>{1, 0, 0});
  EXPECT_NEAR(third.x, top.x, 1e-12);
  EXPECT_NEAR(third.y, top.y, 1e-12);
  const Panel panel = chosen.panel({"A", "B", "C"});
  EXPECT_EQ(panel.corners[0], "C");
  EXPECT_TRUE(panel.bare);
  EXPECT_FALSE(panel.guides.empty());
}

// What one figure sets must not show in the next one.
TEST(Figures, DrawnTogetherAreThoseDrawnAlone) {
  Figure plain, logarithmic, triangle, two;
  plain.title = "a <plain> one";
  plain.panels.resize(1);
  plain.panels[0].x = {"x", 0, 1};
  plain.panels[0].y = {"y", 0, 2};
  Series line;
  line.label = "line";
  line.in_key = true;
  for (double x = 0; x <= 1; x += 0.1) line.spots.push_back({x, 1 + x * x / 2});
  plain.panels[0].series.push_back(line);
  logarithmic = plain;
  logarithmic.notices = {"a-notice"};
  logarithmic.panels[0].y = {"y", 0.5, 3, true};
  logarithmic.panels[0].texts.push_back({{0.2, 2}, "written"});
  triangle.title = "triangle";
  triangle.width = 900;
  triangle.panels.push_back(Triangle(Triangle::Options{}).panel({"A", "B", "C"}));
  two = plain;
  two.columns = 2;
  two.panels.push_back(logarithmic.panels[0]);
  const std::vector<const Figure*> all{&logarithmic, &triangle, &plain, &two, &triangle, &logarithmic};
  const std::vector<std::string> together = drawn_together(all);
  ASSERT_EQ(together.size(), all.size());
  for (std::size_t k = 0; k < all.size(); ++k) EXPECT_EQ(together[k], drawn(*all[k], ".svg")) << k;
  EXPECT_TRUE(drawn_together({}).empty());
}

TEST(Windows, CutCurvesAtTheFrame) {
  Panel panel;
  panel.x = {"x", 0, 1};
  panel.y = {"y", 0, 10};
  panel.series.push_back({{{0, 0}, {1, 10}}, "line"});
  panel.series.push_back({{{0.1, 1}, {0.5, 5}, {0.9, 9}}, "points", Stroke::none, Mark::circle});
  panel.callouts.push_back({{0.5, 5}, "inside"});
  panel.callouts.push_back({{0.95, 9.5}, "outside"});
  Window window;
  window.x = {0.25, 0.75};
  window.y = {2.0, 6.0};
  const Panel cut = windowed(panel, window);
  EXPECT_DOUBLE_EQ(cut.x.low, 0.25);
  EXPECT_DOUBLE_EQ(cut.y.high, 6.0);
  for (const Series& series : cut.series) {
    for (const Spot& spot : series.spots) {
      EXPECT_GE(spot.x, 0.25 - 1e-9);
      EXPECT_LE(spot.x, 0.75 + 1e-9);
      EXPECT_GE(spot.y, 2 - 1e-9);
      EXPECT_LE(spot.y, 6 + 1e-9);
    }
  }
  ASSERT_EQ(cut.callouts.size(), 1u);
  EXPECT_EQ(cut.callouts[0].text, "inside");
  // The line enters through the left side at 2.5 and leaves through the top at 6.
  bool enters = false, leaves = false;
  for (const Series& series : cut.series) {
    if (series.label != "line") continue;
    for (const Spot& spot : series.spots) {
      enters = enters || (std::abs(spot.x - 0.25) < 1e-9 && std::abs(spot.y - 2.5) < 1e-9);
      leaves = leaves || (std::abs(spot.x - 0.6) < 1e-9 && std::abs(spot.y - 6) < 1e-9);
    }
  }
  EXPECT_TRUE(enters);
  EXPECT_TRUE(leaves);
}

TEST(Colours, AreToldApart) {
  const auto channel = [](const std::string& colour, std::size_t k) {
    return std::stoi(colour.substr(1 + 2 * k, 2), nullptr, 16);
  };
  for (int a = 0; a < 8; ++a) {
    ASSERT_EQ(palette(a).size(), 7u);
    for (int b = a + 1; b < 8; ++b) {
      int apart = 0;
      for (std::size_t k = 0; k < 3; ++k) apart += std::abs(channel(palette(a), k) - channel(palette(b), k));
      EXPECT_GT(apart, 60) << palette(a) << " " << palette(b);
    }
    // Dark enough on white: relative luminance under that of mid grey.
    const double light = (0.2126 * channel(palette(a), 0) + 0.7152 * channel(palette(a), 1) +
                          0.0722 * channel(palette(a), 2)) /
                         255;
    EXPECT_LT(light, 0.62) << palette(a);
  }
}

TEST(Units, ArePrintedAsInPrint) {
  EXPECT_EQ(printed_unit("degC"), "\u00b0C");
  EXPECT_EQ(printed_unit("kPa"), "kPa");
}

TEST(GammaFigures, MeasuredPointsWidenTheAxes) {
  Mixture mixture = test::mtbe_methanol();
  const std::vector<GammaCurve> curves{{"", gamma_line(mixture.activity(), 320, 31)}};
  Panel panel = gamma_panel(curves, mixture.substances());
  ASSERT_EQ(panel.series.size(), 2u);
  EXPECT_FALSE(panel.y.logarithmic);
  const double high = panel.y.high;
  add_measured(panel,
               {{"MTBE, still.csv", {{0.01, high + 1}, {0.5, 1.5}}}, {"methanol, still.csv", {{0.9, 2}}}});
  ASSERT_EQ(panel.series.size(), 4u);
  EXPECT_GT(panel.y.high, high + 1 - 1e-9);
  EXPECT_EQ(panel.y.label, "activity coefficient");
  EXPECT_EQ(panel.x.low, 0);
  EXPECT_EQ(panel.x.high, 1);
  for (std::size_t k = 2; k < 4; ++k) {
    EXPECT_TRUE(panel.series[k].in_key);
    EXPECT_EQ(panel.series[k].stroke, Stroke::none);
    EXPECT_NE(panel.series[k].mark, Mark::none);
  }
  EXPECT_NE(panel.series[2].mark, panel.series[3].mark);
}

TEST(GammaFigures, LimitsOverADecadeAreLogarithmic) {
  DisplayUnits units;
  Panel panel = limiting_panel({{"hexane in water", {{300, std::log(4e5)}, {340, std::log(2e5)}}},
                                {"ethanol in water", {{300, std::log(4.0)}, {340, std::log(5.0)}}}},
                               units);
  EXPECT_TRUE(panel.y.logarithmic);
  EXPECT_LE(panel.y.low, 4);
  EXPECT_GE(panel.y.high, 4e5);
  EXPECT_NEAR(panel.x.low, 26.85, 10);
  add_measured(panel, {{"ethanol in water, limits.csv", {{10, 3}, {80, 6}}}});
  EXPECT_LE(panel.x.low, 10);
  EXPECT_GE(panel.x.high, 80);
  EXPECT_EQ(panel.y.label, "limiting activity coefficient");
}

TEST(EveryFigure, HasAxesATitleAndClearLabels) {
  std::vector<Figure> figures;
  const Substance ethanol = Bank::built_in().require("ethanol"), water = Bank::built_in().require("water");
  std::vector<SaturationPoint> boiling;
  for (double T = 280; T < 500; T += 10) boiling.push_back(saturation_at_temperature(ethanol, T));
  for (const SaturationAxes axes : {SaturationAxes::log_P_against_inverse_T, SaturationAxes::P_against_T})
    figures.push_back(saturation_figure(ethanol, boiling, axes, {}));
  figures.push_back(substance_comparison_figure(ethanol, water, {}));
  Mixture butanol = test::butanol_water();
  std::vector<double> T;
  for (double t = 280; t < 360; t += 5) T.push_back(t);
  for (const bool logarithmic : {false, true}) {
    for (const Basis basis : {Basis::mole, Basis::mass}) {
      SolubilityFigureOptions options;
      options.basis = basis;
      options.logarithmic = logarithmic;
      figures.push_back(
          solubility_figure({{"", solubility(butanol.activity(), T)}}, butanol.substances(), options));
    }
  }
  const Fit fitted = fit({read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv")});
  for (const char* picture :
       {"composition", "temperature", "pressure", "order", "normal", "parity", "parameters"})
    figures.push_back(fit_figure(fitted, parse_fit_picture(picture)));
  for (const FitPicture picture : {FitPicture::composition, FitPicture::normal, FitPicture::parity})
    EXPECT_NE(fit_figure(fitted, picture).footer.find("; 30 points"), std::string::npos);
  EXPECT_THROW(parse_fit_picture("pie"), RequestError);
  for (const Figure& figure : figures) {
    EXPECT_FALSE(figure.title.empty());
    for (const Panel& panel : figure.panels) {
      EXPECT_FALSE(panel.x.label.empty()) << figure.title;
      EXPECT_FALSE(panel.y.label.empty()) << figure.title;
      EXPECT_LT(panel.x.low, panel.x.high) << figure.title;
      EXPECT_LT(panel.y.low, panel.y.high) << figure.title;
      for (const Series& series : panel.series) {
        for (const Spot& spot : series.spots)
          EXPECT_TRUE(std::isfinite(spot.x) && std::isfinite(spot.y)) << figure.title;
      }
    }
    test::expect_clear(figure);
  }
}

TEST(EveryFigure, OfTwoLiquidsInATriangleIsClear) {
  const auto substances = substances_named({"water", "ethanol", "ethyl acetate"});
  Mixture mixture(substances, "unifac-lle", {});
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), 298.15);
  for (const bool right_angled : {false, true}) {
    for (const Basis basis : {Basis::mole, Basis::mass}) {
      TernaryFigureOptions options;
      options.basis = basis;
      options.triangle.right_angled = right_angled;
      options.marks = {{"feed", {0.7, 0.1, 0.2}}, {"solvent", {0.05, 0.05, 0.9}}};
      options.balance_lines = {{0, 1}};
      test::expect_clear(ternary_figure({{"", diagram}}, substances, options));
    }
  }
  for (const std::string& layer : ternary_layers()) {
    TernaryFigureOptions options;
    options.hidden = {layer};
    EXPECT_FALSE(ternary_figure({{"", diagram}}, substances, options).panels.empty()) << layer;
  }
}

// A report of headings, texts, a table and a notice.
Report sample_report() {
  Report report("A <report> & more");
  report.heading("First");
  report.text("A sentence.");
  report.notice({"misfit", "the fit does not describe the data"});
  report.heading("Second");
  report.table({"Numbers",
                {{"name"}, {"T", Dimension::temperature, 2}},
                {{"a | b", 300.0}, {"<c>", std::monostate()}}});
  report.heading("Third");
  report.notice({"one", "first"});
  report.notice({"two", "second"});
  return report;
}

class ReportFile : public testing::Test {
 protected:
  ReportFile() : folder_(fs::temp_directory_path() / ("jampot-report-test-" + std::to_string(getpid()))) {
    fs::create_directories(folder_);
  }
  ~ReportFile() override { fs::remove_all(folder_); }
  std::string written(const std::string& name) const {
    sample_report().write(folder_ / name, {});
    return read_file(folder_ / name);
  }
  fs::path folder_;
};

TEST_F(ReportFile, ThePageBeginsWithWhatThereIs) {
  const std::string page = written("page.html");
  EXPECT_NE(page.find("A &lt;report&gt; &amp; more"), std::string::npos);
  const std::size_t contents = page.find("<nav>"), first = page.find("<h2 id=\"part-1\">First</h2>");
  ASSERT_NE(contents, std::string::npos);
  ASSERT_NE(first, std::string::npos);
  EXPECT_LT(contents, first);
  EXPECT_NE(page.find("<a href=\"#part-1\">First</a> <span class=\"doubts\">1 notice</span>"),
            std::string::npos);
  EXPECT_NE(page.find("<a href=\"#part-2\">Second</a></li>"), std::string::npos);
  EXPECT_NE(page.find("<a href=\"#part-3\">Third</a> <span class=\"doubts\">2 notices</span>"),
            std::string::npos);
  EXPECT_NE(page.find("<p class=\"notice\">notice (misfit)"), std::string::npos);
  EXPECT_NE(page.find("<th class=\"number\">T [degC]</th>"), std::string::npos);
  EXPECT_NE(page.find("<td class=\"number\">26.85</td>"), std::string::npos);
  EXPECT_NE(page.find("&lt;c&gt;"), std::string::npos);
}

TEST_F(ReportFile, MarkdownKeepsItsTablesWhole) {
  const std::string page = written("page.md");
  EXPECT_NE(page.find("| a \\| b | 26.85 |"), std::string::npos) << page;
  EXPECT_NE(page.find("|---|---:|"), std::string::npos);
  EXPECT_NE(page.find("> notice (misfit)"), std::string::npos);
  EXPECT_NE(page.find("## Second"), std::string::npos);
}

TEST_F(ReportFile, AnotherEndingIsRefused) {
  EXPECT_THROW(sample_report().write(folder_ / "page.docx", {}), RequestError);
  EXPECT_FALSE(fs::exists(folder_ / "page.docx"));
}

}  // namespace
}  // namespace jampot
