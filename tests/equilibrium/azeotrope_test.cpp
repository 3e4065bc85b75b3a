#include "jampot/equilibrium/azeotrope.hpp"

#include <gtest/gtest.h>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "support.hpp"

namespace jampot {
namespace {

Mixture with(std::unique_ptr<ActivityModel> model) {
  return {substances_named({"methyl tert-butyl ether", "methanol"}), std::move(model), {}};
}

double ln_psat_ratio(const Mixture& mixture, double T_K) {
  return mixture.substances()[0].vapour_pressure->ln_P(T_K) -
         mixture.substances()[1].vapour_pressure->ln_P(T_K);
}

TEST(Azeotrope, MatchesTheClosedFormOfMargules) {
  // ln alpha = ln(P1/P2) + A (1 - 2 x1) = 0
  for (const double A : {1.2, -1.2}) {
    Mixture mixture = with(std::make_unique<test::Margules>(A));
    const BinaryCurve curve = pxy(mixture, 325);
    ASSERT_EQ(curve.azeotropes.size(), 1u);
    EXPECT_NEAR(curve.azeotropes[0].x1, 0.5 * (1 + ln_psat_ratio(mixture, 325) / A), 1e-12);
    EXPECT_EQ(curve.azeotropes[0].extremum, A > 0 ? Extremum::minimum_boiling : Extremum::maximum_boiling);
  }
}

TEST(Azeotrope, NoneWhereThereIsNone) {
  Mixture ideal(substances_named({"ethanol", "toluene"}), "ideal", {});
  EXPECT_TRUE(txy(ideal, 101325).azeotropes.empty());
}

TEST(Azeotrope, APairBetweenTwoSamplesIsFound) {
  // ln alpha = r + A (1 - 2x) + B (6 x (1-x) - 1) is a parabola in x; A and B put both of its zeros at 0.47
  // and 0.53, between samples 0.1 apart.
  Mixture probe = with(std::make_unique<test::Margules>(1.0));
  const double T = 325, r = ln_psat_ratio(probe, T), product = 0.47 * 0.53, sum = 1.0;
  // -6B x^2 + (6B - 2A) x + r + A - B = -6B (x^2 - sum x + product)
  // => 6B - 2A = 6B sum, r + A - B = -6B product
  const double B_over = 1 - 6 * product - 3 * (1 - sum);  // r = B (1 - 6 product) - A, A = 3B (1 - sum)
  const double B = r / B_over, A = 3 * B * (1 - sum);
  Mixture mixture = with(std::make_unique<test::Margules>(A, B));
  const BinaryCurve coarse = pxy(mixture, T, {11});
  ASSERT_EQ(coarse.azeotropes.size(), 2u);
  EXPECT_NEAR(coarse.azeotropes[0].x1, 0.47, 1e-9);
  EXPECT_NEAR(coarse.azeotropes[1].x1, 0.53, 1e-9);
  EXPECT_NE(coarse.azeotropes[0].extremum, coarse.azeotropes[1].extremum);
}

TEST(Azeotrope, IsAnExtremumOfTheBoilingCurve) {
  Mixture mixture = test::mtbe_methanol();
  const Azeotrope azeotrope = txy(mixture, 101325).azeotropes.at(0);
  EXPECT_LT(azeotrope.residual, 1e-12);
  const auto T = [&](double x1) {
    return bubble_temperature(mixture, 101325, std::vector<double>{x1, 1 - x1}).T_K;
  };
  EXPECT_NEAR(T(azeotrope.x1), azeotrope.T_K, 1e-10);
  EXPECT_GT(T(azeotrope.x1 - 0.01), azeotrope.T_K);
  EXPECT_GT(T(azeotrope.x1 + 0.01), azeotrope.T_K);
  EXPECT_NEAR(test::derivative(T, azeotrope.x1, 1e-3), 0, 1e-6);
}

TEST(Azeotrope, SensitivitiesMatchDifferences) {
  for (const Sought sought : {Sought::temperature, Sought::pressure}) {
    Mixture mixture = test::mtbe_methanol();
    const auto locate = [&] {
      return (sought == Sought::temperature ? txy(mixture, 101325) : pxy(mixture, 330)).azeotropes.at(0);
    };
    const AzeotropeSensitivity exact = azeotrope_sensitivity(mixture, sought, locate());
    for (std::size_t term = 0; term < 3; ++term) {
      const double before = mixture.activity().terms()[term].function.constant;
      const auto along = [&](bool composition) {
        return [&, composition](double value) {
          mixture.activity().set_coefficient(term, Coefficient::constant, value);
          const Azeotrope a = locate();
          return composition ? a.x1 : sought == Sought::temperature ? a.T_K : std::log(a.P_Pa);
        };
      };
      EXPECT_NEAR(exact.dx1[term], test::derivative(along(true), before, 1e-3), 1e-6);
      EXPECT_NEAR(exact.dheld[term], test::derivative(along(false), before, 1e-3), 1e-6);
      mixture.activity().set_coefficient(term, Coefficient::constant, before);
    }
  }
}

TEST(ThreePhase, AllThreeHaveEqualFugacities) {
  Mixture mixture = test::butanol_water();
  const BinaryCurve curve = txy(mixture, 101325);
  ASSERT_EQ(curve.three_phases.size(), 1u);
  const ThreePhase line = curve.three_phases[0];
  for (const double x1 : {line.x1_alpha, line.x1_beta}) {
    const VlePoint boiling = bubble_temperature(mixture, 101325, std::vector<double>{x1, 1 - x1});
    EXPECT_NEAR(boiling.T_K, line.T_K, 1e-8);
    EXPECT_NEAR(boiling.y[0], line.y1, 1e-9);
  }
  ASSERT_EQ(curve.azeotropes.size(), 1u);
  EXPECT_TRUE(curve.azeotropes[0].heterogeneous);
  EXPECT_NEAR(curve.azeotropes[0].x1, line.y1, 1e-15);
  // isothermally at that temperature the same line stands at the same pressure
  const BinaryCurve isothermal = pxy(mixture, line.T_K);
  ASSERT_EQ(isothermal.three_phases.size(), 1u);
  EXPECT_NEAR(isothermal.three_phases[0].P_Pa, 101325, 1e-5);
}

}  // namespace
}  // namespace jampot
