#include "jampot/equilibrium/binary_split.hpp"

#include <gtest/gtest.h>

#include <boost/math/tools/roots.hpp>

#include "support.hpp"

namespace jampot {
namespace {

// The split of the symmetric Margules model: ln((1-x)/x) = A (1 - 2x), by bisection in the test.
double margules_split(double A) {
  const auto f = [A](double x) { return std::log((1 - x) / x) - A * (1 - 2 * x); };
  const auto root =
      boost::math::tools::bisect(f, 1e-12, 0.5 - 1e-6, boost::math::tools::eps_tolerance<double>(50));
  return root.first;
}

TEST(BinarySplit, MatchesTheClosedForm) {
  for (const double A : {2.01, 2.1, 2.5, 3.0, 5.0, 9.0}) {
    test::Margules model(A);
    const auto splits = binary_splits(model, 300);
    ASSERT_EQ(splits.size(), 1u) << A;
    EXPECT_NEAR(splits[0].x_alpha, margules_split(A), 1e-9) << A;
    EXPECT_NEAR(splits[0].x_beta, 1 - margules_split(A), 1e-9) << A;
    EXPECT_LT(splits[0].residual, 1e-10);
  }
}

TEST(BinarySplit, AGapNarrowerThanTheGridIsSeen) {
  test::Margules barely(2.00001);  // 0.004 wide, between grid points 0.01 apart
  const auto splits = binary_splits(barely, 300);
  ASSERT_EQ(splits.size(), 1u);
  EXPECT_NEAR(splits[0].x_alpha, margules_split(2.00001), 1e-6);
  test::Margules not_quite(1.99999);
  EXPECT_TRUE(binary_splits(not_quite, 300).empty());
}

TEST(BinarySplit, StableLiquidsStaySingle) {
  for (const double A : {-3.0, 0.0, 1.0, 1.9}) {
    test::Margules model(A);
    EXPECT_TRUE(binary_splits(model, 300).empty()) << A;
  }
  Mixture mixture = test::mtbe_methanol();
  EXPECT_TRUE(binary_splits(mixture.activity(), 330).empty());
}

TEST(BinarySplit, NumberingDoesNotMatter) {
  Nrtl one(2, {test::nrtl_pair("a", "b", 250, 1300, 0.4)});
  Nrtl other(2, {test::nrtl_pair("b", "a", 1300, 250, 0.4)});
  const auto a = binary_splits(one, 350), b = binary_splits(other, 350);
  ASSERT_EQ(a.size(), 1u);
  ASSERT_EQ(b.size(), 1u);
  EXPECT_NEAR(a[0].x_alpha, 1 - b[0].x_beta, 1e-12);
  EXPECT_NEAR(a[0].x_beta, 1 - b[0].x_alpha, 1e-12);
}

TEST(BinarySplit, IsoactivityAtRandomStates) {
  std::mt19937_64 generator(11);
  std::uniform_real_distribution<double> b(300, 2500);
  int found = 0;
  for (int trial = 0; trial < 100; ++trial) {
    Nrtl model(2, {test::nrtl_pair("a", "b", b(generator), b(generator), 0.25)});
    for (const BinarySplit& split : binary_splits(model, 310)) {
      ++found;
      std::vector<double> alpha(2), beta(2);
      model.evaluate(std::vector<double>{split.x_alpha, 1 - split.x_alpha}, alpha, {}, {});
      model.evaluate(std::vector<double>{split.x_beta, 1 - split.x_beta}, beta, {}, {});
      EXPECT_NEAR(std::log(split.x_alpha) + alpha[0], std::log(split.x_beta) + beta[0], 1e-9);
      EXPECT_NEAR(std::log1p(-split.x_alpha) + alpha[1], std::log1p(-split.x_beta) + beta[1], 1e-9);
      EXPECT_GT(split.x_beta, split.x_alpha + 1e-3);
    }
  }
  EXPECT_GT(found, 50);
}

}  // namespace
}  // namespace jampot
