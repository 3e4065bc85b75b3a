// Two columns around an azeotrope: balances from outside, both directions, what is said where it does not
// work.
#include "jampot/study/swing.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "support.hpp"

namespace jampot {
namespace {

void expect_balances(const SwingBalance& balance, const SwingTask& task) {
  const SwingColumn &one = balance.columns[0], &other = balance.columns[1];
  for (const SwingColumn* column : {&one, &other}) {
    EXPECT_NEAR(column->in, column->product + column->passed, 1e-10);
    EXPECT_NEAR(column->in * column->z,
                column->product * column->x_product + column->passed * column->x_passed, 1e-10);
    EXPECT_GT(column->product, 0);
    EXPECT_GT(column->passed, 0);
    // Every column works between its azeotrope and its product.
    const double azeotrope = task.azeotropes[static_cast<std::size_t>(column->pressure)];
    EXPECT_GT((column->x_passed - azeotrope) * (column->x_product - azeotrope), 0);
    EXPECT_GT((column->z - column->x_passed) * (column->x_product - column->z), 0);
  }
  EXPECT_NEAR(one.in, 1 + balance.recycle, 1e-10);
  EXPECT_NEAR(other.in, one.passed, 1e-10);
  EXPECT_NEAR(one.product + other.product, 1, 1e-10);
  EXPECT_NEAR(one.product * one.x_product + other.product * other.x_product, task.feed, 1e-10);
}

TEST(Swing, BalancesAreMetWhateverTheFeed) {
  std::mt19937_64 generator(4);
  std::uniform_real_distribution<double> fraction(0.1, 0.9), small(0.001, 0.02);
  int done = 0;
  for (int k = 0; k < 200; ++k) {
    SwingTask task;
    task.azeotropes = {fraction(generator), fraction(generator)};
    task.feed = 0.02 + 0.96 * fraction(generator);
    task.distance = small(generator);
    task.purity = 0.995;
    if (std::abs(task.azeotropes[0] - task.azeotropes[1]) < 3 * task.distance) {
      if (std::abs(task.azeotropes[0] - task.azeotropes[1]) < 2 * task.distance) {
        EXPECT_THROW(swing_balance(task), CalculationError);
      }
      continue;
    }
    expect_balances(swing_balance(task), task);
    ++done;
  }
  EXPECT_GT(done, 100);
  EXPECT_THROW(swing_balance({NAN, {0.3, 0.6}}), RequestError);
  EXPECT_THROW(swing_balance({0.5, {0.3, 1.6}}), RequestError);
  EXPECT_THROW(swing_balance({0.999, {0.3, 0.6}}), CalculationError);
}

SwingStudy of(const std::vector<std::string>& names, double feed, std::array<double, 2> P_Pa,
              const std::string& liquid = "") {
  SwingRequest request;
  request.mixture = mixture_of(names, liquid);
  request.feed = feed_of_moles({feed, 1 - feed});
  request.P_Pa = P_Pa;
  return study(request);
}

// Tetrahydrofuran and water is the textbook case: the azeotrope loses THF as the pressure rises.
TEST(Swing, TetrahydrofuranAndWater) {
  const SwingStudy found = of({"tetrahydrofuran", "water"}, 0.5, {1e5, 8e5});
  EXPECT_GT(found.task.azeotropes[0], found.task.azeotropes[1] + 0.1);
  expect_balances(found.balance, found.task);
  EXPECT_EQ(found.columns[0].P_Pa, 1e5);  // it makes water
  EXPECT_NEAR(found.columns[0].flows.x_product, 0.01, 1e-12);
  EXPECT_LT(found.balance.recycle, 1);
  EXPECT_GT(found.heat_gap_K, 20);
  EXPECT_NE(found.verdict.find("two pressures separate this mixture"), std::string::npos);
  for (const SwingColumnFound& column : found.columns) {
    EXPECT_GT(column.stages.count, 2);
    ASSERT_TRUE(column.reboiler_J_mol);
    EXPECT_GT(*column.reboiler_J_mol, 0);
  }
  // The pressures in the other order, and the substances: the same two columns.
  const SwingStudy turned = of({"tetrahydrofuran", "water"}, 0.5, {8e5, 1e5});
  EXPECT_NEAR(turned.balance.recycle, found.balance.recycle, 1e-9);
  EXPECT_EQ(turned.columns[0].P_Pa, 1e5);
  const SwingStudy exchanged = of({"water", "tetrahydrofuran"}, 0.5, {1e5, 8e5});
  double all = 0, all_exchanged = 0;
  for (std::size_t k = 0; k < 2; ++k) {
    all += *found.columns[k].reboiler_J_mol;
    all_exchanged += *exchanged.columns[k].reboiler_J_mol;
  }
  EXPECT_NEAR(exchanged.balance.columns[0].product + exchanged.balance.columns[1].product, 1, 1e-12);
  EXPECT_GT(all_exchanged, 0.3 * all);
  EXPECT_LT(all_exchanged, 3 * all);
}

TEST(Swing, WhatDoesNotWorkIsSaid) {
  EXPECT_THROW(of({"methanol", "water"}, 0.5, {1e5, 8e5}, "unifac"), CalculationError);  // no azeotrope
  EXPECT_THROW(of({"1-butanol", "water"}, 0.5, {1e5, 2e5}, "unifac"),
               CalculationError);                                                        // a decanter does it
  EXPECT_THROW(of({"tetrahydrofuran", "water"}, 0.5, {1e5, 1e5}), RequestError);         // one pressure
  EXPECT_THROW(of({"tetrahydrofuran", "water"}, 0.5, {1e5, 1.05e5}), CalculationError);  // it hardly moves
  EXPECT_TRUE(of({"tetrahydrofuran", "water"}, 0.5, {1e5, 1.5e5}).notices.has("azeotrope-hardly-moves"));
}

}  // namespace
}  // namespace jampot
