// The solvers beneath bubble points, flashes and splits, each by what its solution must satisfy.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "jampot/equilibrium/boiling_liquids.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/critical_solution.hpp"
#include "jampot/equilibrium/incipient.hpp"
#include "jampot/equilibrium/liquid_surface.hpp"
#include "jampot/equilibrium/parting.hpp"
#include "jampot/equilibrium/plait_point.hpp"
#include "jampot/equilibrium/rachford_rice.hpp"
#include "jampot/equilibrium/stability.hpp"
#include "jampot/equilibrium/tangent_search.hpp"
#include "jampot/equilibrium/three_liquids.hpp"
#include "jampot/liquid/ideal.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::Margules;
using test::random_composition;

// ln(x phi) of a phase at a state.
std::vector<double> ln_fugacities(Phase& phase, double T_K, double P_Pa, const std::vector<double>& x) {
  PhaseValues values(x.size());
  phase.evaluate(T_K, P_Pa, x, {}, values);
  std::vector<double> list;
  for (std::size_t i = 0; i < x.size(); ++i) list.push_back(std::log(x[i]) + values.ln_phi[i]);
  return list;
}

TEST(Stability, ALiquidOutsideItsGapIsStable) {
  Margules model(2.5);
  MixingLiquid liquid(model);
  // The gap of the symmetric Margules model: ln(x1/x2) = A (x1 - x2).
  double low = 0.01, high = 0.49;
  for (int k = 0; k < 80; ++k) {
    const double x = (low + high) / 2;
    (std::log(x / (1 - x)) - 2.5 * (2 * x - 1) < 0 ? low : high) = x;
  }
  const double gap = low;
  for (const double x : {0.2 * gap, 0.9 * gap, 0.999 * gap, 1 - 0.999 * gap, 1 - 0.5 * gap})
    EXPECT_FALSE(liquid_splits(liquid, 300, std::vector<double>{x, 1 - x})) << x;
  for (const double x : {1.001 * gap, 1.2 * gap, 0.3, 0.5, 0.7, 1 - 1.001 * gap})
    EXPECT_TRUE(liquid_splits(liquid, 300, std::vector<double>{x, 1 - x})) << x;
}

TEST(Stability, TheMoreStableLiquidLiesBelowTheTangentPlane) {
  std::mt19937_64 generator(7);
  int found = 0;
  for (unsigned seed = 0; seed < 200; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    MixingLiquid liquid(mixture.activity());
    const std::vector<double> z = random_composition(generator, 3);
    const std::vector<double> plane = ln_fugacities(liquid, 300, 1e5, z);
    const auto more = find_more_stable(liquid, 300, 1e5, plane);
    if (!more) continue;
    ++found;
    const std::vector<double> there = ln_fugacities(liquid, 300, 1e5, more->composition);
    double distance = 0;
    for (std::size_t i = 0; i < 3; ++i) distance += more->composition[i] * (there[i] - plane[i]);
    EXPECT_LT(distance, 0) << seed;
    EXPECT_GT(more->excess, 0) << seed;
  }
  EXPECT_GT(found, 10);
}

TEST(Stability, DescentsEndWhereTheDistanceIsStationary) {
  std::mt19937_64 generator(11);
  TangentPlane plane;
  for (unsigned seed = 100; seed < 140; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    MixingLiquid liquid(mixture.activity());
    const std::vector<double> z = random_composition(generator, 3), start = random_composition(generator, 3);
    const std::vector<double> ln_f = ln_fugacities(liquid, 310, 1e5, z);
    const TangentMinimum end = plane.descend(liquid, 310, 1e5, ln_f, start);
    const std::vector<double> there = ln_fugacities(liquid, 310, 1e5, end.composition);
    // At a minimum all ln(w phi) - ln f are the same: the distance itself.
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(there[i] - ln_f[i], end.distance, 1e-6) << seed;
  }
}

TEST(Incipient, ASolvedStateSatisfiesItsEquations) {
  std::mt19937_64 generator(3);
  for (unsigned seed = 0; seed < 40; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    const std::vector<double> z = random_composition(generator, 3);
    IncipientSolver solver(mixture.liquid(), mixture.vapour());
    for (const Sought sought : {Sought::temperature, Sought::pressure}) {
      IncipientState state(3);
      state.T_K = 340;
      state.P_Pa = 1e5;
      state.w = z;
      ASSERT_TRUE(solver.solve(sought, z, state)) << seed;
      EXPECT_LT(state.residual, 1e-11);
      const std::vector<double> in_liquid = ln_fugacities(mixture.liquid(), state.T_K, state.P_Pa, z),
                                in_vapour = ln_fugacities(mixture.vapour(), state.T_K, state.P_Pa, state.w);
      double sum = 0;
      for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_NEAR(in_liquid[i], in_vapour[i], 1e-9) << seed;
        sum += state.w[i];
      }
      EXPECT_NEAR(sum, 1, 1e-12);
    }
  }
}

TEST(Incipient, HeldPressureAndHeldTemperatureLeadToTheSameState) {
  Mixture mixture = test::mtbe_methanol();
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  for (double x = 0.05; x < 1; x += 0.15) {
    const std::vector<double> z{x, 1 - x};
    IncipientState at_P(2);
    at_P.T_K = 330;
    at_P.P_Pa = 101325;
    at_P.w = z;
    ASSERT_TRUE(solver.solve(Sought::temperature, z, at_P));
    IncipientState at_T(2);
    at_T.T_K = at_P.T_K;
    at_T.P_Pa = 5e4;
    at_T.w = z;
    ASSERT_TRUE(solver.solve(Sought::pressure, z, at_T));
    EXPECT_NEAR(at_T.P_Pa, 101325, 1e-5);
    for (std::size_t i = 0; i < 2; ++i) EXPECT_NEAR(at_T.w[i], at_P.w[i], 1e-10);
  }
}

TEST(Parting, AmountsAreKeptAndPotentialsBecomeEqual) {
  std::mt19937_64 generator(5);
  int parted = 0;
  for (unsigned seed = 0; seed < 200; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    ActivityModel& model = mixture.activity();
    model.set_temperature(298.15);
    MixingLiquid liquid(model);
    const std::vector<double> z = random_composition(generator, 3);
    const auto more = find_more_stable(liquid, 298.15, 1e5, ln_fugacities(liquid, 298.15, 1e5, z));
    if (!more) continue;
    PartingSolver solver;
    std::vector<PhaseAmounts> phases{{&liquid, z}};
    solver.begin_phase(phases, liquid, more->composition, 298.15, 1e5);
    ASSERT_EQ(phases.size(), 2u);
    const Parting end = solver.settle(phases, 298.15, 1e5);
    EXPECT_TRUE(end.converged);
    for (std::size_t i = 0; i < 3; ++i) {
      double sum = 0;
      for (const PhaseAmounts& phase : phases) sum += phase.n[i];
      EXPECT_NEAR(sum, z[i], 1e-13) << seed;
    }
    if (phases.size() < 2) continue;
    ++parted;
    const auto one = ln_fugacities(liquid, 298.15, 1e5, phases[0].fractions()),
               two = ln_fugacities(liquid, 298.15, 1e5, phases[1].fractions());
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(one[i], two[i], 1e-9) << seed;
    // Downhill: below the undivided liquid.
    const auto whole = ln_fugacities(liquid, 298.15, 1e5, z);
    double undivided = 0;
    for (std::size_t i = 0; i < 3; ++i) undivided += z[i] * whole[i];
    EXPECT_LT(end.gibbs, undivided);
  }
  EXPECT_GT(parted, 15);
}

TEST(TangentSearch, LooksInEveryKindOfPhase) {
  Mixture mixture = test::mtbe_methanol();
  TangentSearch search(mixture.kinds());
  const std::vector<double> z{0.5, 0.5};
  const VlePoint bubble = bubble_temperature(mixture, 101325, z);
  // A kelvin above its bubble point a liquid would rather be partly vapour, a kelvin below it would not.
  EXPECT_LT(search.lowest(mixture.liquid(), bubble.T_K + 1, 101325, z).minimum.distance, 0);
  EXPECT_EQ(search.lowest(mixture.liquid(), bubble.T_K + 1, 101325, z).kind, 0u);
  EXPECT_GT(search.lowest(mixture.liquid(), bubble.T_K - 1, 101325, z).minimum.distance, -1e-9);
}

TEST(RachfordRice, ClosesTheBalanceOfRandomFeeds) {
  std::mt19937_64 generator(17);
  std::uniform_real_distribution<double> ln_K(-4, 4);
  for (int k = 0; k < 500; ++k) {
    const std::size_t n = 2 + generator() % 8;
    const std::vector<double> z = random_composition(generator, n);
    std::vector<double> K;
    for (std::size_t i = 0; i < n; ++i) K.push_back(std::exp(ln_K(generator)));
    const double V = rachford_rice(z, K);
    const bool both = *std::max_element(K.begin(), K.end()) > 1 && *std::min_element(K.begin(), K.end()) < 1;
    EXPECT_EQ(std::isnan(V), !both);
    if (!both) continue;
    double sum = 0, size = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const double term = z[i] * (K[i] - 1) / (1 + V * (K[i] - 1));
      sum += term;
      size += std::abs(term);
      EXPECT_GT(1 + V * (K[i] - 1), 0);  // between the poles
    }
    EXPECT_LT(std::abs(sum), 1e-9 * std::max(1.0, size));
  }
}

TEST(RachfordRice, OfTwoComponentsHasItsClosedForm) {
  const std::vector<double> z{0.3, 0.7}, K{3, 0.5};
  EXPECT_NEAR(rachford_rice(z, K), -(z[0] * (K[0] - 1) + z[1] * (K[1] - 1)) / ((K[0] - 1) * (K[1] - 1)),
              1e-14);
}

TEST(CriticalSolution, OfARegularSolutionIsAtTwo) {
  // A = 700 K / T: critical where A = 2, at 350 K and the middle.
  class Regular final : public ActivityModel {
   public:
    std::string_view name() const override { return "regular"; }
    std::size_t size() const override { return 2; }
    std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Regular>(*this); }
    void set_temperature(double T_K) override { at_ = Margules(700 / T_K); }
    void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                  std::span<double> dn) override {
      at_.evaluate(x, ln_gamma, dT, dn);
    }
    double third_derivative(std::span<const double> x, std::span<const double> u) const override {
      return at_.third_derivative(x, u);
    }

   private:
    Margules at_{2};
  } model;
  const auto found = critical_solutions(model, 250, 450);
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NEAR(found[0].T_K, 350, 1e-6);
  EXPECT_NEAR(found[0].x1, 0.5, 1e-4);
  EXPECT_TRUE(found[0].upper);
  EXPECT_LT(std::abs(found[0].curvature), 1e-9);
  EXPECT_TRUE(critical_solutions(model, 360, 450).empty());
}

TEST(BoilingLiquids, TheHeterogeneousAzeotropeSatisfiesAllItsEquations) {
  Mixture mixture = test::butanol_water();
  BoilingLiquidsSolver solver(mixture.liquid(), mixture.vapour(), 101325);
  BoilingLiquids start;
  start.alpha = {0.02, 0.98};
  start.beta = {0.4, 0.6};
  start.y = {0.25, 0.75};
  start.T_K = 366;
  start.share = 0.5;
  const auto found = solver.azeotrope(start);
  ASSERT_TRUE(found);
  const auto alpha = ln_fugacities(mixture.liquid(), found->T_K, 101325, found->alpha),
             beta = ln_fugacities(mixture.liquid(), found->T_K, 101325, found->beta),
             vapour = ln_fugacities(mixture.vapour(), found->T_K, 101325, found->y);
  for (std::size_t i = 0; i < 2; ++i) {
    EXPECT_NEAR(alpha[i], beta[i], 1e-9);
    EXPECT_NEAR(alpha[i], vapour[i], 1e-9);
    EXPECT_NEAR(found->y[i], (1 - found->share) * found->alpha[i] + found->share * found->beta[i], 1e-10);
  }
  EXPECT_GT(found->share, 0);
  EXPECT_LT(found->share, 1);
}

TEST(ThreeLiquids, AreFoundFromRoughOnes) {
  // Three liquids that hardly know each other.
  ParameterCollection parameters;
  for (const auto& [a, b] : {std::pair("water", "n-hexane"), std::pair("water", "acetonitrile"),
                             std::pair("n-hexane", "acetonitrile")})
    parameters.add(test::nrtl_pair(a, b, 900, 900, 0.2));
  Mixture mixture(substances_named({"water", "n-hexane", "acetonitrile"}), "nrtl", parameters);
  ActivityModel& model = mixture.activity();
  const ThreeLiquids guess{{{0.9, 0.05, 0.05}, {0.05, 0.9, 0.05}, {0.05, 0.05, 0.9}}};
  const auto found = three_liquids_near(model, 300, guess);
  ASSERT_TRUE(found);
  MixingLiquid liquid(model);
  const auto activities = [&](std::size_t p) {
    return ln_fugacities(liquid, 300, 1e5, {(*found)[p].begin(), (*found)[p].end()});
  };
  const auto first = activities(0);
  for (std::size_t p = 1; p < 3; ++p) {
    const auto other = activities(p);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(first[i], other[i], 1e-9);
  }
  for (std::size_t p = 0; p < 3; ++p) EXPECT_GT((*found)[p][p], 0.5);
  // An ideal liquid has none.
  Mixture ideal(substances_named({"water", "n-hexane", "acetonitrile"}), "ideal", {});
  EXPECT_FALSE(three_liquids_near(ideal.activity(), 300, guess));
}

TEST(LiquidSurface, CurvatureOfABinaryIsTheStabilityFunction) {
  Margules model(1.7, 0.3);
  for (double x = 0.05; x < 1; x += 0.1) {
    const std::vector<double> z{x, 1 - x};
    std::vector<double> ln_gamma(2), dn(4);
    model.evaluate(z, ln_gamma, {}, dn);
    // 1 + x1 x2 (second derivative of gE): the two forms of the same number.
    const double expected = 1 + x * dn[0] + (1 - x) * dn[3];
    EXPECT_NEAR(smallest_curvature(model, z).value, expected, 1e-12);
  }
}

TEST(LiquidSurface, CurvatureOfAnIdealLiquidIsOneAndItsDirectionSumsToZero) {
  Mixture ideal(substances_named({"acetone", "methanol", "water", "toluene"}), "ideal", {});
  std::mt19937_64 generator(23);
  for (int k = 0; k < 20; ++k) {
    const std::vector<double> x = random_composition(generator, 4);
    EXPECT_NEAR(smallest_curvature(ideal.activity(), x).value, 1, 1e-12);
  }
  for (unsigned seed = 0; seed < 20; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    mixture.activity().set_temperature(300);
    const std::vector<double> x = random_composition(generator, 3);
    const Curvature curvature = smallest_curvature(mixture.activity(), x, true);
    double sum = 0, length = 0;
    for (std::size_t i = 0; i < 3; ++i) {
      sum += curvature.direction[i];
      length += curvature.direction[i] * curvature.direction[i] / x[i];
    }
    EXPECT_NEAR(sum, 0, 1e-9);
    EXPECT_NEAR(length, 1, 1e-9);
  }
}

TEST(PlaitPoint, ThirdDerivativeOfMixingIsThatOfTheGibbsEnergy) {
  std::mt19937_64 generator(29);
  for (unsigned seed = 0; seed < 20; ++seed) {
    Mixture mixture = test::random_ternary(seed);
    ActivityModel& model = mixture.activity();
    model.set_temperature(305);
    std::vector<double> x = random_composition(generator, 3);
    for (double& value : x) value = 0.1 + 0.7 * value;  // away from the sides, sum 1
    const std::vector<double> u{0.4, -0.7, 0.3};
    const auto second = [&](double s) {  // d2g/ds2 = sum u_i u_k (delta/x - 1/n + dlngamma)
      std::vector<double> at(3), ln_gamma(3), dn(9);
      for (std::size_t i = 0; i < 3; ++i) at[i] = x[i] + s * u[i];
      model.evaluate(at, ln_gamma, {}, dn);
      double sum = 0;
      for (std::size_t i = 0; i < 3; ++i) {
        sum += u[i] * u[i] / at[i];
        for (std::size_t k = 0; k < 3; ++k) sum += u[i] * u[k] * dn[3 * i + k];
      }
      return sum;
    };
    const double by_difference = test::derivative(second, 0, 1e-4);
    EXPECT_NEAR(mixing_third_derivative(model, x, u), by_difference, 1e-5 * (1 + std::abs(by_difference)))
        << seed;
  }
}

}  // namespace
}  // namespace jampot
