// Columns of two substances against closed solutions for a constant relative volatility, and against
// balances.
#include "jampot/design/binary_column.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "support.hpp"

namespace jampot {
namespace {

double equilibrium(double alpha, double x) {
  return alpha * x / (1 + (alpha - 1) * x);
}

// y = alpha x/(1 + (alpha - 1) x), with latent heats of the two substances.
ColumnEquilibrium constant_volatility(double alpha, double light_J_mol = 30000, double heavy_J_mol = 30000) {
  std::vector<double> x, y, T, h, H;
  constexpr int steps = 2000;
  for (int k = 0; k <= steps; ++k) {
    x.push_back(static_cast<double>(k) / steps);
    y.push_back(equilibrium(alpha, x.back()));
    T.push_back(380 - 20 * x.back());
    h.push_back(0);
    H.push_back(y.back() * light_J_mol + (1 - y.back()) * heavy_J_mol);
  }
  ColumnEquilibrium result(x, y, T);
  result.set_enthalpies(h, H);
  return result;
}

// Source: M. R. Fenske, Ind. Eng. Chem. 24 (1932) 482-485.
TEST(Columns, StagesAtTotalRefluxAreFenskes) {
  std::mt19937_64 generator(5);
  std::uniform_real_distribution<double> of_alpha(1.2, 6), of_top(0.9, 0.995);
  for (int k = 0; k < 20; ++k) {
    const double alpha = of_alpha(generator), top = of_top(generator);
    const int stages = 3 + k % 7;
    const double ratio = top / (1 - top) / std::pow(alpha, stages), bottom = ratio / (1 + ratio);
    const ColumnStages found =
        stages_at_total_reflux(constant_volatility(alpha), {(top + bottom) / 2, top, bottom});
    EXPECT_NEAR(found.count, stages, 2e-3) << alpha;
    for (const ColumnStage& stage : found.stages) EXPECT_NEAR(stage.y, equilibrium(alpha, stage.x), 1e-6);
  }
}

// Source: A. J. V. Underwood, J. Inst. Petrol. 32 (1946) 614-626: of two substances the pinch at the feed.
TEST(Columns, LeastRefluxIsUnderwoods) {
  std::mt19937_64 generator(6);
  std::uniform_real_distribution<double> of_alpha(1.2, 6), of_feed(0.2, 0.8), of_q(-0.3, 1.3);
  for (int k = 0; k < 30; ++k) {
    const double alpha = of_alpha(generator), z = of_feed(generator), top = 0.98, bottom = 0.02;
    const double q = k % 3 == 0 ? 1 : k % 3 == 1 ? 0 : of_q(generator);
    // The liquid of the flashed feed: q x + (1 - q) y = z.
    double low = 0, high = 1;
    for (int i = 0; i < 100; ++i) {
      const double x = (low + high) / 2;
      (q * x + (1 - q) * equilibrium(alpha, x) < z ? low : high) = x;
    }
    const double x = q > 1 || q < 0 ? NAN : (low + high) / 2;
    const MinimumReflux found = minimum_reflux(constant_volatility(alpha), {z, top, bottom, q});
    EXPECT_FALSE(found.tangent);
    if (std::isnan(x)) continue;
    const double y = equilibrium(alpha, x);
    EXPECT_NEAR(found.ratio, (top - y) / (y - x), 2e-4 * (1 + found.ratio)) << alpha << " " << z << " " << q;
    EXPECT_NEAR(found.pinch, x, 2e-3);
  }
}

// Every stage by hand: equilibrium, balance around the top or the bottom.
TEST(Columns, StagesFulfilTheirBalances) {
  std::mt19937_64 generator(8);
  std::uniform_real_distribution<double> of_alpha(1.4, 5), of_feed(0.2, 0.8), of_q(-0.2, 1.2), factor(1.1, 3);
  for (int k = 0; k < 20; ++k) {
    const ColumnTask task{of_feed(generator), 0.97, 0.03, of_q(generator)};
    const auto curve = constant_volatility(of_alpha(generator));
    const double R = factor(generator) * minimum_reflux(curve, task).ratio + 0.05;  // it may be zero
    const ColumnStages found = stages_at_reflux(curve, task, R);
    const double D = (task.feed - task.bottom) / (task.top - task.bottom), B = 1 - D, L = R * D, V = L + D,
                 Ls = L + task.feed_liquid, Vs = V - (1 - task.feed_liquid);
    for (std::size_t n = 0; n + 1 < found.stages.size(); ++n) {
      const ColumnStage &stage = found.stages[n], &next = found.stages[n + 1];
      if (!stage.stripping) {
        EXPECT_NEAR(V * next.y, L * stage.x + D * task.top, 1e-8);
      } else {
        EXPECT_NEAR(Ls * stage.x, Vs * next.y + B * task.bottom, 1e-8);
      }
    }
    EXPECT_GT(found.count, stages_at_total_reflux(curve, task).count);
    EXPECT_THROW(stages_at_reflux(curve, task, 0.98 * minimum_reflux(curve, task).ratio - 1e-9),
                 CalculationError);
    // With an efficiency each stage does its part, and more are needed.
    ColumnTask poor = task;
    poor.efficiency = 0.7;
    const ColumnStages more = stages_at_reflux(curve, poor, R);
    EXPECT_GT(more.count, found.count);
    EXPECT_LT(more.count, 2.2 * found.count);
  }
}

// Equal latent heats make the overflow constant: both answers are one. Unequal ones part them, and every
// stage then fulfils the balance of heat.
TEST(Columns, ExactStagesFulfilTheBalanceOfHeat) {
  const ColumnTask task{0.45, 0.96, 0.04, 1};
  const auto equal = constant_volatility(2.4);
  const ColumnStages simple = stages_at_reflux(equal, task, 2.5);
  const ExactStages same = exact_stages(equal, task, 2.5);
  ASSERT_EQ(same.stages.size(), simple.stages.size());
  for (std::size_t n = 0; n < simple.stages.size(); ++n)
    EXPECT_NEAR(same.stages[n].x, simple.stages[n].x, 1e-6);
  EXPECT_NEAR(same.count, simple.count, 1e-5);
  EXPECT_NEAR(same.condenser_J_mol, same.reboiler_J_mol, 1e-6);  // a boiling feed, and all liquids at zero
  const double light = 28000, heavy = 38000;
  const auto unequal = constant_volatility(2.4, light, heavy);
  const ExactStages found = exact_stages(unequal, task, 2.5);
  const double D = (task.feed - task.bottom) / (task.top - task.bottom);
  for (std::size_t n = 0; n + 1 < found.stages.size(); ++n) {
    const ColumnStage &stage = found.stages[n], &next = found.stages[n + 1];
    const double V = found.vapour[n], H = next.y * light + (1 - next.y) * heavy;
    // Liquids carry none: the vapour that rises brings what the condenser takes, or what the reboiler gave.
    EXPECT_NEAR(V * H, found.condenser_J_mol, 1e-3 * found.condenser_J_mol) << n;
    if (!stage.stripping) {
      EXPECT_NEAR(V * next.y, (V - D) * stage.x + D * task.top, 1e-6);
    }
  }
  EXPECT_GT(std::abs(found.count - simple.count), 0.05);
}

// Where the equilibrium bends towards the diagonal the lines touch it away from the feed.
TEST(Columns, ATangentPinchIsFound) {
  Mixture mixture(substances_named({"acetone", "water"}), "unifac", {});
  const ColumnEquilibrium curve = ColumnEquilibrium::of(txy(mixture, 101325, {801}), 0);
  const ColumnTask task{0.5, 0.94, 0.02, 1};
  const MinimumReflux found = minimum_reflux(curve, task);
  EXPECT_TRUE(found.tangent);
  EXPECT_GT(found.pinch, 0.7);
  // The slope from the top to every point of the curve is at most R/(R + 1), and reaches it.
  double steepest = 0;
  for (double x = 0.5; x < 0.94; x += 1e-5)
    steepest = std::max(steepest, (task.top - curve.y(x)) / (task.top - x));
  EXPECT_NEAR(found.ratio, steepest / (1 - steepest), 1e-4);
  EXPECT_GT(stages_at_reflux(curve, task, 1.001 * found.ratio).count,
            2 * stages_at_reflux(curve, task, 2 * found.ratio).count);
}

TEST(Columns, AnAzeotropeInTheWayIsSaid) {
  Mixture mixture(substances_named({"ethanol", "water"}), "unifac", {});
  const BinaryCurve boiling = txy(mixture, 101325, {801});
  const ColumnEquilibrium curve = ColumnEquilibrium::of(boiling, 0);
  ASSERT_EQ(boiling.azeotropes.size(), 1u);
  EXPECT_NEAR(*curve.azeotrope_between(0.1, 0.99), boiling.azeotropes[0].x1, 1e-5);
  try {
    minimum_reflux(curve, {0.4, 0.95, 0.01, 1});
    ADD_FAILURE() << "there is an azeotrope";
  } catch (const CalculationError& error) {
    EXPECT_NE(std::string(error.what()).find("azeotrope at x = 0.8"), std::string::npos) << error.what();
    EXPECT_NE(std::string(error.what()).find("distillate"), std::string::npos) << error.what();
  }
  EXPECT_NO_THROW(minimum_reflux(curve, {0.4, 0.8, 0.01, 1}));
  const auto refused = [&](const ColumnTask& task) {
    EXPECT_THROW(minimum_reflux(curve, task), RequestError);
  };
  refused({0.4, 0.3, 0.01, 1});
  refused({0.4, 0.8, 0.5, 1});
  refused({NAN, 0.8, 0.01, 1});
  refused({0.4, 0.8, 0.01, NAN});
  refused({0.4, 0.8, 0.01, 1, 0});
  EXPECT_THROW(ColumnEquilibrium({0, 1}, {0, 1}, {300, 300}), RequestError);
  EXPECT_THROW(ColumnEquilibrium({0, 0.5, 0.4}, {0, 0.5, 1}, {300, 300, 300}), RequestError);
  EXPECT_THROW(exact_stages(curve, {0.4, 0.8, 0.01, 1}, 3), CalculationError);  // no enthalpies
}

// Source: Lord Rayleigh, Phil. Mag. 4 (1902) 521-537, solved for a constant relative volatility.
TEST(Columns, SimpleDistillationIsRayleighs) {
  for (const double alpha : {1.5, 2.5, 5.0}) {
    const double x0 = 0.6, x1 = 0.2;
    const SimpleDistillation found = simple_distillation(constant_volatility(alpha), x0, x1);
    const double logarithm =
        std::log(x0 * (1 - x1) / (x1 * (1 - x0))) / (alpha - 1) + std::log((1 - x1) / (1 - x0));
    EXPECT_NEAR(found.left, std::exp(-logarithm), 1e-6);
    EXPECT_NEAR(found.left * x1 + (1 - found.left) * found.distillate, x0, 1e-12);
  }
  EXPECT_THROW(simple_distillation(constant_volatility(2), 0.3, 0.5), RequestError);
}

}  // namespace
}  // namespace jampot
