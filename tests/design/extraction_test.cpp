// Extraction: balances of every stage, a closed solution for immiscible liquids, the least solvent.
#include "jampot/design/extraction.hpp"

#include <gtest/gtest.h>
#include <math.h>  // pchip.hpp takes isnan from it

#include <boost/math/interpolators/pchip.hpp>
#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "support.hpp"

namespace jampot {
namespace {

ExtractionLiquids predicted(const std::vector<std::string>& names, const char* table, Basis basis,
                            double T_K = 298.15) {
  Mixture mixture(substances_named(names), table, {});
  return ExtractionLiquids::of(ternary_diagram(mixture.activity(), T_K), {0, 1, 2}, mixture.substances(),
                               basis);
}

void expect_equal(const Fractions& a, const Fractions& b, double within) {
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(a[i], b[i], within);
}

Fractions amounts(double n, const Fractions& x) {
  return {n * x[0], n * x[1], n * x[2]};
}

Fractions sum(const Fractions& a, const Fractions& b) {
  return {a[0] + b[0], a[1] + b[1], a[2] + b[2]};
}

// Around every stage what enters leaves, and both liquids lie on one tie line.
TEST(Extraction, EveryStageIsBalanced) {
  for (const Basis basis : {Basis::mole, Basis::mass}) {
    for (const auto& names : {std::vector<std::string>{"acetic acid", "water", "ethyl acetate"},
                              std::vector<std::string>{"acetone", "water", "toluene"},
                              std::vector<std::string>{"ethanol", "water", "1-octanol"}}) {
      const ExtractionLiquids liquids = predicted(names, "unifac", basis);
      const ExtractionTask task{{0.15, 0.85, 0}, {0, 0, 1}, 0.02};
      const double least = minimum_solvent(liquids, task);
      const double S = 1.4 * least;
      const ExtractionStages found = counter_current(liquids, task, S);
      ASSERT_GE(found.stages.size(), 2u);
      for (std::size_t n = 0; n + 1 < found.stages.size(); ++n) {
        const ExtractionStage &stage = found.stages[n], &next = found.stages[n + 1];
        const Fractions in = sum(
            n == 0 ? task.feed : amounts(found.stages[n - 1].raffinate_amount, found.stages[n - 1].raffinate),
            amounts(next.extract_amount, next.extract));
        expect_equal(in,
                     sum(amounts(stage.raffinate_amount, stage.raffinate),
                         amounts(stage.extract_amount, stage.extract)),
                     1e-9);
        EXPECT_NEAR(stage.raffinate[0] + stage.raffinate[1] + stage.raffinate[2], 1, 1e-12);
      }
      // The stages are whole ones; the raffinate asked for lies between the last two.
      EXPECT_LE(found.stages.back().raffinate[0], task.raffinate + 1e-12);
      EXPECT_GT(found.recovered, 0.8);
      // Over all: feed and solvent are the first extract and the last raffinate.
      expect_equal(sum(task.feed, amounts(S, task.solvent)),
                   sum(amounts(found.stages.front().extract_amount, found.stages.front().extract),
                       amounts(found.last_amount, found.last_raffinate)),
                   1e-9);
      EXPECT_NEAR(found.last_raffinate[0], task.raffinate, 1e-12);
      EXPECT_GT(counter_current(liquids, task, 1.1 * least).count,
                counter_current(liquids, task, 2 * least).count);
      EXPECT_THROW(counter_current(liquids, task, 0.98 * least), CalculationError);
      // Cross-flow needs more solvent for the same.
      const ExtractionStages cross = cross_flow(liquids, task, S);
      EXPECT_GT(cross.solvent, 0.9 * least);
      Fractions in = task.feed;
      for (const ExtractionStage& stage : cross.stages) {
        const Fractions out = sum(amounts(stage.raffinate_amount, stage.raffinate),
                                  amounts(stage.extract_amount, stage.extract));
        expect_equal(sum(in, amounts(S, task.solvent)), out, 1e-9);
        in = amounts(stage.raffinate_amount, stage.raffinate);
      }
    }
  }
}

// Carrier and solvent that do not mix, and a dilute solute with a constant coefficient m: with E = m S/F
// x_N/x_F = (E - 1)/(E^(N+1) - 1) (A. Kremser, Nat. Pet. News 22 (1930) 42; by ratios to the pure liquids).
TEST(Extraction, ImmiscibleLiquidsFollowTheClosedSolution) {
  const double m = 2.5;
  std::vector<Fractions> raffinate, extract;
  for (int k = 0; k <= 4000; ++k) {
    const double X = 0.05 * k / 4000, Y = m * X;  // ratios of solute to carrier and to solvent
    raffinate.push_back({X / (1 + X), 1 / (1 + X), 0});
    extract.push_back({Y / (1 + Y), 0, 1 / (1 + Y)});
  }
  const ExtractionLiquids liquids(raffinate, extract);
  const double XF = 0.02;
  for (const double E : {1.2, 1.6, 2.5}) {
    for (const int N : {2, 3, 5}) {
      const double S = E / m / (1 + XF);  // for each amount of feed, which holds 1/(1 + XF) of carrier
      const double X = XF * (E - 1) / (std::pow(E, N + 1) - 1);
      const ExtractionTask task{{XF / (1 + XF), 1 / (1 + XF), 0}, {0, 0, 1}, X / (1 + X)};
      const ExtractionStages found = counter_current(liquids, task, S);
      EXPECT_NEAR(found.count, N, 1e-3) << E;
      EXPECT_NEAR(found.recovered, 1 - X / XF, 1e-6);
      // In cross-flow each stage with solvent s leaves 1/(1 + m s) of the solute.
      const double s = S / N, left = XF * std::pow(1 + m * s * (1 + XF), -N);
      const ExtractionTask cross{task.feed, task.solvent, left / (1 + left)};
      EXPECT_NEAR(cross_flow(liquids, cross, s).count, N, 1e-3);
    }
  }
  // With infinitely many stages the first extract is in equilibrium with the feed.
  const double X = 0.001;
  const ExtractionTask task{{XF / (1 + XF), 1 / (1 + XF), 0}, {0, 0, 1}, X / (1 + X)};
  EXPECT_NEAR(minimum_solvent(liquids, task), (XF - X) / (m * XF) / (1 + XF), 2e-4);
}

// Acetic acid, water and isopropyl ether at 20 degC in per cent of mass: tie lines and worked examples as
// printed in R. E. Treybal, Mass-Transfer Operations, 3rd ed., McGraw-Hill 1980, chapter 10.
class TreybalsExamples : public ::testing::Test {
 protected:
  static ExtractionLiquids liquids() {
    constexpr double rows[][6] = {
        {0.69, 98.1, 1.2, 0.18, 0.5, 99.3},    {1.41, 97.1, 1.5, 0.37, 0.7, 98.9},
        {2.89, 95.5, 1.6, 0.79, 0.8, 98.4},    {6.42, 91.7, 1.9, 1.93, 1.0, 97.1},
        {13.30, 84.4, 2.3, 4.82, 1.9, 93.3},   {25.50, 71.1, 3.4, 11.40, 3.9, 84.7},
        {36.70, 58.9, 4.4, 21.60, 6.9, 71.5},  {44.30, 45.1, 10.6, 31.10, 10.8, 58.1},
        {46.40, 37.1, 16.5, 36.20, 15.1, 48.7}};
    // The book draws smooth curves through them; so do these, over the acid in the raffinate.
    using Curve = boost::math::interpolators::pchip<std::vector<double>>;
    const auto curve = [&](std::size_t column) {
      std::vector<double> acid, value;
      for (const auto& row : rows) {
        acid.push_back(row[0] / 100);
        value.push_back(row[column] / 100);
      }
      return Curve(std::move(acid), std::move(value));
    };
    const Curve water = curve(1), acid_in_extract = curve(3), water_in_extract = curve(4);
    // Without acid the liquids of the first tie line, less their acid.
    std::vector<Fractions> raffinate{{0, 0.988, 0.012}}, extract{{0, 0.005, 0.995}};
    constexpr int steps = 200;
    constexpr double first = 0.0069, last = 0.464;
    for (int k = 0; k < steps; ++k) {
      const double x = first + (last - first) * k / steps;
      raffinate.push_back({x, water(x), 1 - x - water(x)});
      const double acid = acid_in_extract(x), rest = water_in_extract(x);
      extract.push_back({acid, rest, 1 - acid - rest});
    }
    return {raffinate, extract};
  }

  static constexpr Fractions feed{0.3, 0.7, 0}, ether{0, 0, 1};
};

// Three times 40 kg of ether to 100 kg of 30 per cent acid. Printed, as read from the drawing: 96.4, 90.1 and
// 84.4 kg of raffinate with 25.8, 22.7 and 20 per cent of acid.
TEST_F(TreybalsExamples, CrossFlowGivesTheStreamsOfPrint) {
  const ExtractionStages found = cross_flow(liquids(), {feed, ether, 0.201}, 0.4);
  ASSERT_EQ(found.stages.size(), 3u);
  constexpr double amount[] = {0.964, 0.901, 0.844}, acid[] = {0.258, 0.227, 0.200},
                   extracted[] = {0.117, 0.095, 0.078};
  for (std::size_t n = 0; n < 3; ++n) {
    EXPECT_NEAR(found.stages[n].raffinate_amount, amount[n], 0.01) << n;
    EXPECT_NEAR(found.stages[n].raffinate[0], acid[n], 0.003) << n;
    EXPECT_NEAR(found.stages[n].extract[0], extracted[n], 0.003) << n;
  }
}

// 8000 kg/h of the same feed down to 2 per cent of acid, ether not counted. Printed: at least 13 040 kg/h of
// ether with a first extract of 14.3 per cent of acid, and 7.6 stages with 20 000 kg/h.
TEST_F(TreybalsExamples, CounterCurrentTakesTheSolventAndTheStagesOfPrint) {
  const ExtractionTask task{feed, ether, 0.02 * (1 - 0.0155)};
  // The printed amount is that of a pinch at the feed: there the first extract lies on the tie line that
  // points to the feed. Between the ends the lines touch a little earlier.
  const Fractions RN = liquids().raffinate(*liquids().with_solute(task.raffinate));
  const double pinched = 13040.0 / 8000;
  const Fractions whole{0.3 / (1 + pinched), 0.7 / (1 + pinched), pinched / (1 + pinched)};
  const auto first = liquids().extract_on_line(RN, whole, liquids().last());
  ASSERT_TRUE(first);
  EXPECT_NEAR(liquids().extract(*first)[0], 0.143, 0.002);
  const Fractions R = liquids().raffinate(*first), E = liquids().extract(*first);
  EXPECT_NEAR(R[0] - R[2] * (E[0] - R[0]) / (E[2] - R[2]), feed[0], 0.01);
  const double least = minimum_solvent(liquids(), task);
  EXPECT_GT(least, pinched);
  EXPECT_LT(least, 1.08 * pinched);
  EXPECT_GT(counter_current(liquids(), task, 1.001 * least).count, 50);
  EXPECT_NEAR(counter_current(liquids(), task, 2.5).count, 7.6, 0.3);
}

TEST(Extraction, WhatCannotBeDoneIsSaid) {
  // Tie lines that begin with solute say nothing of the liquids that have less.
  EXPECT_THROW(ExtractionLiquids({{0.1, 0.8, 0.1}, {0.2, 0.7, 0.1}}, {{0.1, 0.1, 0.8}, {0.2, 0.1, 0.7}}),
               RequestError);
  EXPECT_THROW(predicted({"acetone", "water", "methanol"}, "unifac", Basis::mole), CalculationError);
  EXPECT_THROW(predicted({"2-propanol", "toluene", "water"}, "unifac", Basis::mole, 353),
               CalculationError);  // three liquids
  const ExtractionLiquids liquids =
      predicted({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass);
  EXPECT_THROW(counter_current(liquids, {{0.3, 0.7, 0}, {0, 0, 1}, 0.01}, -1), RequestError);
  EXPECT_THROW(counter_current(liquids, {{0.3, 0.7, 0}, {0, 0, 1}, 0.01}, NAN), RequestError);
  EXPECT_THROW(counter_current(liquids, {{0.01, 0.99, 0}, {0, 0, 1}, 0.02}, 1), RequestError);
  EXPECT_THROW(counter_current(liquids, {{0.3, 0.7, 0}, {0, 0, 1}, 0.01}, 500),
               CalculationError);  // all dissolves
  EXPECT_THROW(cross_flow(liquids, {{0.3, 0.7, 0}, {0, 0, 1}, 0.01}, 0), RequestError);
  EXPECT_THROW(ExtractionLiquids({{0, 1, 0}}, {{0, 0, 1}}), RequestError);
}

}  // namespace
}  // namespace jampot
