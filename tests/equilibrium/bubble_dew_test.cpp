#include "jampot/equilibrium/bubble_dew.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_series.hpp"
#include "jampot/equilibrium/incipient.hpp"
#include "jampot/equilibrium/stability.hpp"
#include "support.hpp"

namespace jampot {
namespace {

const std::vector<std::string> five{"ethanol", "acetone", "methanol", "ethyl acetate", "toluene"};

// A mixture of n substances with random, moderately non-ideal pairs.
Mixture random_mixture(std::mt19937_64& generator, std::size_t n) {
  const std::vector<std::string> names(five.begin(), five.begin() + static_cast<std::ptrdiff_t>(n));
  std::uniform_real_distribution<double> b(-150, 350);
  ParameterCollection parameters;
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = i + 1; j < n; ++j) {
      parameters.add(test::nrtl_pair(names[i], names[j], b(generator), b(generator), 0.3));
    }
  }
  return {substances_named(names), "nrtl", parameters};
}

// Partial pressures of both phases computed from scratch: x gamma Psat against y P.
void expect_equilibrium(Mixture& mixture, const VlePoint& point) {
  std::vector<double> ln_gamma(mixture.size());
  mixture.activity().set_temperature(point.T_K);
  mixture.activity().evaluate(point.x, ln_gamma);
  double sum = 0;
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    const double Psat = mixture.substances()[i].vapour_pressure->P_Pa(point.T_K);
    EXPECT_NEAR(point.x[i] * std::exp(ln_gamma[i]) * Psat / point.P_Pa, point.y[i], 1e-11);
    sum += point.y[i];
  }
  EXPECT_NEAR(sum, 1, 1e-12);
  EXPECT_LT(point.residual, 1e-10);
}

TEST(BubbleDew, RandomMixturesWithoutAGuess) {
  std::mt19937_64 generator(7);
  std::uniform_real_distribution<double> log_P(std::log(1e3), std::log(1e6));
  for (int trial = 0; trial < 60; ++trial) {
    const std::size_t n = 2 + static_cast<std::size_t>(trial) % 4;
    Mixture mixture = random_mixture(generator, n);
    const std::vector<double> x = test::random_composition(generator, n);
    const double P = std::exp(log_P(generator));
    const VlePoint bubble = bubble_temperature(mixture, P, x);
    expect_equilibrium(mixture, bubble);
    const VlePoint isothermal = bubble_pressure(mixture, bubble.T_K, x);
    EXPECT_NEAR(isothermal.P_Pa / P, 1, 1e-10);
    if (bubble.notices.has("liquid-splits")) continue;
    // The vapour of a stable boiling liquid has its dew point there.
    const VlePoint dew = dew_temperature(mixture, P, bubble.y);
    expect_equilibrium(mixture, dew);
    EXPECT_NEAR(dew.T_K, bubble.T_K, 1e-7);
    const VlePoint dew_P = dew_pressure(mixture, bubble.T_K, bubble.y);
    EXPECT_NEAR(dew_P.P_Pa / P, 1, 1e-9);
    for (std::size_t i = 0; i < n; ++i) EXPECT_NEAR(dew.x[i], x[i], 1e-7);
  }
}

TEST(BubbleDew, IdealPressuresHaveTheirClosedForm) {
  Mixture mixture(substances_named({"ethanol", "acetone", "toluene"}), "ideal", {});
  const std::vector<double> z{0.2, 0.5, 0.3};
  const double T = 340;
  double sum = 0, inverse = 0;
  for (std::size_t i = 0; i < 3; ++i) {
    const double Psat = mixture.substances()[i].vapour_pressure->P_Pa(T);
    sum += z[i] * Psat;
    inverse += z[i] / Psat;
  }
  EXPECT_NEAR(bubble_pressure(mixture, T, z).P_Pa, sum, 1e-9 * sum);
  EXPECT_NEAR(dew_pressure(mixture, T, z).P_Pa, 1 / inverse, 1e-9 / inverse);
}

TEST(BubbleDew, PureLimitsAndAbsentComponents) {
  Mixture mixture = test::mtbe_methanol();
  const double Tsat = mixture.substances()[1].vapour_pressure->T_K(101325);
  const std::vector<double> methanol{0, 1};
  const VlePoint bubble = bubble_temperature(mixture, 101325, methanol);
  EXPECT_NEAR(bubble.T_K, Tsat, 1e-9);
  EXPECT_EQ(bubble.y[0], 0);
  EXPECT_GT(bubble.K[0], 1);  // the limit is there although the component is not
  EXPECT_NEAR(dew_temperature(mixture, 101325, methanol).T_K, Tsat, 1e-9);
}

TEST(BubbleDew, TheFirstLiquidIsTheOneThatForms) {
  // Vapours across the heteroazeotrope: the dew point is on the branch of the liquid that comes first, found
  // although three liquids satisfy the equations, and no other liquid is more stable there.
  Mixture mixture = test::butanol_water();
  for (double y1 = 0.02; y1 < 0.99; y1 += 0.03) {
    const std::vector<double> y{y1, 1 - y1};
    const VlePoint dew = dew_temperature(mixture, 101325, y);
    EXPECT_LT(dew.residual, 1e-10);
    EXPECT_TRUE(dew.x[0] < 0.021 || dew.x[0] > 0.51) << "an unstable liquid at y = " << y1;
    EXPECT_FALSE(liquid_splits(mixture.liquid(), dew.T_K, dew.x));
  }
}

TEST(BubbleDew, SaysThatTheLiquidSplits) {
  Mixture mixture = test::butanol_water();
  EXPECT_TRUE(
      bubble_temperature(mixture, 101325, std::vector<double>{0.2, 0.8}).notices.has("liquid-splits"));
  EXPECT_FALSE(
      bubble_temperature(mixture, 101325, std::vector<double>{0.7, 0.3}).notices.has("liquid-splits"));
}

TEST(BubbleDew, SaysWhenARangeIsLeft) {
  Mixture mixture = test::mtbe_methanol();
  const std::vector<double> x{0.5, 0.5};
  EXPECT_TRUE(bubble_temperature(mixture, 101325, x).notices.empty());
  EXPECT_TRUE(bubble_temperature(mixture, 1e6, x).notices.empty());
  Mixture narrow(substances_named({"1-hexene", "methanol"}), "ideal", {});
  EXPECT_TRUE(bubble_temperature(narrow, 1e6, x).notices.has("vapour-pressure-range"));
  EXPECT_FALSE(bubble_temperature(mixture, 1e6, x).notices.has("above-critical"));
  EXPECT_TRUE(bubble_temperature(mixture, 1e7, x).notices.has("above-critical"));
}

TEST(BubbleDew, RefusesWhatIsNoComposition) {
  Mixture mixture = test::mtbe_methanol();
  EXPECT_THROW(bubble_temperature(mixture, 1e5, std::vector<double>{0.5}), RequestError);
  EXPECT_THROW(bubble_temperature(mixture, 1e5, std::vector<double>{0.6, 0.6}), RequestError);
  EXPECT_THROW(bubble_temperature(mixture, 1e5, std::vector<double>{-0.1, 1.1}), RequestError);
  EXPECT_THROW(bubble_temperature(mixture, 1e5, std::vector<double>{NAN, 0.5}), RequestError);
}

TEST(Incipient, SensitivitiesMatchDifferences) {
  Mixture mixture = test::mtbe_methanol();
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  const std::vector<double> x{0.35, 0.65};
  IncipientState state(2);
  state.T_K = 330;
  state.P_Pa = 101325;
  ASSERT_TRUE(solver.solve(Sought::temperature, x, state));
  const MatrixView s = solver.sensitivity(Sought::temperature, x, state);

  const auto T_at = [&](double x1, double P_factor) {
    return bubble_temperature(mixture, 101325 * P_factor, std::vector<double>{x1, 1 - x1}).T_K;
  };
  EXPECT_NEAR(s(2, 0) - s(2, 1), test::derivative([&](double x1) { return T_at(x1, 1); }, 0.35, 1e-3), 1e-6);
  EXPECT_NEAR(s(2, 2), test::derivative([&](double ln_P) { return T_at(0.35, std::exp(ln_P)); }, 0, 1e-3),
              1e-6);
  for (std::size_t term = 0; term < 3; ++term) {
    const double before = mixture.activity().terms()[term].function.constant;
    const auto along = [&](double value) {
      mixture.activity().set_coefficient(term, Coefficient::constant, value);
      return T_at(0.35, 1);
    };
    EXPECT_NEAR(s(2, 3 + term), test::derivative(along, before, 1e-3), 1e-6);
    mixture.activity().set_coefficient(term, Coefficient::constant, before);
  }
}

// Neighbours, far jumps and pure substances in one series: each is the point that is found alone.
TEST(BubbleSeries, EachPointIsThatOfItsLiquidAlone) {
  std::mt19937_64 generator(11);
  for (int trial = 0; trial < 20; ++trial) {
    const std::size_t n = 2 + static_cast<std::size_t>(trial) % 4;
    const Mixture mixture = random_mixture(generator, n);
    std::vector<std::vector<double>> liquids;
    for (std::size_t pure = 0; pure < n; ++pure) {
      liquids.push_back(test::random_composition(generator, n));
      liquids.emplace_back(n, 0.0);
      liquids.back()[pure] = 1;
    }
    const std::vector<VlePoint> at_P = bubble_temperatures(mixture, 101325, liquids);
    const std::vector<VlePoint> at_T = bubble_pressures(mixture, 330, liquids);
    ASSERT_EQ(at_P.size(), liquids.size());
    ASSERT_EQ(at_T.size(), liquids.size());
    for (std::size_t i = 0; i < liquids.size(); ++i) {
      const VlePoint alone = bubble_temperature(mixture, 101325, liquids[i]);
      EXPECT_NEAR(at_P[i].T_K, alone.T_K, 1e-8);
      EXPECT_NEAR(at_T[i].P_Pa / bubble_pressure(mixture, 330, liquids[i]).P_Pa, 1, 1e-10);
      for (std::size_t k = 0; k < n; ++k) EXPECT_NEAR(at_P[i].y[k], alone.y[k], 1e-10);
    }
  }
}

TEST(BubbleSeries, RefusesWhatAPointRefuses) {
  std::mt19937_64 generator(12);
  const Mixture mixture = random_mixture(generator, 2);
  const std::vector<std::vector<double>> liquids{{0.5, 0.5}, {0.5, 0.2, 0.3}};
  EXPECT_THROW(bubble_temperatures(mixture, 101325, liquids), RequestError);
  EXPECT_THROW(bubble_temperatures(mixture, -1, liquids), RequestError);
  EXPECT_THROW(bubble_pressures(mixture, std::nan(""), liquids), RequestError);
  EXPECT_TRUE(bubble_temperatures(mixture, 101325, {}).empty());
}

}  // namespace
}  // namespace jampot
