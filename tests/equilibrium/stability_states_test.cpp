// Which liquids split, over arrays, against one at a time and against the split itself.
#include "jampot/equilibrium/stability_states.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "liquid/nrtl_pairs.hpp"
#include "random_liquids.hpp"

namespace jampot {
namespace {

// Many of them split a liquid.
std::unique_ptr<ActivityModel> random_nrtl(std::size_t n, std::mt19937_64& random) {
  std::uniform_real_distribution<double> tau(-1.5, 3), alpha(0.2, 0.4);
  return std::make_unique<Nrtl>(n, test::nrtl_pairs(n, [&](PairParameters& pair) {
                                  for (const char* term : {"tau_12", "tau_21"}) {
                                    pair.terms[term].constant = tau(random);
                                    pair.terms[term].inverse_T = 300;
                                  }
                                  pair.terms["alpha"].constant = alpha(random);
                                }));
}

// Every fifth of them nearly pure.
std::vector<double> random_states(std::size_t n, std::size_t states, std::mt19937_64& random) {
  std::vector<double> x = test::random_liquids(n, states, random);
  for (std::size_t k = 0; k < states; k += 5) {
    for (std::size_t i = 0; i < n; ++i) x[i * states + k] *= 1e-3;
    x[states + k] += 1 - 1e-3;
  }
  return x;
}

void expect_as_one_by_one(ActivityModel& model, std::mt19937_64& random, std::size_t& split,
                          std::size_t& stable) {
  constexpr std::size_t states = 120;
  const std::size_t n = model.size();
  const std::vector<double> x = random_states(n, states, random);
  std::uniform_real_distribution<double> T(280, 360);
  std::vector<double> T_K(states), distance(states), again(states);
  const double of_all = T(random);
  for (double& one : T_K) one = random() % 2 == 0 || n == 3 ? of_all : T(random);
  StabilityStates many(model);
  const std::size_t found = many.distances(T_K, x, distance);
  EXPECT_EQ(many.distances(T_K, x, again), found);
  EXPECT_EQ(again, distance);
  MixingLiquid liquid(model);
  std::size_t expected = 0;
  for (std::size_t k = 0; k < states; ++k) {
    std::vector<double> z(n);
    for (std::size_t i = 0; i < n; ++i) z[i] = x[i * states + k];
    const bool splits = liquid_splits(liquid, T_K[k], z);
    expected += splits;
    EXPECT_EQ(distance[k] < -1e-9, splits) << k << " of " << n << ": " << distance[k];
    EXPECT_TRUE(std::isfinite(distance[k]));
  }
  EXPECT_EQ(found, expected);
  split += expected;
  stable += states - expected;
}

TEST(StabilityStates, AreThoseOfOneLiquidAtATime) {
  std::mt19937_64 random(29);
  std::size_t split = 0, stable = 0;
  for (int repeat = 0; repeat < 12; ++repeat) {
    for (const std::size_t n : {2u, 3u, 4u, 5u})
      expect_as_one_by_one(*random_nrtl(n, random), random, split, stable);
  }
  EXPECT_GT(split, 500u);
  EXPECT_GT(stable, 500u);
  for (const char* name : {"unifac", "ideal"}) {
    const auto model =
        make_activity_model(name, substances_named({"1-butanol", "water", "n-butyl acetate"}), {});
    expect_as_one_by_one(*model, random, split, stable);
  }
}

// Between the two liquids of a split everything splits, outside of them nothing does.
TEST(StabilityStates, ChangeAtTheEndsOfATieLine) {
  std::mt19937_64 random(31);
  int met = 0;
  for (int repeat = 0; repeat < 60; ++repeat) {
    const auto model = random_nrtl(2, random);
    constexpr double T = 320;
    const std::vector<BinarySplit> all = binary_splits(*model, T);
    if (all.size() != 1) continue;
    ++met;
    const double low = std::min(all[0].x1_alpha, all[0].x1_beta),
                 high = std::max(all[0].x1_alpha, all[0].x1_beta);
    constexpr std::size_t states = 200;
    std::vector<double> x(2 * states), T_K(states, T), distance(states);
    for (std::size_t k = 0; k < states; ++k) {
      x[k] = (static_cast<double>(k) + 0.5) / states;
      x[states + k] = 1 - x[k];
    }
    StabilityStates(*model).distances(T_K, x, distance);
    for (std::size_t k = 0; k < states; ++k) {
      const double to_an_end = std::min(std::abs(x[k] - low), std::abs(x[k] - high));
      if (to_an_end < 1e-3) continue;
      EXPECT_EQ(distance[k]<-1e-9, x[k]> low && x[k] < high) << x[k] << " of " << low << " to " << high;
    }
  }
  EXPECT_GT(met, 15);
}

TEST(StabilityStates, RefuseSizesThatDoNotGoTogether) {
  std::mt19937_64 random(3);
  const auto model = random_nrtl(2, random);
  StabilityStates many(*model);
  std::vector<double> x(6, 0.5), T(3, 300.0), distance(3), few(2);
  EXPECT_THROW(many.distances(T, x, few), RequestError);
  EXPECT_THROW(many.distances(T, few, distance), RequestError);
  T[1] = 0;
  EXPECT_THROW(many.distances(T, x, distance), RequestError);
  EXPECT_EQ(many.distances({}, {}, {}), 0u);
}

}  // namespace
}  // namespace jampot
