// Figures of answers: what is drawn is what the study found.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "clear_labels.hpp"
#include "jampot/report/azeotropes.hpp"
#include "jampot/report/extract.hpp"
#include "jampot/report/fugacity.hpp"
#include "jampot/report/split.hpp"
#include "support.hpp"

namespace jampot {
namespace {

MixtureSpec unifac_of(const std::vector<std::string>& names) {
  MixtureSpec spec;
  spec.substances = substances_named(names);
  spec.liquid = "unifac";
  return spec;
}

// The point at which two lines meet.
Spot crossing(const Series& a, const Series& b) {
  const Spot p = a.spots.front(), q = b.spots.front();
  const double ux = a.spots.back().x - p.x, uy = a.spots.back().y - p.y, vx = b.spots.back().x - q.x,
               vy = b.spots.back().y - q.y;
  const double t = ((q.x - p.x) * vy - (q.y - p.y) * vx) / (ux * vy - uy * vx);
  return {p.x + t * ux, p.y + t * uy};
}

TEST(SplitFigures, ABarForTheFeedAndForEachLiquid) {
  SplitRequest request;
  request.mixture = unifac_of({"ethyl acetate", "water"});
  request.feed = feed_of_moles({0.4, 0.6});
  request.T_K = {298.15};
  const Answer one = answer(study(request));
  ASSERT_TRUE(one.figure);
  const Panel& bars = one.figure->panels.front();
  const auto written = [&](const std::string& text) {
    return std::any_of(bars.texts.begin(), bars.texts.end(),
                       [&](const FixedText& one_text) { return one_text.text == text; });
  };
  EXPECT_TRUE(written("feed"));
  EXPECT_TRUE(written("rich in ethyl acetate"));
  EXPECT_TRUE(written("rich in water"));
  EXPECT_TRUE(written("0.4000"));
  EXPECT_TRUE(written("mole fractions"));
}

// Over a range: the fraction of each substance that goes into the first liquid, as the table has it.
TEST(SplitFigures, OverTemperatureTheSharesOfTheTable) {
  SplitRequest request;
  request.mixture = unifac_of({"ethyl acetate", "ethanol", "water"});
  request.feed = feed_of_moles({0.3, 0.02, 0.68});
  for (double T_K = 290; T_K <= 330; T_K += 5) request.T_K.push_back(T_K);
  const SplitStudy found = study(request);
  const Answer told = answer(found);
  ASSERT_TRUE(told.figure);
  const Panel& panel = told.figure->panels.front();
  ASSERT_EQ(panel.series.size(), 3u);
  for (std::size_t i = 0; i < 3; ++i) {
    ASSERT_EQ(panel.series[i].spots.size(), found.cases.size());
    for (std::size_t k = 0; k < found.cases.size(); ++k) {
      const DecantedLiquid& liquid = found.cases[k].result.liquids.front();
      EXPECT_NEAR(panel.series[i].spots[k].y, liquid.n * liquid.x[i] / found.feed.n[i], 1e-12);
      EXPECT_LE(panel.series[i].spots[k].y, 1);
    }
  }
  test::expect_clear(*told.figure);
}

TEST(FugacityFigures, PhasesAreCurvesOfTheirOwn) {
  FugacityRequest request;
  request.substances = substances_named({"propane", "n-hexane"});
  request.equations = {"pr", "srk"};
  request.T_K = {353.15};
  for (double P_Pa = 1e5; P_Pa < 3e6; P_Pa += 5e4) request.P_Pa.push_back(P_Pa);
  request.compositions = {{0.4, 0.6}};
  const FugacityStudy found = study(request);
  const Answer told = answer(found);
  ASSERT_TRUE(told.figure);
  ASSERT_EQ(told.figure->panels.size(), 2u);
  const Panel& phi = told.figure->panels[0];
  ASSERT_EQ(phi.series.size(), 8u);  // two substances, two equations, vapour and liquid
  std::size_t spots = 0, labelled = 0;
  for (const Series& series : phi.series) {
    spots += series.spots.size();
    labelled += !series.label.empty();
    for (std::size_t k = 1; k < series.spots.size(); ++k) {  // no jump inside a curve
      EXPECT_GT(series.spots[k].x, series.spots[k - 1].x);
      EXPECT_LT(std::abs(std::log(series.spots[k].y / series.spots[k - 1].y)), 0.5);
    }
  }
  EXPECT_EQ(spots, 4 * request.P_Pa.size());
  EXPECT_EQ(labelled, 4u);
  test::expect_clear(*told.figure);
  // One state is no curve.
  request.P_Pa = {1e5};
  const Answer single = answer(study(request));
  EXPECT_FALSE(single.figure);
  EXPECT_NE(single.no_figure.find("several"), std::string::npos);
}

// Between the pressures asked for the azeotrope is followed: each point is one.
TEST(AzeotropeFigures, TheCurveAgainstPressureIsSmooth) {
  AzeotropesRequest request;
  request.mixture = unifac_of({"ethanol", "water"});
  request.P_Pa = {2e5, 5e4, 1e6};
  const AzeotropesStudy found = study(request);
  ASSERT_GT(found.between.size(), 40u);
  for (std::size_t k = 0; k < found.between.size(); k += 7) {
    const FollowedAzeotrope& one = found.between[k];
    Mixture mixture(substances_named({"ethanol", "water"}), "unifac", {});
    const SingularPoints searched = singular_points(mixture, one.P_Pa);
    const auto azeotrope = std::find_if(searched.points.begin(), searched.points.end(),
                                        [](const SingularPoint& p) { return p.members.size() == 2; });
    ASSERT_NE(azeotrope, searched.points.end());
    EXPECT_NEAR(one.point.x[0], azeotrope->x[0], 1e-7);
    EXPECT_NEAR(one.point.T_K, azeotrope->T_K, 1e-6);
  }
  const Answer told = answer(found);
  ASSERT_TRUE(told.figure);
  const auto& spots = told.figure->panels.front().series.front().spots;
  ASSERT_EQ(spots.size(), found.between.size() + 3);
  for (std::size_t k = 1; k < spots.size(); ++k) {
    EXPECT_GT(spots[k].x, spots[k - 1].x);
    EXPECT_LT(std::abs(spots[k].y - spots[k - 1].y), 0.01);
  }
}

// All operating lines run through one point, which is the difference point told in numbers.
TEST(ExtractFigures, OperatingLinesMeetInTheDifferencePoint) {
  ExtractRequest request;
  request.mixture = unifac_of({"acetic acid", "water", "ethyl acetate"});
  request.basis = Basis::mass;
  request.feed = feed_of_masses({0.2, 0.8, 0}, request.mixture.substances);
  request.raffinate = 0.02;
  int shown = 0, hinted = 0;
  for (const double solvent : {0.0, 1.2, 6.0}) {
    if (solvent > 0) request.solvent = solvent;
    const ExtractStudy found = study(request);
    const Answer told = answer(found);
    ASSERT_TRUE(told.figure);
    const double net = found.stages.net[0] + found.stages.net[1] + found.stages.net[2];
    const Triangle triangle{Triangle::Options{}};
    const Spot pole = triangle.at(
        std::vector<double>{found.stages.net[0] / net, found.stages.net[1] / net, found.stages.net[2] / net});
    const Panel& panel = told.figure->panels.front();
    const auto first = std::find_if(panel.series.begin(), panel.series.end(), [](const Series& series) {
      return series.label.find("operating lines") != std::string::npos;
    });
    ASSERT_NE(first, panel.series.end());
    const std::size_t lines = found.stages.stages.size() + 1;
    for (std::size_t n = 1; n < lines; ++n) {
      const Spot met = crossing(*first, first[static_cast<std::ptrdiff_t>(n)]);
      const double size = 1 + std::hypot(pole.x, pole.y);
      EXPECT_NEAR(met.x, pole.x, 2e-3 * size) << solvent << ", line " << n;
      EXPECT_NEAR(met.y, pole.y, 2e-3 * size) << solvent << ", line " << n;
    }
    const bool drawn = std::any_of(panel.callouts.begin(), panel.callouts.end(),
                                   [](const Callout& callout) { return callout.text == "difference point"; });
    (drawn ? shown : hinted) += 1;
    if (drawn) {
      EXPECT_TRUE(pole.x > panel.x.low && pole.x < panel.x.high && pole.y > panel.y.low &&
                  pole.y < panel.y.high);
    }
  }
  EXPECT_GT(shown, 0);
  EXPECT_GT(hinted, 0);
}

TEST(Axis, LogarithmicOnesEndNearTheValues) {
  for (const auto& [low, high] : {std::pair(0.013, 0.9), std::pair(3e-6, 7e-6), std::pair(1.0, 1.0),
                                  std::pair(1e3, 4.7e6), std::pair(0.05, 20.0)}) {
    const Axis axis = logarithmic_axis("K", low, high);
    EXPECT_TRUE(axis.logarithmic);
    EXPECT_LT(axis.low, low);
    EXPECT_GT(axis.high, high);
    EXPECT_GT(axis.low, low / 3);
    EXPECT_LT(axis.high, 3 * high);
  }
}

}  // namespace
}  // namespace jampot
