// Fits with vapour pressures of their own data, or with factors that are fitted.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/regression/fit.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

// Points of a mixture whose vapour pressures are those of the bank times these, with its pure points.
DataSet shifted(std::array<double, 2> factors, unsigned seed, double scale = 1) {
  const Mixture mixture = test::mtbe_methanol();
  std::vector<Substance> substances = mixture.substances();
  for (std::size_t i = 0; i < 2; ++i)
    substances[i].vapour_pressure = substances[i].vapour_pressure->scaled(factors[i]);
  ParameterCollection parameters;
  for (const PairParameters& pair : mixture.parameters()) parameters.add(pair);
  DataSet set = test::synthetic(Mixture(substances, "nrtl", parameters), DataKind::pxy, 15, seed, scale);
  for (const std::size_t i : {0u, 1u}) {
    const std::vector<double> x{i == 0 ? 1.0 : 0.0, i == 0 ? 0.0 : 1.0};
    set.points.push_back({330, substances[i].vapour_pressure->P_Pa(330), x, x, 0.05, 50, 0.002, 0.004, 100});
  }
  set.substances = mixture.substances();
  return set;
}

double tau(const Fit& fit, std::size_t k) {
  return fit.free()[k]->value;
}

FitOptions taking(PurePressures pure) {
  FitOptions options;
  options.pure = pure;
  const Mixture mixture = test::mtbe_methanol();
  options.hold["alpha"] = mixture.parameters()[0].terms.at("alpha").constant;
  return options;
}

TEST(ScaledVapourPressure, IsTheFactorTimesAsHighEverywhere) {
  const Substance water = substances_named({"water"}).front();
  const VapourPressure twice = water.vapour_pressure->scaled(2);
  for (double T = 200; T < 700; T += 13) {
    EXPECT_NEAR(twice.P_Pa(T), 2 * water.vapour_pressure->P_Pa(T), 1e-9 * twice.P_Pa(T)) << T;
    EXPECT_NEAR(twice.dln_P_dT(T), water.vapour_pressure->dln_P_dT(T), 1e-12);
  }
  for (const double P : {1e2, 1e4, 1e5, 1e6}) EXPECT_NEAR(twice.P_Pa(twice.T_K(P)), P, 1e-6 * P);
}

TEST(PurePressures, OwnOnesGiveTheParametersBack) {
  const DataSet set = shifted({1.02, 0.985}, 3, 0.1);
  const PairParameters truth = test::mtbe_methanol().parameters()[0];
  const Fit bank = fit({set}, taking(PurePressures::bank));
  EXPECT_TRUE(bank.notices.has("own-vapour-pressures"));
  EXPECT_TRUE(bank.pure_factors.empty());
  const Fit own = fit({set}, taking(PurePressures::own));
  ASSERT_EQ(own.pure_factors.size(), 2u);
  EXPECT_NEAR(own.pure_factors[0].factor, 1.02, 1e-6);
  EXPECT_NEAR(own.pure_factors[1].factor, 0.985, 1e-6);
  EXPECT_NEAR(tau(own, 0), truth.terms.at("tau_12").inverse_T, 3 * own.free()[0]->std_error);
  EXPECT_LT(own.objective, 0.1 * bank.objective);
  EXPECT_FALSE(own.notices.has("own-vapour-pressures"));
  Mixture mixture = own.mixture();
  EXPECT_NEAR(bubble_pressure(mixture, 330, std::vector<double>{1, 0}).P_Pa, set.points[15].P_Pa, 1);
}

TEST(PurePressures, FittedOnesCarryTheirUncertainty) {
  const DataSet set = shifted({1.02, 0.985}, 3);
  FitOptions options = taking(PurePressures::fit);
  options.u_pure = 0.02;
  const Fit result = fit({set}, options);
  ASSERT_EQ(result.pure_factors.size(), 2u);
  EXPECT_NEAR(result.pure_factors[0].factor, 1.02, 4 * result.pure_factors[0].u);
  EXPECT_NEAR(result.pure_factors[1].factor, 0.985, 4 * result.pure_factors[1].u);
  EXPECT_GT(result.chi_square_probability, 1e-3);
  EXPECT_EQ(result.comparisons, 15 * 2 + 2 + 2);  // points, pure points, what was known
  // Hardly known beforehand, a factor leaves the pair less certain than a vapour pressure taken as exact.
  const Fit own = fit({set}, taking(PurePressures::own));
  EXPECT_GT(result.free()[0]->std_error, own.free()[0]->std_error);
  // Known exactly they are those of the bank.
  options.u_pure = 1e-7;
  const Fit exact = fit({shifted({1, 1}, 3)}, options);
  const Fit bank = fit({shifted({1, 1}, 3)}, taking(PurePressures::bank));
  EXPECT_NEAR(tau(exact, 0), tau(bank, 0), 1e-3 * bank.free()[0]->std_error + 1e-4);
}

TEST(PurePressures, NeedWhatTheyNeed) {
  const DataSet without = test::synthetic(test::mtbe_methanol(), DataKind::pxy, 15, 3);
  EXPECT_THROW(fit({without}, taking(PurePressures::own)), RequestError);
  EXPECT_NO_THROW(fit({without}, taking(PurePressures::fit)));
  FitOptions options = taking(PurePressures::fit);
  options.objective = Objective::bubble_pressure;
  EXPECT_THROW(fit({without}, options), RequestError);
}

}  // namespace
}  // namespace jampot
