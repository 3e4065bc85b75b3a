// Both phases from one equation of state: bubble and dew points, diagrams up to the critical point, pure
// saturation.
#include <gtest/gtest.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/fluid/pure_saturation.hpp"
#include "support.hpp"

namespace jampot {
namespace {

Mixture eos(const std::vector<std::string>& names, const std::string& equation) {
  VapourChoice choice;
  choice.model = equation;
  return {substances_named(names), "eos", {}, choice};
}

class OneEquation : public ::testing::TestWithParam<std::string> {};

TEST_P(OneEquation, SaturationIsWhereBothVolumesHaveTheSameFugacity) {
  for (const char* name : {"methane", "propane", "n-hexane", "toluene"}) {
    const auto equation = make_equation(GetParam(), substances_named({name}));
    const PureCritical critical = pure_critical(*equation, 0);
    EXPECT_NEAR(critical.T_K / *substances_named({name})[0].Tc_K, 1, 0.04) << name;
    for (const double Tr : {0.5, 0.7, 0.9, 0.99, 0.9995}) {
      const auto s = pure_saturation_P(*equation, 0, Tr * critical.T_K);
      ASSERT_TRUE(s) << name << " at " << Tr;
      const VolumeRoots roots = equation->volumes(s->T_K, s->P_Pa, std::vector<double>{1.0});
      ASSERT_EQ(roots.size(), 2u);
      EXPECT_NEAR(roots[0].gibbs, roots[1].gibbs, 1e-9);
      EXPECT_GT(s->Hvap_J_mol, 0);
      const auto back = pure_saturation_T(*equation, 0, s->P_Pa);
      ASSERT_TRUE(back) << name << " at " << Tr;
      EXPECT_NEAR(back->T_K, s->T_K, 1e-6 * s->T_K);
      // The slope of the vapour pressure gives the enthalpy of vaporisation.
      const double step = 1e-4 * s->T_K;
      if (Tr > 0.99) continue;
      const double slope = (pure_saturation_P(*equation, 0, s->T_K + step)->P_Pa -
                            pure_saturation_P(*equation, 0, s->T_K - step)->P_Pa) /
                           (2 * step);
      EXPECT_NEAR(slope * s->T_K * (s->v_vapour_m3_mol - s->v_liquid_m3_mol) / s->Hvap_J_mol, 1, 1e-5);
    }
    EXPECT_FALSE(pure_saturation_P(*equation, 0, 1.02 * critical.T_K));
    EXPECT_FALSE(pure_saturation_T(*equation, 0, 1.05 * critical.P_Pa));
  }
}

// A bubble point and the dew point of its vapour are one state; the flash between them has two phases.
TEST_P(OneEquation, BubbleAndDewPointsAgree) {
  std::mt19937_64 generator(9);
  std::uniform_real_distribution<double> T(250, 380);
  Mixture mixture = eos({"ethane", "propane", "n-butane", "n-hexane"}, GetParam());
  int done = 0;
  for (int k = 0; k < 15; ++k) {
    const auto z = test::random_composition(generator, 4);
    const double T_K = T(generator);
    VlePoint bubble;
    try {
      bubble = bubble_pressure(mixture, T_K, z);
    } catch (const CalculationError&) {
      continue;  // above its critical temperature
    }
    ++done;
    EXPECT_LT(bubble.residual, 1e-10);
    const VlePoint again = bubble_temperature(mixture, bubble.P_Pa, z);
    EXPECT_NEAR(again.T_K, T_K, 1e-7 * T_K);
    for (std::size_t i = 0; i < 4; ++i) EXPECT_NEAR(again.y[i], bubble.y[i], 1e-7);
    const VlePoint dew = dew_pressure(mixture, T_K, z);
    EXPECT_LT(dew.P_Pa, bubble.P_Pa);
    EXPECT_EQ(
        flash(mixture.kinds(), {Kelvin(T_K), Pascal(std::sqrt(dew.P_Pa * bubble.P_Pa))}, z).phases.size(),
        2u);
    EXPECT_EQ(flash(mixture.kinds(), {Kelvin(T_K), Pascal(1.01 * bubble.P_Pa)}, z).phases.size(), 1u);
    EXPECT_EQ(flash(mixture.kinds(), {Kelvin(T_K), Pascal(0.99 * dew.P_Pa)}, z).phases.size(), 1u);
  }
  EXPECT_GE(done, 10);
}

TEST_P(OneEquation, BeyondTheCriticalPointThereIsNoBubblePoint) {
  Mixture mixture = eos({"methane", "propane"}, GetParam());
  EXPECT_THROW(bubble_pressure(mixture, 330, std::vector<double>{0.9, 0.1}), CalculationError);
  EXPECT_NO_THROW(dew_temperature(mixture, 2e6, std::vector<double>{0.9, 0.1}));
}

// The curve runs from the pure substance to the critical point of the mixture, where liquid and vapour are
// one: there the least curvature of the Gibbs energy is zero.
TEST_P(OneEquation, CurvesEndInTheCriticalPoint) {
  Mixture mixture = eos({"ethane", "n-butane"}, GetParam());
  const BinaryCurve curve = pxy(mixture, 350);  // above the critical point of ethane
  ASSERT_EQ(curve.critical.size(), 1u);
  const BinaryPoint& critical = curve.critical.front();
  EXPECT_GT(critical.P_Pa, curve.points.front().P_Pa);
  for (const BinaryPoint& point : curve.points) EXPECT_LT(point.residual, 1e-8);
  PhaseValues values(2);
  const std::array<double, 2> x{critical.x[0], critical.x[1]};
  Phase& fluid = *mixture.kinds().front();
  fluid.evaluate(critical.T_K, critical.P_Pa, x, {false, false, true}, values);
  const double curvature = 1 / x[0] + 1 / x[1] + values.dn[0] - values.dn[1] - values.dn[2] + values.dn[3];
  EXPECT_NEAR(curvature, 0, 0.02);
  // Even steps in x are among the points.
  EXPECT_TRUE(std::any_of(curve.points.begin(), curve.points.end(),
                          [](const BinaryPoint& p) { return std::abs(p.x[0] - 0.25) < 1e-12; }));
}

INSTANTIATE_TEST_SUITE_P(Equations, OneEquation, ::testing::Values("srk", "pr", "pc-saft"),
                         [](const auto& kind) { return kind.param == "pc-saft" ? "pc_saft" : kind.param; });

// Above both critical pressures the curve closes upon itself between two critical points.
TEST(OneEquationCurves, ClosedBetweenTwoCriticalPoints) {
  Mixture mixture = eos({"methane", "propane"}, "pr");
  const BinaryCurve curve = txy(mixture, 70e5);
  EXPECT_EQ(curve.critical.size(), 2u);
  EXPECT_GT(curve.points.size(), 50u);
  EXPECT_THROW(txy(mixture, 300e5), CalculationError);
}

// Points of the curve are bubble points.
TEST(OneEquationCurves, ConsistOfBubblePoints) {
  Mixture mixture = eos({"n-hexane", "toluene"}, "pc-saft");
  const BinaryCurve curve = txy(mixture, standard_atmosphere, {21});
  int compared = 0;
  for (std::size_t k = 3; k < curve.points.size(); k += 7) {
    const BinaryPoint& point = curve.points[k];
    const VlePoint single = bubble_temperature(mixture, standard_atmosphere, point.x);
    EXPECT_NEAR(single.T_K, point.T_K, 1e-6);
    EXPECT_NEAR(single.y[0], point.y[0], 1e-8);
    ++compared;
  }
  EXPECT_GT(compared, 3);
}

// Methanol and cyclohexane with the authors' k_ij: two liquids below an azeotrope; the azeotrope of the
// handbooks lies at 54 degC with 0.6 of methanol.
TEST(OneEquationCurves, TwoLiquidsAndAzeotrope) {
  Mixture mixture = eos({"methanol", "cyclohexane"}, "pc-saft");
  const BinaryCurve curve = txy(mixture, standard_atmosphere);
  ASSERT_EQ(curve.azeotropes.size(), 1u);
  EXPECT_NEAR(curve.azeotropes[0].T_K - celsius_zero, 54, 2.0);
  EXPECT_NEAR(curve.azeotropes[0].x1, 0.6, 0.05);
  EXPECT_FALSE(curve.notices.has("no-interaction"));
}

TEST(OneEquationCurves, ThreePhaseLine) {
  Mixture mixture = eos({"ethanol", "water"}, "pr");  // without its k_ij this equation splits the liquid
  const BinaryCurve curve = txy(mixture, standard_atmosphere);
  ASSERT_EQ(curve.three_phases.size(), 1u);
  const ThreePhase& line = curve.three_phases[0];
  EXPECT_LT(line.residual, 1e-8);
  EXPECT_LT(line.x1_alpha, line.x1_beta);
  EXPECT_TRUE(curve.notices.has("no-interaction"));
  for (const double x : {line.x1_alpha, line.x1_beta}) {
    const VlePoint boiling = bubble_temperature(mixture, standard_atmosphere, std::array{x, 1 - x});
    EXPECT_NEAR(boiling.T_K, line.T_K, 1e-5);
    EXPECT_NEAR(boiling.y[0], line.y1, 1e-5);
  }
}

}  // namespace
}  // namespace jampot
