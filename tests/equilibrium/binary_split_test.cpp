#include "jampot/equilibrium/binary_split.hpp"

#include <gtest/gtest.h>

#include <boost/math/tools/roots.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/liquid/models.hpp"
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
    EXPECT_NEAR(splits[0].x1_alpha, margules_split(A), 1e-9) << A;
    EXPECT_NEAR(splits[0].x1_beta, 1 - margules_split(A), 1e-9) << A;
    EXPECT_LT(splits[0].residual, 1e-10);
  }
}

TEST(BinarySplit, AGapNarrowerThanTheGridIsSeen) {
  test::Margules barely(2.00001);  // 0.004 wide, between grid points 0.01 apart
  const auto splits = binary_splits(barely, 300);
  ASSERT_EQ(splits.size(), 1u);
  EXPECT_NEAR(splits[0].x1_alpha, margules_split(2.00001), 1e-6);
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
  EXPECT_NEAR(a[0].x1_alpha, 1 - b[0].x1_beta, 1e-12);
  EXPECT_NEAR(a[0].x1_beta, 1 - b[0].x1_alpha, 1e-12);
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
      model.evaluate(std::vector<double>{split.x1_alpha, 1 - split.x1_alpha}, alpha, {}, {});
      model.evaluate(std::vector<double>{split.x1_beta, 1 - split.x1_beta}, beta, {}, {});
      EXPECT_NEAR(std::log(split.x1_alpha) + alpha[0], std::log(split.x1_beta) + beta[0], 1e-9);
      EXPECT_NEAR(std::log1p(-split.x1_alpha) + alpha[1], std::log1p(-split.x1_beta) + beta[1], 1e-9);
      EXPECT_GT(split.x1_beta, split.x1_alpha + 1e-3);
    }
  }
  EXPECT_GT(found, 50);
}

// A liquid that is one part in a million of the other: its digits lie beyond those of 1 - x. One search of
// two substances, one of many, and the same answer.
TEST(BinarySplit, TracesAreFoundAsTheSearchOfManySubstancesFindsThem) {
  for (const auto& names : {std::vector<std::string>{"formic acid", "4-methyl-2-pentanone"},
                            {"4-methyl-2-pentanone", "formic acid"}}) {
    const auto model = make_activity_model("unifac-lle", substances_named(names), {});
    const auto splits = binary_splits(*model, 303.15);
    ASSERT_EQ(splits.size(), 1u);
    const double trace = names[0] == "formic acid" ? 1 - splits[0].x1_beta : splits[0].x1_alpha;
    EXPECT_NEAR(trace, 4e-7, 1e-7);
  }
  std::vector<std::string> pool;
  for (const Substance& substance : Bank::built_in().all()) {
    if (substance.groups.contains("unifac-lle")) pool.push_back(substance.name);
  }
  std::mt19937_64 generator(1152);
  int two = 0;
  for (int k = 0; k < 400; ++k) {
    const std::string first = pool[generator() % pool.size()], second = pool[generator() % pool.size()];
    if (first == second) continue;
    std::unique_ptr<ActivityModel> model;
    try {
      model = make_activity_model("unifac-lle", substances_named({first, second}), {});
    } catch (const CalculationError&) {
      continue;
    }
    const auto splits = binary_splits(*model, 303.15);
    LiquidSplitter splitter(*model, 303.15);
    for (const BinarySplit& split : splits) {
      ++two;
      const double x = (split.x1_alpha + split.x1_beta) / 2;
      const LiquidSplit found = splitter.split(std::vector<double>{x, 1 - x});
      ASSERT_EQ(found.phases(), 2u) << first << ", " << second;
      const double low = std::min(found.x[0][0], found.x[1][0]),
                   high = std::max(found.x[0][0], found.x[1][0]);
      EXPECT_NEAR(split.x1_alpha, low, 1e-7) << first << ", " << second;
      EXPECT_NEAR(split.x1_beta, high, 1e-7) << first << ", " << second;
    }
    if (!splits.empty()) continue;
    for (const double x : {0.02, 0.1, 0.3, 0.5, 0.7, 0.9, 0.98})
      EXPECT_EQ(splitter.split(std::vector<double>{x, 1 - x}).phases(), 1u)
          << first << ", " << second << ' ' << x;
  }
  EXPECT_GT(two, 40);
}

}  // namespace
}  // namespace jampot
