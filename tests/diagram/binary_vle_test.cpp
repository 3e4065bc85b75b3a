#include "jampot/diagram/binary_vle.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/phase/composition.hpp"
#include "support.hpp"

namespace jampot {
namespace {

TEST(BinaryVle, EveryPointIsSolvedAndTheWorkIsSmall) {
  for (Mixture mixture : {test::mtbe_methanol(), test::butanol_water()}) {
    for (const double P : {2e4, 101325.0, 5e5}) {
      const BinaryCurve curve = txy(mixture, P);
      for (const BinaryPoint& point : curve.points) {
        double sum = 0;  // computed from scratch
        for (std::size_t i = 0; i < 2; ++i) {
          std::vector<double> ln_gamma(2);
          mixture.activity().set_temperature(point.T_K);
          mixture.activity().evaluate(point.x, ln_gamma);
          sum += point.x[i] * std::exp(ln_gamma[i]) *
                 mixture.substances()[i].vapour_pressure->P_Pa(point.T_K) / P;
        }
        EXPECT_NEAR(sum, 1, 1e-10);
        EXPECT_LT(point.residual, 1e-10);
      }
      EXPECT_LE(curve.evaluations, 6 * 101);
    }
  }
}

TEST(BinaryVle, TheOrderOfTheSubstancesDoesNotMatter) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("methyl tert-butyl ether", "methanol", 236, 194, 0.3));
  Mixture forward(substances_named({"MTBE", "methanol"}), "nrtl", parameters);
  Mixture backward(substances_named({"methanol", "MTBE"}), "nrtl", parameters);
  const BinaryCurve a = txy(forward, 101325), b = txy(backward, 101325);
  ASSERT_EQ(a.points.size(), b.points.size());
  for (std::size_t k = 0; k < a.points.size(); ++k) {
    const BinaryPoint &p = a.points[k], &q = b.points[b.points.size() - 1 - k];
    EXPECT_NEAR(p.T_K, q.T_K, 1e-8);
    EXPECT_NEAR(p.y[0], q.y[1], 1e-10);
  }
  EXPECT_NEAR(a.azeotropes.at(0).x1, 1 - b.azeotropes.at(0).x1, 1e-10);
}

TEST(BinaryVle, IsobaricAndIsothermalAgree) {
  Mixture mixture = test::mtbe_methanol();
  const Azeotrope isobaric = txy(mixture, 150000).azeotropes.at(0);
  const Azeotrope isothermal = pxy(mixture, isobaric.T_K).azeotropes.at(0);
  EXPECT_NEAR(isothermal.P_Pa, 150000, 1e-4);
  EXPECT_NEAR(isothermal.x1, isobaric.x1, 1e-10);
}

TEST(BinaryVle, NoUnstableLiquidIsDrawn) {
  Mixture mixture = test::butanol_water();
  for (const BinaryCurve& curve : {txy(mixture, 101325), pxy(mixture, 350)}) {
    ASSERT_EQ(curve.three_phases.size(), 1u);
    const ThreePhase& line = curve.three_phases[0];
    int ends = 0;
    for (std::size_t k = 0; k < curve.points.size(); ++k) {
      const double x1 = curve.points[k].x[0];
      EXPECT_FALSE(x1 > line.x1_alpha && x1 < line.x1_beta);
      if (k > 0) {
        EXPECT_GT(x1, curve.points[k - 1].x[0]);
      }
      ends += x1 == line.x1_alpha || x1 == line.x1_beta;
    }
    EXPECT_EQ(ends, 2);
  }
}

TEST(BinaryVle, SaysWhatItCannotDraw) {
  Mixture three(substances_named({"ethanol", "toluene", "acetone"}), "ideal", {});
  EXPECT_THROW(txy(three, 1e5), RequestError);
  Mixture two(substances_named({"ethanol", "toluene"}), "ideal", {});
  EXPECT_THROW(txy(two, 1e5, {2}), RequestError);
  Mixture acid(substances_named({"acetic acid", "toluene"}), "ideal", {});
  EXPECT_TRUE(txy(acid, 101325).notices.has("associating-vapour"));
}

TEST(Comparison, DeviationsOfExactDataVanish) {
  Mixture mixture = test::mtbe_methanol();
  DataSet data;
  data.substances = mixture.substances();
  for (const double x1 : {0.1, 0.4, 0.8}) {
    const VlePoint exact = bubble_temperature(mixture, 101325, std::vector<double>{x1, 1 - x1});
    data.points.push_back({exact.T_K + 0.5, exact.P_Pa, exact.x, exact.y, 0.1, 100, 0.001, 0.001});
  }
  const Comparison comparison = compare(mixture, data);
  EXPECT_NEAR(comparison.T_K->mean, -0.5, 1e-9);
  EXPECT_NEAR(comparison.T_K->root_mean_square, 0.5, 1e-9);
  EXPECT_NEAR(comparison.T_K->largest, -0.5, 1e-9);
  EXPECT_NEAR(comparison.y.at(0).mean_absolute, 0, 1e-10);
  EXPECT_FALSE(comparison.P_Pa);
  // the same from the other side
  std::swap(data.substances[0], data.substances[1]);
  for (DataPoint& point : data.points) {
    std::swap(point.x[0], point.x[1]);
    std::swap(point.y[0], point.y[1]);
  }
  EXPECT_NEAR(compare(mixture, in_order_of(mixture.substances(), data)).T_K->mean, -0.5, 1e-9);
}

TEST(Composition, ReadsTextAndConvertsMass) {
  const auto substances = substances_named({"ethanol", "acetone", "toluene"});
  const auto x = parse_composition("EtOH=0.3, acetone=20%", substances, Basis::mole);
  EXPECT_NEAR(x[2], 0.5, 1e-12);
  const auto w = mass_fractions(x, substances);
  const auto back = mole_fractions(w, substances);
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(back[i], x[i], 1e-14);
  EXPECT_NEAR(parse_composition("ethanol=1", substances_named({"ethanol", "water"}), Basis::mass)[0], 1,
              1e-14);
  for (const char* bad :
       {"ethanol=0.3", "ethanol=0.3, ethanol=0.7", "ethanol=0.9, acetone=0.9", "ethanol=1.2",
        "water=0.2, ethanol=0.2", "ethanol 0.3", "ethanol=0.1, acetone=0.1, toluene=0.1"}) {
    EXPECT_THROW(parse_composition(bad, substances, Basis::mole), RequestError) << bad;
  }
}

}  // namespace
}  // namespace jampot
