// Sequences read off residue curve maps: textbook cases, balances from outside, what is said where there is
// none.
#include "jampot/study/route.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "support.hpp"

namespace jampot {
namespace {

RouteStudy routed(const std::vector<std::string>& names, const std::vector<double>& z,
                  const std::string& liquid = {}, std::optional<double> decanter_T_K = std::nullopt) {
  RouteRequest request;
  request.mixture = mixture_of(names, liquid);
  request.feed.n = z;
  request.decanter_T_K = decanter_T_K;
  request.curves = 0;
  return study(request);
}

// Balances of every unit and of the whole, that streams arrive where they are sent, and that products are
// pure. Written from the streams alone.
void expect_balances(const Route& route, const std::array<double, 3>& z) {
  std::vector<std::array<double, 3>> in(route.units.size());
  std::array<double, 3> made{};
  double back = 0;
  in[0] = z;
  for (std::size_t k = 0; k < route.units.size(); ++k) {
    const RouteUnit& unit = route.units[k];
    for (const RouteStream& out : unit.out) {
      for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_GE(out.n[i], -1e-12);
        if (out.to.kind != StreamEnd::Kind::product) in[out.to.number][i] += out.n[i];
      }
      if (out.to.kind == StreamEnd::Kind::product) {
        EXPECT_NEAR(out.x()[out.to.number], 1, 1e-6);
        made[out.to.number] += out.total();
      } else if (out.to.kind == StreamEnd::Kind::unit) {
        EXPECT_GT(out.to.number, k);
      } else {
        EXPECT_LE(out.to.number, k);
        back += out.total();
      }
    }
    if (unit.decanter) continue;
    EXPECT_LE(unit.out[0].T_K, unit.out[1].T_K + 1e-6);
  }
  for (std::size_t k = 0; k < route.units.size(); ++k) {
    for (std::size_t i = 0; i < 3; ++i) {
      EXPECT_NEAR(route.units[k].in[i], in[k][i], 1e-7);
      EXPECT_NEAR(route.units[k].in[i], route.units[k].out[0].n[i] + route.units[k].out[1].n[i], 1e-7);
    }
  }
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(made[i], z[i], 1e-6);
  EXPECT_NEAR(back, route.recycled, 1e-6);
}

TEST(Route, WithoutAzeotropesTheLightestOrTheHeaviestFirst) {
  std::mt19937_64 generator(11);
  for (int k = 0; k < 20; ++k) {
    const auto z = test::random_composition(generator, 3);
    const RouteStudy found = routed({"n-hexane", "n-heptane", "n-octane"}, z, "ideal");
    ASSERT_EQ(found.routes.size(), 2u);
    for (const Route& route : found.routes) {
      EXPECT_EQ(route.units.size(), 2u);
      EXPECT_EQ(route.recycled, 0);
      EXPECT_FALSE(route.relies_on_curvature());
      expect_balances(route, three(z));
    }
    // Direct and indirect: hexane leaves the first column alone, or octane does.
    const auto first_product = [](const Route& route) {
      for (const RouteStream& out : route.units[0].out)
        if (out.to.kind == StreamEnd::Kind::product) return out.to.number;
      return std::size_t{9};
    };
    EXPECT_EQ(first_product(found.routes[0]) + first_product(found.routes[1]), 2u);
    EXPECT_NE(first_product(found.routes[0]), first_product(found.routes[1]));
  }
}

// The drying of ethanol with benzene, of every textbook: ethanol below, a decanter, water below a second
// column.
TEST(Route, EthanolIsDriedWithBenzeneByTwoColumnsAndADecanter) {
  const RouteStudy found = routed({"ethanol", "water", "benzene"}, {0.85, 0.15, 0}, "unifac", 298.15);
  ASSERT_FALSE(found.routes.empty());
  const Route& route = found.routes.front();
  expect_balances(route, {0.85, 0.15, 0});
  ASSERT_EQ(route.units.size(), 3u);
  EXPECT_TRUE(route.units[1].decanter);
  EXPECT_FALSE(route.relies_on_curvature());
  EXPECT_GT(route.entrainer, 0);
  // Ethanol and water both leave at the bottom; the benzene-rich liquid goes back.
  EXPECT_EQ(route.units[0].out[1].to.kind, StreamEnd::Kind::product);
  EXPECT_EQ(route.units[0].out[1].to.number, 0u);
  EXPECT_EQ(route.units[2].out[1].to.number, 1u);
  // The two liquids are in equilibrium by the model itself.
  Mixture mixture = found.map.contenders.front().mixture;
  LiquidSplitter splitter(mixture.activity(), 298.15);
  const auto alpha = route.units[1].out[0].x(), beta = route.units[1].out[1].x();
  const auto a = splitter.ln_activities(alpha), b = splitter.ln_activities(beta);
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(a[i], b[i], 1e-6);
  EXPECT_EQ(found.sentences.size(), 3u);
}

// Acetone and chloroform with benzene go around their azeotrope of highest boiling point only because the
// boundary is curved.
TEST(Route, AcrossACurvedBoundaryIsSaid) {
  const RouteStudy found = routed({"acetone", "chloroform", "benzene"}, {0.5, 0.5, 0}, "unifac");
  ASSERT_FALSE(found.routes.empty());
  const Route& route = found.routes.front();
  expect_balances(route, {0.5, 0.5, 0});
  EXPECT_TRUE(route.relies_on_curvature());
  EXPECT_TRUE(found.notices.has("boundary-curvature"));
  // Seen from outside: the products of a column lie in one region or on its boundary, those of the flagged
  // column in another region than the products of the column before.
  EXPECT_EQ(route.units.size(), 3u);
}

TEST(Route, WhereOneFeedIsNotEnoughNothingIsClaimed) {
  // Without a second feed, water does not break the azeotrope of acetone and methanol.
  const RouteStudy found = routed({"acetone", "methanol", "water"}, {0.3, 0.3, 0.4}, "unifac");
  EXPECT_TRUE(found.routes.empty());
  EXPECT_TRUE(found.notices.has("no-route"));
}

TEST(Route, ADecanterAndTwoColumnsForAHeterogeneousPair) {
  const RouteStudy found = routed({"water", "1-butanol", "acetone"}, {0.5, 0.3, 0.2});
  ASSERT_FALSE(found.routes.empty());
  for (const Route& route : found.routes) {
    expect_balances(route, {0.5, 0.3, 0.2});
    EXPECT_EQ(std::count_if(route.units.begin(), route.units.end(),
                            [](const RouteUnit& unit) { return unit.decanter; }),
              1);
  }
}

// The order of the components changes nothing.
TEST(Route, ComponentsInAnyOrder) {
  const RouteStudy one = routed({"ethanol", "water", "benzene"}, {0.85, 0.15, 0}, "unifac", 298.15);
  const RouteStudy other = routed({"benzene", "ethanol", "water"}, {0, 0.85, 0.15}, "unifac", 298.15);
  ASSERT_FALSE(one.routes.empty());
  ASSERT_FALSE(other.routes.empty());
  EXPECT_EQ(one.routes.front().units.size(), other.routes.front().units.size());
  EXPECT_NEAR(one.routes.front().recycled, other.routes.front().recycled, 2e-3);
}

TEST(Route, RefusesWhatIsNoTask) {
  EXPECT_THROW(routed({"ethanol", "water"}, {0.5, 0.5}), RequestError);
  EXPECT_THROW(routed({"ethanol", "water", "benzene"}, {1, 0, 0}, "unifac"), RequestError);
}

}  // namespace
}  // namespace jampot
