// Series of states: activity coefficients against measured ones, distribution, isotherms, comparisons.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/diagram/isotherms.hpp"
#include "jampot/diagram/liquid_comparison.hpp"
#include "jampot/diagram/separation.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;

// Exact boiling points of a mixture as if they had been measured.
DataSet exact_data(Mixture& mixture, DataKind kind = DataKind::txy) {
  DataSet data;
  data.name = "exact";
  data.kind = kind;
  data.substances = mixture.substances();
  for (double x = 0.05; x < 1; x += 0.1) {
    const VlePoint point = bubble_temperature(mixture, 101325, std::vector<double>{x, 1 - x});
    DataPoint measured{point.T_K, point.P_Pa, point.x, point.y, 0.05, 50, 0.001, 0.002};
    measured.line = static_cast<int>(data.points.size()) + 2;
    data.points.push_back(measured);
  }
  return data;
}

TEST(Gamma, ExcessFunctionsBelongTogether) {
  Mixture mixture = test::mtbe_methanol();
  for (const GammaPoint& point : gamma_line(mixture.activity(), 320, 11)) {
    double gE = 0;
    for (std::size_t i = 0; i < 2; ++i) gE += point.x[i] * point.ln_gamma[i];
    EXPECT_NEAR(point.gE_J_mol, 8.314462618 * 320 * gE, 1e-9);
    // hE = -T^2 d(gE/T)/dT
    const double slope =
        derivative([&](double T) { return gamma_at(mixture.activity(), T, point.x).gE_J_mol / T; }, 320, 0.1);
    EXPECT_NEAR(point.hE_J_mol, -320.0 * 320 * slope, 1e-4 * (1 + std::abs(point.hE_J_mol)));
  }
}

TEST(Gamma, LimitsAreTheEndsOfTheLine) {
  Mixture mixture = test::mtbe_methanol();
  const auto line = gamma_line(mixture.activity(), 330, 3);
  EXPECT_NEAR(limiting_ln_gamma(mixture.activity(), 330, 0, 1), line.front().ln_gamma[0], 1e-14);
  EXPECT_NEAR(limiting_ln_gamma(mixture.activity(), 330, 1, 0), line.back().ln_gamma[1], 1e-14);
}

TEST(Gamma, MeasuredOnesOfExactDataAreTheModels) {
  Mixture mixture = test::mtbe_methanol();
  const DataSet data = exact_data(mixture);
  const auto measured = measured_gammas(mixture.activity(), data);
  ASSERT_EQ(measured.size(), 2 * data.points.size());
  for (const MeasuredGamma& point : measured) {
    EXPECT_NEAR(point.ln_gamma, point.model, 1e-9);
    EXPECT_GE(point.line, 2);
  }
}

TEST(Gamma, WhatSaysNothingIsLeftOut) {
  Mixture mixture = test::mtbe_methanol();
  DataSet data = exact_data(mixture);
  const std::size_t all = data.points.size();
  data.points[0].excluded = "a bubble in the ebulliometer";
  data.points[1].x = {1, 0};
  data.points[1].y = {1, 0};
  EXPECT_EQ(measured_gammas(mixture.activity(), data).size(), 2 * (all - 2));
  data.kind = DataKind::tx;
  EXPECT_TRUE(measured_gammas(mixture.activity(), data).empty());
}

TEST(Gamma, MeasuredLimitsKnowSoluteAndSolvent) {
  Mixture mixture = test::mtbe_methanol();
  DataSet data;
  data.name = "limits";
  data.kind = DataKind::gamma_inf;
  data.substances = mixture.substances();
  DataPoint point;
  point.T_K = 310;
  point.x = {1, 0};
  point.value = 3.2;
  point.solute = 1;
  point.solvent = 0;
  data.points.push_back(point);
  const auto measured = measured_gammas(mixture.activity(), data);
  ASSERT_EQ(measured.size(), 1u);
  EXPECT_EQ(measured[0].component, 1u);
  EXPECT_EQ(measured[0].x, (std::vector<double>{1, 0}));
  EXPECT_NEAR(measured[0].ln_gamma, std::log(3.2), 1e-15);
  EXPECT_NEAR(measured[0].model, limiting_ln_gamma(mixture.activity(), 310, 1, 0), 1e-15);
  // In another order of the substances the solute stays what it was.
  const std::vector<Substance> reversed{mixture.substances()[1], mixture.substances()[0]};
  const DataSet other = in_order_of(reversed, data);
  EXPECT_EQ(other.points[0].solute, 0u);
  EXPECT_EQ(other.points[0].solvent, 1u);
}

TEST(Comparing, SummariesAreWhatTheyAreCalled) {
  const DeviationSummary s = summarise({1, -3, 2, 0});
  EXPECT_EQ(s.count, 4);
  EXPECT_DOUBLE_EQ(s.mean, 0);
  EXPECT_DOUBLE_EQ(s.mean_absolute, 1.5);
  EXPECT_DOUBLE_EQ(s.root_mean_square, std::sqrt(14.0 / 4));
  EXPECT_DOUBLE_EQ(s.largest, -3);
  EXPECT_EQ(summarise({}).count, 0);
}

TEST(Comparing, IsothermalDataAreComparedInPressure) {
  Mixture mixture = test::mtbe_methanol();
  DataSet data = exact_data(mixture, DataKind::pxy);
  for (DataPoint& point : data.points) point.P_Pa *= 1.01;
  const Comparison comparison = compare(mixture, data);
  EXPECT_FALSE(comparison.T_K);
  ASSERT_TRUE(comparison.P_Pa);
  EXPECT_NEAR(comparison.P_Pa->mean, -0.01 * 101325, 1);
  for (const auto& y : comparison.y) EXPECT_LT(y.mean_absolute, 1e-9);
}

TEST(Comparing, DataAboutOthersAreRefused) {
  Mixture mixture = test::mtbe_methanol();
  EXPECT_THROW(in_order_of(substances_named({"ethanol", "methanol"}), exact_data(mixture)), RequestError);
  EXPECT_THROW(
      in_order_of(substances_named({"methyl tert-butyl ether", "methanol", "water"}), exact_data(mixture)),
      RequestError);
}

Mixture extraction() {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("water", "toluene", 1500, 1900, 0.2));
  parameters.add(test::nrtl_pair("water", "acetone", 500, 200, 0.3));
  parameters.add(test::nrtl_pair("toluene", "acetone", 100, 100, 0.3));
  return {substances_named({"water", "toluene", "acetone"}), "nrtl", parameters};
}

TEST(Distributing, CoefficientsAndSelectivitiesFollowFromTheTieLines) {
  Mixture mixture = extraction();
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), 298.15);
  ASSERT_FALSE(diagram.tie_lines.empty());
  const Extraction roles = roles_in(diagram, std::nullopt, std::nullopt);
  EXPECT_EQ(roles.solute, 2u);
  EXPECT_EQ(roles.carrier, 0u);
  EXPECT_EQ(roles.solvent, 1u);
  for (const Basis basis : {Basis::mole, Basis::mass}) {
    const Distribution spread = distribution(diagram, roles, mixture.substances(), basis);
    double before = -1;
    for (const DistributionPoint& point : spread.points) {
      EXPECT_NEAR(point.coefficient, point.in_solvent / point.in_carrier, 1e-12 * point.coefficient);
      EXPECT_GT(point.selectivity, 1);
      EXPECT_GE(point.in_carrier, before);
      before = point.in_carrier;
    }
  }
  const Extraction reversed = roles_in(diagram, std::nullopt, std::size_t{0});
  EXPECT_EQ(reversed.solvent, 0u);
  EXPECT_EQ(reversed.carrier, 1u);
  EXPECT_THROW(roles_in(diagram, std::size_t{1}, std::size_t{1}), RequestError);
}

// A selectivity is a ratio of ratios: the same by mole and by mass.
TEST(Distributing, SelectivityDoesNotDependOnTheBasis) {
  Mixture mixture = extraction();
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), 298.15);
  const Extraction roles = roles_in(diagram, std::nullopt, std::nullopt);
  const auto mole = distribution(diagram, roles, mixture.substances(), Basis::mole).points,
             mass = distribution(diagram, roles, mixture.substances(), Basis::mass).points;
  ASSERT_EQ(mole.size(), mass.size());
  for (std::size_t k = 0; k < mole.size(); ++k)
    EXPECT_NEAR(mole[k].selectivity / mass[k].selectivity, 1, 1e-9);
}

TEST(ComparingLiquids, ShiftedPairsHaveTheirShift) {
  Mixture mixture = extraction();
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), 298.15);
  DataSet data;
  data.name = "pairs";
  data.kind = DataKind::lle;
  data.substances = mixture.substances();
  for (std::size_t k = 2; k < diagram.tie_lines.size(); k += 5) {
    const TieLine& line = diagram.tie_lines[k].line;
    DataPoint point;
    point.T_K = 298.15;
    point.x.assign(line.alpha.begin(), line.alpha.end());
    point.y.assign(line.beta.begin(), line.beta.end());
    data.points.push_back(point);
  }
  const LiquidComparison exact = compare_liquids(mixture.activity(), data);
  EXPECT_EQ(exact.without, 0);
  EXPECT_LT(exact.distance.largest, 1e-8);
  DataPoint elsewhere = data.points.front();
  elsewhere.x = elsewhere.y = {0.02, 0.03, 0.95};  // one liquid
  data.points.push_back(elsewhere);
  EXPECT_EQ(compare_liquids(mixture.activity(), data).without, 1);
}

TEST(Isotherm, PassesWhereTheMixtureBoilsAtIt) {
  Mixture mixture(substances_named({"acetone", "chloroform", "methanol"}), "unifac", {});
  const BoilingRegions none = boiling_regions(mixture, 101325);
  EXPECT_TRUE(none.regions.empty());
  const auto lines = isotherms(mixture, 101325, none, {331.15, 334.15, 400});
  ASSERT_FALSE(lines.empty());
  for (const Isotherm& line : lines) {
    EXPECT_LT(line.T_K, 399);  // nothing boils at 400 K
    for (std::size_t k = 0; k < line.x.size(); k += 7) {
      const auto& x = line.x[k];
      const double T = bubble_temperature(mixture, 101325, std::vector<double>{x[0], x[1], x[2]}).T_K;
      EXPECT_NEAR(T, line.T_K, 0.02);
    }
  }
}

TEST(SharpSplits, ProductsAndFeedLieOnOneLine) {
  Mixture mixture(substances_named({"acetone", "chloroform", "methanol"}), "unifac", {});
  ResidueOptions options;
  options.curves = 0;
  const ResidueMap map = residue_map(mixture, 101325, options);
  std::mt19937_64 generator(13);
  for (int k = 0; k < 12; ++k) {
    const std::vector<double> x = test::random_composition(generator, 3);
    const std::array<double, 3> z{x[0], x[1], x[2]};
    const FeedReading reading = read_feed(mixture, map, z);
    ASSERT_TRUE(reading.region) << k;
    for (const auto* line : {&reading.direct, &reading.indirect}) {
      ASSERT_TRUE(*line);
      const BalanceLine& products = **line;
      EXPECT_GT(products.distillate_share, 0);
      EXPECT_LT(products.distillate_share, 1);
      for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_NEAR(products.distillate_share * products.distillate[i] +
                        (1 - products.distillate_share) * products.bottoms[i],
                    z[i], 1e-9);
        EXPECT_GT(products.bottoms[i], -1e-9);
        EXPECT_GT(products.distillate[i], -1e-9);
      }
    }
    // What goes over the top boils below the feed, what stays above it.
    const auto boils = [&](const std::array<double, 3>& p) {
      const std::vector<double> at{std::clamp(p[0], 0.0, 1.0), std::clamp(p[1], 0.0, 1.0),
                                   1 - std::clamp(p[0], 0.0, 1.0) - std::clamp(p[1], 0.0, 1.0)};
      return bubble_temperature(mixture, 101325, at).T_K;
    };
    EXPECT_LT(boils(reading.direct->distillate), reading.T_K + 1e-6);
    EXPECT_GT(boils(reading.indirect->bottoms), reading.T_K - 1e-6);
  }
}

TEST(Curves, ConvergeWithTheNumberOfPoints) {
  Mixture mixture = test::mtbe_methanol();
  const BinaryCurve coarse = txy(mixture, 101325, {11}), fine = txy(mixture, 101325, {401});
  ASSERT_EQ(coarse.azeotropes.size(), 1u);
  ASSERT_EQ(fine.azeotropes.size(), 1u);
  EXPECT_NEAR(coarse.azeotropes[0].x1, fine.azeotropes[0].x1, 1e-9);
  for (std::size_t k = 0; k < coarse.points.size(); ++k)
    EXPECT_NEAR(coarse.points[k].T_K, fine.points[40 * k].T_K, 1e-9);
}

TEST(Curves, RelativeVolatilityIsOneAtTheAzeotropeAndChangesSides) {
  Mixture mixture = test::mtbe_methanol();
  const BinaryCurve curve = txy(mixture, 101325);
  const double x = curve.azeotropes.at(0).x1;
  for (const BinaryPoint& point : curve.points) {
    if (point.x[0] < x - 0.005) {
      EXPECT_GT(point.relative_volatility(), 1) << point.x[0];
    }
    if (point.x[0] > x + 0.005) {
      EXPECT_LT(point.relative_volatility(), 1) << point.x[0];
    }
    EXPECT_NEAR(
        point.K[0],
        point.gamma[0] * std::exp(mixture.substances()[0].vapour_pressure->ln_P(point.T_K)) / point.P_Pa,
        1e-9 * point.K[0]);
  }
}

}  // namespace
}  // namespace jampot
