#include "jampot/regression/consistency.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

const ConsistencyTest& test_of(const Consistency& result, const std::string& name) {
  for (const ConsistencyTest& test : result.tests) {
    if (test.name == name) return test;
  }
  throw std::logic_error(name);
}

TEST(Consistency, GoodDataPass) {
  for (const DataKind kind : {DataKind::txy, DataKind::pxy}) {
    const Consistency result = check_consistency(test::synthetic(test::mtbe_methanol(), kind, 25, 2, 0.5));
    for (const char* name : {"area", "point", "direct"}) {
      EXPECT_EQ(test_of(result, name).verdict, Verdict::passed) << name << " " << test_of(result, name).value;
    }
    EXPECT_EQ(test_of(result, "end points").verdict, Verdict::cannot_tell);
  }
}

TEST(Consistency, ExactDataHaveNoDeviation) {
  const Consistency result =
      check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::pxy, 25, 2, 0));
  EXPECT_LT(test_of(result, "point").value, 1e-3);
  EXPECT_LT(test_of(result, "direct").value, 5e-3);
  EXPECT_LT(test_of(result, "area").value, 2);
  for (const ConsistencyPoint& point : result.points) EXPECT_NEAR(point.gE, point.gE_fit, 2e-3);
}

TEST(Consistency, ABiasedVapourAnalysisFails) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 25, 2, 0.5);
  for (DataPoint& point : data.points) {
    point.y[0] = std::min(0.999, point.y[0] + 0.03);
    point.y[1] = 1 - point.y[0];
  }
  const Consistency result = check_consistency(data);
  EXPECT_EQ(test_of(result, "point").verdict, Verdict::failed);
  EXPECT_EQ(test_of(result, "direct").verdict, Verdict::failed);
  EXPECT_NE(test_of(result, "point").meaning.find("one sign"), std::string::npos);
}

TEST(Consistency, TheAreaTestDoesNotSeeAWrongPressure) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::pxy, 25, 2, 0);
  for (DataPoint& point : data.points) point.P_Pa *= 1.05;
  const Consistency result = check_consistency(data);
  EXPECT_EQ(test_of(result, "area").verdict, Verdict::passed);  // its known weakness
}

TEST(Consistency, PurePointsAreHeldAgainstTheVapourPressure) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 2, 0);
  data.points.push_back({340, 101325, {0, 1}, {0, 1}, 0.05, 50, 0.002, 0.004, 99});
  EXPECT_EQ(test_of(check_consistency(data), "end points").verdict, Verdict::failed);
}

TEST(Consistency, RefusesWhatItCannotJudge) {
  EXPECT_THROW(check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::tx, 12, 2)), RequestError);
  EXPECT_THROW(check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::txy, 4, 2)),
               CalculationError);
}

// The spread of the area over simulated sets is the stated uncertainty; within it the limit decides nothing.
TEST(Consistency, TheAreaHasItsUncertainty) {
  double squares = 0, u = 0;
  constexpr int sets = 200;
  const Mixture mixture = test::mtbe_methanol();
  int decided = 0;
  for (unsigned seed = 1; seed <= sets; ++seed) {
    const DataSet data = test::synthetic(mixture, DataKind::pxy, 20, seed);
    const Consistency result = check_consistency(data);
    const ConsistencyTest& area = result.tests.front();
    ASSERT_EQ(area.name, "area");
    EXPECT_GT(area.u, 0);
    u += area.u / sets;
    squares += area.value * area.value / sets;
    decided += area.verdict != Verdict::cannot_tell;
    EXPECT_EQ(area.verdict != Verdict::cannot_tell, std::abs(area.value - area.limit) > area.u);
  }
  // The absolute value of a number that is zero on average: its root mean square is the uncertainty.
  EXPECT_NEAR(std::sqrt(squares), u, 0.35 * u);
  EXPECT_GT(decided, 0);
}

// A vapour that associates: with an ideal one sound data look bad, with its own they pass.
TEST(ConsistencyVapour, AnAssociatingVapourNeedsItsModel) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("acetic acid", "toluene", 250, 180, 0.3));
  VapourChoice vapour;
  vapour.model = "virial";
  const Mixture truth(substances_named({"acetic acid", "toluene"}), "nrtl", parameters, vapour);
  const DataSet data = test::synthetic(truth, DataKind::pxy, 21, 4, 0.5);
  const Consistency ideal = check_consistency(data), own = check_consistency(data, {.vapour = vapour});
  EXPECT_EQ(test_of(ideal, "point").verdict, Verdict::failed);
  EXPECT_EQ(test_of(own, "point").verdict, Verdict::passed) << test_of(own, "point").value;
  EXPECT_EQ(test_of(own, "direct").verdict, Verdict::passed) << test_of(own, "direct").value;
  EXPECT_TRUE(ideal.notices.has("ideal-vapour"));
  EXPECT_FALSE(own.notices.has("ideal-vapour"));
  EXPECT_GT(own.quality, ideal.quality);
  // The activity coefficients are those of the truth.
  Mixture copy = truth;
  const DataSet exact = test::synthetic(truth, DataKind::pxy, 9, 4, 0);
  const Consistency again = check_consistency(exact, {.vapour = vapour});
  for (const ConsistencyPoint& point : again.points) {
    std::vector<double> ln_gamma(2);
    copy.activity().set_temperature(point.T_K);
    copy.activity().evaluate(std::vector{point.x1, 1 - point.x1}, ln_gamma);
    EXPECT_NEAR(point.ln_gamma_1, ln_gamma[0], 1e-6);
    EXPECT_NEAR(point.ln_gamma_2, ln_gamma[1], 1e-6);
  }
}

DataSet heat_of(Mixture mixture, double T_K) {
  DataSet heat;
  heat.name = "heat";
  heat.kind = DataKind::excess_enthalpy;
  heat.substances = {mixture.substances()[1], mixture.substances()[0]};  // the other way round
  for (double x1 = 0.1; x1 < 0.95; x1 += 0.1) {
    // hE = -R T^2 d(gE/RT)/dT
    const auto g = [&](double T) {
      std::vector<double> ln_gamma(2);
      mixture.activity().set_temperature(T);
      mixture.activity().evaluate(std::vector{x1, 1 - x1}, ln_gamma);
      return x1 * ln_gamma[0] + (1 - x1) * ln_gamma[1];
    };
    DataPoint point{T_K, 0, {1 - x1, x1}, {}, 0.1, 0, 1e-3, 0, 1};
    point.value = -8.314462618 * T_K * T_K * test::derivative(g, T_K, 0.1);
    point.u_value = 5;
    heat.points.push_back(point);
  }
  return heat;
}

// Isobaric data over 45 K with a large excess enthalpy: without its term sound data fail, with it they pass.
TEST(ConsistencyHeat, TheTermOfTheExcessEnthalpyMakesIsobaricDataExact) {
  ParameterCollection parameters;
  PairParameters pair = test::nrtl_pair("acetone", "water", 0, 0, 0.3);
  pair.terms["tau_12"] = {-2.6, 1250, 0, 0};
  pair.terms["tau_21"] = {-1.0, 700, 0, 0};
  parameters.add(pair);
  const Mixture truth(substances_named({"acetone", "water"}), "nrtl", parameters);
  const DataSet data = test::synthetic(truth, DataKind::txy, 41, 4, 0);
  const Consistency without = check_consistency(data);
  const Consistency with = check_consistency(data, {.heat = {heat_of(truth, 345)}});
  EXPECT_GT(test_of(without, "direct").value, 3 * test_of(with, "direct").value);
  EXPECT_LT(test_of(with, "direct").value, 0.03);
  EXPECT_LT(test_of(with, "area").value, 0.5 * test_of(without, "area").value);
  EXPECT_EQ(test_of(with, "area").limit, 10);
  EXPECT_GT(test_of(without, "area").limit, 10);
  // Of another pair it is not taken.
  const Consistency other = check_consistency(data, {.heat = {heat_of(test::mtbe_methanol(), 320)}});
  EXPECT_EQ(test_of(other, "direct").value, test_of(without, "direct").value);
}

TEST(ConsistencyEnds, SoundDataAgreeAndAGaugeThatIsOffDoesNot) {
  int passed = 0, failed = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::pxy, 25, seed, 0.3);
    passed += test_of(check_consistency(data), "infinite dilution").verdict == Verdict::passed;
    // Every gE is off by as much, most of all over x1 x2 at the ends; the ratio does not see it.
    for (DataPoint& point : data.points) point.P_Pa *= 1.06;
    failed += test_of(check_consistency(data), "infinite dilution").verdict != Verdict::passed;
  }
  EXPECT_GE(passed, 9);
  EXPECT_GE(failed, 9);
}

// The test sees vapour pressures: one that is off by a tenth.
TEST(ConsistencyBoiling, SeesAVapourPressureThatDoesNotBelongToTheBoilingPoints) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 25, 3, 0.5);
  const Consistency sound = check_consistency(data);
  EXPECT_EQ(test_of(sound, "L-W").verdict, Verdict::passed) << test_of(sound, "L-W").value;
  EXPECT_GT(sound.quality, 0.8);
  for (DataPoint& point : data.points) point.T_K += 2;
  EXPECT_LT(check_consistency(data).quality, sound.quality);
}

// Random ternary points with noise as stated.
DataSet ternary_data(unsigned seed, double scale = 1) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("acetone", "methanol", 90, 120, 0.3));
  parameters.add(test::nrtl_pair("acetone", "ethanol", 20, 150, 0.3));
  parameters.add(test::nrtl_pair("methanol", "ethanol", 10, -20, 0.3));
  Mixture mixture(substances_named({"acetone", "methanol", "ethanol"}), "nrtl", parameters);
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  DataSet data;
  data.name = "ternary";
  data.kind = DataKind::pxy;
  data.substances = mixture.substances();
  for (int k = 0; k < 40; ++k) {
    std::vector<double> x = test::random_composition(generator, 3);
    for (double& fraction : x) fraction = 0.05 + 0.85 * fraction;
    const VlePoint exact = bubble_pressure(mixture, 330, x);
    DataPoint point{330, exact.P_Pa, x, exact.y, 0.05, 100, 0.001, 0.003, k + 1};
    point.T_K += scale * 0.05 * normal(generator);
    point.P_Pa += scale * 100 * normal(generator);
    for (std::size_t i = 0; i < 2; ++i) {
      point.x[i] += scale * 0.001 * normal(generator);
      point.y[i] += scale * 0.003 * normal(generator);
    }
    point.x[2] = 1 - point.x[0] - point.x[1];
    point.y[2] = 1 - point.y[0] - point.y[1];
    data.points.push_back(point);
  }
  return data;
}

TEST(ConsistencyOfThree, SoundDataPassAndABiasedAnalysisFails) {
  int passed = 0, failed = 0;
  double square = 0, steps = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    DataSet data = ternary_data(seed);
    const Consistency sound = check_consistency(data);
    passed += test_of(sound, "McDermott-Ellis").verdict == Verdict::passed &&
              test_of(sound, "point").verdict == Verdict::passed;
    for (const ConsistencyStep& step : sound.steps) {
      square += std::pow(step.difference / step.u, 2);
      ++steps;
    }
    for (DataPoint& point : data.points) {  // the detector's factor of acetone is 15 % too high
      double sum = 0;
      point.y[0] *= 1.15;
      for (const double fraction : point.y) sum += fraction;
      for (double& fraction : point.y) fraction /= sum;
    }
    const Consistency biased = check_consistency(data);
    failed += test_of(biased, "point").verdict == Verdict::failed;
    EXPECT_LT(biased.quality, sound.quality);
  }
  EXPECT_GE(passed, 8);
  EXPECT_GE(failed, 9);
  EXPECT_NEAR(square / steps, 1, 0.25);  // the uncertainty of a step is its spread
}

TEST(ConsistencyOfThree, ExactDataHaveSmallSteps) {
  const Consistency result = check_consistency(ternary_data(3, 0));
  for (const ConsistencyStep& step : result.steps) EXPECT_LT(std::abs(step.difference), 2 * step.u);
  EXPECT_GT(result.quality, 0.9);
  EXPECT_FALSE(result.quality_from.empty());
}

}  // namespace
}  // namespace jampot
