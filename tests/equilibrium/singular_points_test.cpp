// All azeotropes of mixtures: index balance, known systems, what boils at a singular point is what is there.
#include "jampot/equilibrium/singular_points.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "support.hpp"

namespace jampot {
namespace {

const SingularPoint* with_members(const SingularPoints& found, std::size_t count) {
  const auto last = std::find_if(found.points.rbegin(), found.points.rend(),
                                 [&](const SingularPoint& point) { return point.members.size() == count; });
  return last == found.points.rend() ? nullptr : &*last;
}

// Acetone, chloroform and methanol: three azeotropes of pairs and a ternary saddle, which handbooks place
// at 57.5 degC.
TEST(SingularPoints, ATernarySaddle) {
  Mixture mixture(substances_named({"acetone", "chloroform", "methanol"}), "unifac", {});
  const SingularPoints found = singular_points(mixture, standard_atmosphere);
  EXPECT_TRUE(found.balanced());
  EXPECT_EQ(found.points.size(), 7u);
  const SingularPoint* ternary = with_members(found, 3);
  ASSERT_NE(ternary, nullptr);
  EXPECT_EQ(ternary->stability, Stability::saddle);
  EXPECT_NEAR(ternary->T_K - celsius_zero, 57.5, 1.0);
  for (const SingularPoint& point : found.points) {
    EXPECT_LT(point.residual, 1e-8);
    EXPECT_EQ(point.eigenvalues.size(), 2u);
    const VlePoint boiling = bubble_temperature(mixture, standard_atmosphere, point.x);
    EXPECT_NEAR(boiling.T_K, point.T_K, 1e-8);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(boiling.y[i], point.x[i], 1e-8);
  }
}

// Heterogeneous ternary azeotropes of the handbooks: benzene, ethanol, water 64.9 degC; ethyl acetate,
// ethanol, water 70.2 degC; cyclohexane, ethanol, water 62.1 degC. Predicted by groups within two kelvin.
TEST(SingularPoints, HeterogeneousTernaryAzeotropes) {
  for (const auto& [names, celsius] :
       {std::pair(std::vector<std::string>{"benzene", "ethanol", "water"}, 64.9),
        std::pair(std::vector<std::string>{"ethyl acetate", "ethanol", "water"}, 70.2),
        std::pair(std::vector<std::string>{"cyclohexane", "ethanol", "water"}, 62.1)}) {
    Mixture mixture(substances_named(names), "unifac", {});
    const SingularPoints found = singular_points(mixture, standard_atmosphere);
    EXPECT_TRUE(found.balanced()) << names[0];
    const SingularPoint* ternary = with_members(found, 3);
    ASSERT_NE(ternary, nullptr) << names[0];
    EXPECT_TRUE(ternary->heterogeneous);
    EXPECT_EQ(ternary->stability, Stability::unstable_node);
    EXPECT_NEAR(ternary->T_K - celsius_zero, celsius, 2.0) << names[0];
    // Both liquids boil there and give this vapour, which lies between them.
    for (const std::vector<double>& liquid : ternary->liquids) {
      const VlePoint boiling = bubble_temperature(mixture, standard_atmosphere, liquid);
      EXPECT_NEAR(boiling.T_K, ternary->T_K, 1e-7);
      for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(boiling.y[i], ternary->x[i], 1e-8);
    }
  }
}

// UNIFAC has 2-propanol, cyclohexane and water part into three liquids whose vapour lies among them. The
// handbook's azeotrope (64.3 degC) has two.
TEST(SingularPoints, AnAzeotropeOfThreeLiquids) {
  Mixture mixture(substances_named({"2-propanol", "cyclohexane", "water"}), "unifac", {});
  const SingularPoints found = singular_points(mixture, standard_atmosphere);
  EXPECT_TRUE(found.balanced());
  const SingularPoint* ternary = with_members(found, 3);
  ASSERT_NE(ternary, nullptr);
  ASSERT_EQ(ternary->liquids.size(), 3u);
  EXPECT_EQ(ternary->stability, Stability::unstable_node);
  EXPECT_NEAR(ternary->T_K - celsius_zero, 64.3, 1.0);
  for (const std::vector<double>& liquid : ternary->liquids) {
    const VlePoint boiling = bubble_temperature(mixture, standard_atmosphere, liquid);
    EXPECT_NEAR(boiling.T_K, ternary->T_K, 1e-7);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(boiling.y[i], ternary->x[i], 1e-8);
  }
}

// Followed to another pressure an azeotrope is the one found there.
TEST(SingularPoints, AreFollowed) {
  Mixture mixture(substances_named({"ethanol", "benzene", "water"}), "unifac", {});
  Mixture three(substances_named({"2-propanol", "cyclohexane", "water"}), "unifac", {});
  const SingularPoints one = singular_points(three, 1e5), other = singular_points(three, 1.02e5);
  const SingularPoint* ternary = with_members(one, 3);
  ASSERT_NE(ternary, nullptr);
  ASSERT_TRUE(same_azeotrope(three, 1.02e5, *ternary));
  EXPECT_NEAR(same_azeotrope(three, 1.02e5, *ternary)->T_K, with_members(other, 3)->T_K, 1e-7);
  const SingularPoints here = singular_points(mixture, 1e5), there = singular_points(mixture, 1.1e5);
  ASSERT_EQ(here.points.size(), there.points.size());
  for (std::size_t k = 0; k < here.points.size(); ++k) {
    const auto moved = same_azeotrope(mixture, 1.1e5, here.points[k]);
    ASSERT_TRUE(moved);
    EXPECT_NEAR(moved->T_K, there.points[k].T_K, 1e-7);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(moved->x[i], there.points[k].x[i], 1e-7);
  }
}

TEST(SingularPoints, TheOrderOfTheSubstancesDoesNotMatter) {
  Mixture one(substances_named({"benzene", "ethanol", "water"}), "unifac", {}),
      other(substances_named({"water", "benzene", "ethanol"}), "unifac", {});
  const SingularPoints a = singular_points(one, 2e5), b = singular_points(other, 2e5);
  ASSERT_EQ(a.points.size(), b.points.size());
  for (std::size_t k = 3; k < a.points.size(); ++k) {
    EXPECT_NEAR(a.points[k].T_K, b.points[k].T_K, 1e-7);
    EXPECT_EQ(a.points[k].stability, b.points[k].stability);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(a.points[k].x[i], b.points[k].x[(i + 1) % 3], 1e-7);
  }
}

TEST(SingularPoints, FiveComponentsAndWhatIsRefused) {
  Mixture five(substances_named({"acetone", "chloroform", "methanol", "ethanol", "benzene"}), "unifac", {});
  const SingularPoints found = singular_points(five, standard_atmosphere);
  EXPECT_TRUE(found.balanced());
  EXPECT_NE(with_members(found, 4), nullptr);
  Mixture six(substances_named({"acetone", "chloroform", "methanol", "ethanol", "benzene", "toluene"}),
              "ideal", {});
  EXPECT_THROW(singular_points(six, standard_atmosphere), RequestError);
}

// Random NRTL ternaries of solvents, many of them heterogeneous: the share that satisfies the balance.
int unbalanced(int systems, unsigned seed) {
  int missed = 0;
  for (int k = 0; k < systems; ++k) {
    Mixture mixture = test::random_ternary(seed + static_cast<unsigned>(k));
    const SingularPoints found = singular_points(mixture, standard_atmosphere);
    EXPECT_EQ(found.balanced(), !found.notices.has("index-balance"));
    missed += found.balanced() ? 0 : 1;
    if (!found.balanced())
      std::printf("system %d of seed %u: %d of %d\n", k, seed, found.index_sum, found.index_expected);
  }
  return missed;
}

TEST(SingularPoints, RandomTernariesSatisfyTheIndexBalance) {
  EXPECT_LE(unbalanced(60, 1000), 1);
}

TEST(SlowSingularPoints, FiveHundredRandomTernaries) {
  EXPECT_LE(unbalanced(500, 4000), 5);
}

// Three liquids of which two are nearly equal boil together: too small a region for a lattice of feeds.
TEST(SingularPoints, ThreeLiquidsOfWhichTwoAreNearlyEqual) {
  ParameterCollection pairs;
  pairs.add(test::nrtl_pair("2-propanol", "benzene", 44.850, 586.140, 0.3));
  pairs.add(test::nrtl_pair("2-propanol", "water", -46.965, 991.234, 0.3));
  pairs.add(test::nrtl_pair("benzene", "water", 1416.684, 1826.384, 0.3));
  Mixture mixture(substances_named({"2-propanol", "benzene", "water"}), "nrtl", pairs);
  const SingularPoints found = singular_points(mixture, 101325);
  EXPECT_TRUE(found.balanced());
  const auto three = std::find_if(found.points.begin(), found.points.end(),
                                  [](const SingularPoint& point) { return point.liquids.size() == 3; });
  ASSERT_NE(three, found.points.end());
  EXPECT_NEAR(three->T_K - 273.15, 66.07, 0.05);
  EXPECT_EQ(three->stability, Stability::unstable_node);
}

}  // namespace
}  // namespace jampot
