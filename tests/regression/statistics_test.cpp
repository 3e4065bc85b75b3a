#include "jampot/regression/statistics.hpp"

#include <gtest/gtest.h>

#include <vector>

namespace jampot {
namespace {

TEST(Statistics, ChiSquareHasItsTabulatedQuantiles) {
  EXPECT_NEAR(chi_square_probability(3.841, 1), 0.05, 1e-4);
  EXPECT_NEAR(chi_square_probability(18.307, 10), 0.05, 1e-4);
  EXPECT_NEAR(chi_square_probability(2.558, 10), 0.99, 1e-4);
  EXPECT_EQ(chi_square_probability(0, 10), 1);
}

TEST(Statistics, RunsOfSigns) {
  const RunsTest alternating = runs_test(std::vector<double>{1, -1, 1, -1, 1, -1, 1, -1, 1, -1, 1, -1});
  EXPECT_EQ(alternating.runs, 12);
  EXPECT_GT(alternating.probability, 0.99);
  const RunsTest halves = runs_test(std::vector<double>{1, 1, 1, 1, 1, 1, -1, -1, -1, -1, -1, -1});
  EXPECT_EQ(halves.runs, 2);
  EXPECT_DOUBLE_EQ(halves.expected, 7);
  EXPECT_LT(halves.probability, 0.01);
  EXPECT_EQ(runs_test(std::vector<double>{1, 0, 1, 0, -1}).runs, 2);            // zeros are left out
  EXPECT_EQ(runs_test(std::vector<double>{1, 2, -3}).probability, 1);           // too few to tell
  EXPECT_DOUBLE_EQ(runs_test(std::vector<double>{1, 2, 3}).probability, 0.25);  // all on one side
  EXPECT_LT(runs_test(std::vector<double>(12, 1.0)).probability, 0.001);
}

}  // namespace
}  // namespace jampot
