// Bubble points over arrays against those of one liquid at a time.
#include "jampot/equilibrium/bubble_states.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "random_liquids.hpp"

namespace jampot {
namespace {

struct Case {
  std::string name;
  std::vector<std::string> substances;
  std::string liquid, vapour = "ideal";
  double P_Pa = standard_atmosphere;
};

Mixture mixture_of(const Case& c) {
  const std::vector<Substance> substances = substances_named(c.substances);
  VapourChoice vapour;
  vapour.model = c.vapour;
  return {substances, c.liquid, with_published(substances, c.liquid), vapour};
}

class BubbleStatesOf : public testing::TestWithParam<Case> {};

TEST_P(BubbleStatesOf, AreThoseOfOneLiquidAtATime) {
  Mixture mixture = mixture_of(GetParam());
  const double P_Pa = GetParam().P_Pa;
  const std::size_t n = mixture.size(), states = 150;
  std::mt19937_64 random(71);
  const std::vector<double> x = test::random_liquids(n, states, random);
  std::vector<double> T(states), y(n * states), P(states), y_again(n * states);
  BubbleStates many(mixture);
  EXPECT_EQ(many.temperatures(P_Pa, x, T, y), 0u);
  EXPECT_EQ(many.pressures(T, x, P, y_again), 0u);
  Mixture other = mixture;
  for (std::size_t k = 0; k < states; ++k) {
    std::vector<double> z(n);
    for (std::size_t i = 0; i < n; ++i) z[i] = x[i * states + k];
    const VlePoint point = bubble_temperature(other, P_Pa, z);
    EXPECT_NEAR(T[k], point.T_K, 1e-6);
    EXPECT_NEAR(P[k], P_Pa, 2e-9 * P_Pa);
    for (std::size_t i = 0; i < n; ++i) {
      EXPECT_NEAR(y[i * states + k], point.y[i], 1e-7);
      EXPECT_NEAR(y_again[i * states + k], y[i * states + k], 1e-9);
    }
  }
  // From any start the same.
  std::vector<double> far(states, 250.0), again(n * states);
  EXPECT_EQ(many.temperatures(P_Pa, x, far, again), 0u);
  for (std::size_t k = 0; k < states; ++k) EXPECT_NEAR(far[k], T[k], 1e-6);
}

INSTANTIATE_TEST_SUITE_P(
    Mixtures, BubbleStatesOf,
    testing::Values(Case{"Ideal", {"benzene", "toluene", "ethylbenzene"}, "ideal"},
                    Case{"Wilson", {"ethanol", "water"}, "wilson"},
                    Case{"Groups", {"acetone", "chloroform", "methanol"}, "unifac"},
                    Case{"WouldSplit", {"1-butanol", "water", "n-butyl acetate"}, "unifac"},
                    Case{
                        "FourAtFiveBar", {"acetone", "ethanol", "water", "methanol"}, "unifac", "ideal", 5e5},
                    Case{"VirialVapour", {"ethanol", "water"}, "wilson", "virial"},
                    Case{"OneEquation", {"propane", "n-butane", "n-pentane"}, "eos", "pr", 5e5}),
    [](const auto& tested) { return tested.param.name; });

TEST(BubbleStates, RefusesSizesThatDoNotGoTogether) {
  Mixture mixture = mixture_of({"", {"ethanol", "water"}, "wilson"});
  BubbleStates many(mixture);
  std::vector<double> x(6, 0.5), T(3), y(6), few(2);
  EXPECT_THROW(many.temperatures(standard_atmosphere, x, few, y), RequestError);
  EXPECT_THROW(many.temperatures(standard_atmosphere, x, T, few), RequestError);
  EXPECT_THROW(many.temperatures(-1, x, T, y), RequestError);
  EXPECT_THROW(many.pressures(T, x, few, y), RequestError);
  std::vector<double> P(3);
  EXPECT_THROW(many.pressures(T, x, P, y), RequestError);  // no temperature is zero
  EXPECT_EQ(many.temperatures(standard_atmosphere, {}, {}, {}), 0u);
}

}  // namespace
}  // namespace jampot
