// Fits and comparisons that say what they rest on: dilute liquids, uncertainties, excluded and repeated
// points.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/regression/ranking.hpp"
#include "jampot/regression/statistics.hpp"

namespace jampot {
namespace {

const std::string boiling =
    "# substances: methyl tert-butyl ether, methanol\n# u(T): 0.05 K\n# u(P): 50 Pa\n# u(x): 0.002\n# u(y): "
    "0.004\n"
    "T [degC], P [kPa], x1, y1, exclude\n";
const std::string rows =
    "60.99, 101.39, 0.0534, 0.1776,\n54, 101.3, 0.25, 0.47,\n52, 101.3, 0.45, 0.58,\n51.4, 101.3, 0.6, "
    "0.65,\n"
    "52, 101.3, 0.86, 0.8,\n";

// Toluene in water, a hundredth of a per cent: the fit reaches what was measured.
TEST(DiluteLiquids, KeepTheirMeasuredNumbers) {
  const double measured = 0.000104;
  const DataSet data = parse_measured(
      "# substances: toluene, water\nT [degC], x1_alpha, x1_beta\n25, 0.9972, 0.000104\n30, 0.9970, "
      "0.000106\n",
      "lle.csv");
  FitOptions options;
  options.form = {Coefficient::inverse_T};
  const Fit result = fit({data}, options);
  Mixture mixture = result.mixture();
  const auto splits = binary_splits(mixture.activity(), 298.15);
  ASSERT_EQ(splits.size(), 1u);
  EXPECT_NEAR(splits[0].x1_alpha, measured, 0.1 * measured);
  EXPECT_NEAR(1 - splits[0].x1_beta, 0.0028, 0.1 * 0.0028);
}

// 0.001 in mass fraction is 0.0004 in the mole fraction of the one liquid and 0.003 in that of the other.
TEST(Uncertainties, OfMassFractionsAreConvertedWithTheirOwnLiquid) {
  const DataSet data = parse_measured(
      "# substances: 1-butanol, water\n# u(w): 0.001\nT [degC], w1_alpha, w1_beta\n25, 0.797, 0.0735\n",
      "lle.csv");
  const DataPoint& point = data.points[0];
  const double M1 = data.substances[0].molar_mass_kg_mol, M2 = data.substances[1].molar_mass_kg_mol;
  const auto expected = [&](double x1) {
    const double mean = x1 * M1 + (1 - x1) * M2;
    return 0.001 * mean * mean / (M1 * M2);
  };
  EXPECT_NEAR(point.u_x, expected(point.x[0]), 1e-12);
  EXPECT_NEAR(point.u_y, expected(point.y[0]), 1e-12);
  EXPECT_GT(point.u_x, 3 * point.u_y);
}

TEST(Uncertainties, APercentageIsOfTheMeasuredValue) {
  const auto gamma = parse_measured(
      "# substances: ethanol, water\n# u(gamma): 5 %\nT [degC], solute, gamma\n25, ethanol, 3.7\n25, water, "
      "2.6\n",
      "g.csv");
  EXPECT_NEAR(gamma.points[0].u_value, 0.185, 1e-12);
  EXPECT_NEAR(gamma.points[1].u_value, 0.13, 1e-12);
  const auto column = parse_measured(
      "# substances: ethanol, water\nT [degC], solute, gamma, u(gamma) [%]\n25, ethanol, 3.7, 10\n", "g.csv");
  EXPECT_NEAR(column.points[0].u_value, 0.37, 1e-12);
  const auto pressure = parse_measured(
      "# substances: ethanol, water\n# u(P): 0.1 %\n# u(x): 1 %\nT [degC], P [kPa], x1\n78, 100, 0.2\n",
      "p.csv");
  EXPECT_NEAR(pressure.points[0].u_P_Pa, 100, 1e-9);
  EXPECT_NEAR(pressure.points[0].u_x, 0.002, 1e-12);
  const auto liquids = parse_measured(
      "# substances: toluene, water\n# u(x): 3 %\nT [degC], x1_alpha, x1_beta\n25, 0.9972, 0.000104\n",
      "l.csv");
  EXPECT_NEAR(u_of_fraction(0.000104, liquids.points[0].u_y, liquids.points[0].relative_u_x), 3.12e-6, 1e-12);
  EXPECT_THROW(
      parse_measured("# substances: ethanol, water\n# u(T): 1 %\nT [degC], P [kPa], x1\n78, 100, 0.2\n",
                     "p.csv"),
      RequestError);
  EXPECT_THROW(parse_measured(
                   "# substances: ethanol, water\n# u(x): 5\nT [degC], P [kPa], x1\n78, 100, 0.2\n", "p.csv"),
               RequestError);
}

TEST(Uncertainties, ThatNothingUsesAreTold) {
  EXPECT_TRUE(
      parse_measured("# substances: ethanol, water\n# u(y): 0.01\nT [degC], P [kPa], x1\n78, 100, 0.2\n",
                     "p.csv")
          .notices.has("uncertainty-unused"));
  EXPECT_TRUE(
      parse_measured(
          "# substances: ethanol, water\n# u(T): 0.1 K\n# u(hE): 5 J/mol\nT [degC], x1, hE [J/mol]\n25, "
          "0.2, -700\n",
          "h.csv")
          .notices.has("uncertainty-unused"));
  EXPECT_FALSE(parse_measured(boiling + rows, "b.csv").notices.has("uncertainty-unused"));
}

TEST(Comparisons, CountNoExcludedPoint) {
  const DataSet good = parse_measured(boiling + rows, "b.csv");
  const DataSet bad = parse_measured(boiling + rows + "70, 101.3, 0.3, 0.5, leak in the line\n", "b.csv");
  Mixture mixture = fit({good}).mixture();
  const Comparison a = compare(mixture, good), b = compare(mixture, bad);
  EXPECT_EQ(b.rows.size(), a.rows.size() + 1);
  EXPECT_EQ(b.T_K->count, a.T_K->count);
  EXPECT_EQ(b.T_K->root_mean_square, a.T_K->root_mean_square);
}

TEST(Fits, SayWhatTheDataDoNotShow) {
  const DataSet data = parse_measured(boiling + rows, "b.csv");
  DataSet again = data;
  again.name = "copy.csv";
  EXPECT_TRUE(fit({data, again}).notices.has("repeated-points"));
  EXPECT_FALSE(fit({data}).notices.has("repeated-points"));
  std::string isothermal = "# substances: methyl tert-butyl ether, methanol\nT [degC], P [kPa], x1\n";
  for (const auto& [x, P] : {std::pair(0.1, 70.0), std::pair(0.3, 95.0), std::pair(0.5, 103.0),
                             std::pair(0.7, 105.0), std::pair(0.9, 98.0)})
    isothermal += "50, " + std::to_string(P) + ", " + std::to_string(x) + "\n";
  FitOptions two;
  two.form = {Coefficient::constant, Coefficient::inverse_T};
  EXPECT_TRUE(fit({parse_measured(isothermal, "i.csv")}, two).notices.has("temperature-not-varied"));
}

TEST(Fits, DoNotAddKindsInDifferentUnits) {
  const DataSet vapours = parse_measured(boiling + rows, "b.csv");
  const DataSet gamma = parse_measured(
      "# substances: methyl tert-butyl ether, methanol\nT [degC], solute, gamma\n50, MTBE, 2.4\n", "g.csv");
  FitOptions options;
  options.objective = Objective::bubble_pressure;
  EXPECT_THROW(fit({vapours, gamma}, options), RequestError);
  EXPECT_NO_THROW(fit({vapours, gamma}));
}

// The Wilson equation needs a molar volume that ethylene oxide lacks: the others are ranked all the same.
TEST(Fits, OneModelThatFailsDoesNotEndARanking) {
  const DataSet data = parse_measured(
      "# substances: ethylene oxide, water\nT [degC], P [kPa], x1\n20, 40, 0.1\n20, 70, 0.25\n20, 95, "
      "0.5\n20, 120, "
      "0.75\n20, 135, 0.9\n",
      "d.csv");
  ASSERT_FALSE(data.substances[0].molar_volume_25C_m3_mol);
  const auto ranked = rank_models({data}, {}, {"wilson", "nrtl"}, 2);
  ASSERT_EQ(ranked.size(), 1u);
  EXPECT_EQ(ranked[0].fit.options.model, "nrtl");
  EXPECT_TRUE(ranked[0].fit.notices.has("model-not-fitted"));
  EXPECT_THROW(rank_models({data}, {}, {"wilson"}, 2), CalculationError);
}

TEST(RunsTest, ResidualsOnOneSideAreNotNoise) {
  const std::vector<double> nine(9, 0.3);
  const RunsTest test = runs_test(nine);
  EXPECT_TRUE(test.one_sign);
  EXPECT_NEAR(test.probability, std::pow(2.0, -8), 1e-12);
}

}  // namespace
}  // namespace jampot
