// Liquids of any composition parted without a guess, by what equilibrium means.
#include "jampot/equilibrium/liquid_split.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/plait_point.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/subsystem.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::Margules;

// Isoactivity, mass balance and stability, all computed afresh from the model.
void expect_equilibrium(ActivityModel& model, double T_K, const std::vector<double>& z,
                        const LiquidSplit& split) {
  const std::size_t n = z.size();
  model.set_temperature(T_K);
  std::vector<std::vector<double>> ln_a;
  for (const auto& x : split.x) {
    std::vector<double> values(n);
    model.evaluate(x, values);
    for (std::size_t i = 0; i < n; ++i) values[i] += std::log(x[i]);
    ln_a.push_back(values);
  }
  for (std::size_t i = 0; i < n; ++i) {
    double sum = 0;
    for (std::size_t p = 0; p < split.phases(); ++p) sum += split.amount[p] * split.x[p][i];
    EXPECT_NEAR(sum, z[i], 1e-13);
    for (std::size_t p = 1; p < split.phases(); ++p) EXPECT_NEAR(ln_a[p][i], ln_a[0][i], 1e-10);
  }
  EXPECT_GT(split.distance, -1e-9);
  for (std::size_t a = 0; a < split.phases(); ++a) {
    for (std::size_t b = a + 1; b < split.phases(); ++b) {
      double most = 0;
      for (std::size_t i = 0; i < n; ++i) most = std::max(most, std::abs(split.x[a][i] - split.x[b][i]));
      EXPECT_GT(most, 1e-6);
    }
  }
}

TEST(LiquidSplit, ABinaryHasItsClosedForm) {
  Margules model(2.6);
  LiquidSplitter splitter(model, 300);
  const std::vector<double> z{0.4, 0.6};
  const LiquidSplit split = splitter.split(z);
  ASSERT_EQ(split.phases(), 2u);
  for (const auto& x : split.x)  // ln(x1/x2) = A (x1 - x2) on both sides of the symmetric gap
    EXPECT_NEAR(std::log(x[0] / x[1]), 2.6 * (x[0] - x[1]), 1e-12);
  expect_equilibrium(model, 300, z, split);
  EXPECT_EQ(splitter.split(std::vector<double>{0.02, 0.98}).phases(), 1u);
}

class RandomLiquids : public ::testing::TestWithParam<std::size_t> {};

TEST_P(RandomLiquids, PartIntoLiquidsInEquilibriumWhateverTheirNumbering) {
  const std::size_t n = GetParam();
  std::mt19937_64 generator(n);
  int parted = 0, three = 0;
  for (int k = 0; k < 150; ++k) {
    const auto pairs = test::random_nrtl_pairs(generator, n);
    Nrtl model(n, pairs);
    const std::vector<double> z = test::random_composition(generator, n);
    const LiquidSplit split = LiquidSplitter(model, 330).split(z);
    expect_equilibrium(model, 330, z, split);
    parted += split.phases() > 1 ? 1 : 0;
    three += split.phases() > 2 ? 1 : 0;
    // The same substances numbered from the other end.
    std::vector<std::size_t> turned(n);
    for (std::size_t i = 0; i < n; ++i) turned[i] = n - 1 - i;
    Subsystem other(model, turned);
    const LiquidSplit again = LiquidSplitter(other, 330).split(std::vector<double>(z.rbegin(), z.rend()));
    ASSERT_EQ(again.phases(), split.phases()) << k;
    for (std::size_t p = 0; p < split.phases(); ++p) {
      double nearest = 1;
      for (const auto& x : again.x) {
        double most = 0;
        for (std::size_t i = 0; i < n; ++i) most = std::max(most, std::abs(x[n - 1 - i] - split.x[p][i]));
        nearest = std::min(nearest, most);
      }
      EXPECT_LT(nearest, 1e-7) << k;
    }
  }
  EXPECT_GT(parted, 15);
  if (n > 3) {
    EXPECT_GT(three, 0);
  }
}

INSTANTIATE_TEST_SUITE_P(Sizes, RandomLiquids, ::testing::Values(2, 3, 4, 6));

TEST(LiquidSplit, AnAbsentComponentStaysAbsent) {
  std::mt19937_64 generator(4);
  int parted = 0;
  for (int k = 0; k < 40; ++k) {
    const auto pairs = test::random_nrtl_pairs(generator, 3);
    Nrtl model(3, pairs);
    const LiquidSplit split = LiquidSplitter(model, 330).split(std::vector<double>{0.45, 0, 0.55});
    Subsystem pair(model, {0, 2});
    const LiquidSplit own = LiquidSplitter(pair, 330).split(std::vector<double>{0.45, 0.55});
    ASSERT_EQ(split.phases(), own.phases());
    parted += own.phases() > 1 ? 1 : 0;
    for (const auto& x : split.x) EXPECT_EQ(x[1], 0);
  }
  EXPECT_GT(parted, 5);
}

TEST(LiquidSplit, TheSmallestCurvatureIsTheStabilityFunctionOfABinary) {
  Margules model(2.6, 0.3);
  for (const double x : {0.1, 0.5, 0.8}) {
    const Curvature curvature = smallest_curvature(model, std::vector<double>{x, 1 - x}, true);
    EXPECT_NEAR(curvature.value, stability_function(model, x), 1e-12);
    EXPECT_NEAR(curvature.direction[0], -curvature.direction[1], 1e-9);
  }
}

// The critical point of a symmetric mixture: A = 2 at x = 1/2, where both conditions hold.
TEST(PlaitPoint, TheThirdDerivativeVanishesAtASymmetricCriticalPoint) {
  Margules model(2);
  EXPECT_NEAR(mixing_third_derivative(model, std::vector<double>{0.5, 0.5}, std::vector<double>{1, -1}), 0,
              1e-12);
  EXPECT_NEAR(stability_function(model, 0.5), 0, 1e-12);
}

}  // namespace
}  // namespace jampot
