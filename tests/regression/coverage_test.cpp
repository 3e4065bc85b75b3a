// Of simulated data sets, how many of the 95 % intervals hold the truth: by kinds of data.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <future>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/regression/fit.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

struct Coverage {
  int covered = 0, intervals = 0, not_fitted = 0;
  double share() const { return static_cast<double>(covered) / intervals; }
};

using TruthOf = std::function<double(const FittedParameter&)>;
/// Makes the sets of one simulation, with the truth that belongs to its fit.
struct Simulated {
  std::vector<DataSet> sets;
  FitOptions options;
  TruthOf truth;
};

// Two halves side by side.
Coverage coverage(int simulations, const std::function<Simulated(unsigned)>& simulate) {
  const auto half = [&](unsigned from) {
    Coverage one;
    for (unsigned k = from; k < static_cast<unsigned>(simulations); k += 2) {
      const Simulated simulated = simulate(k);
      try {
        const Fit result = fit(simulated.sets, simulated.options);
        for (const FittedParameter* parameter : result.free()) {
          const double truth = simulated.truth(*parameter);
          ++one.intervals;
          one.covered += parameter->low <= truth && truth <= parameter->high;
        }
      } catch (const CalculationError&) {
        ++one.not_fitted;  // said so
      }
    }
    return one;
  };
  auto other = std::async(std::launch::async, half, 1u);
  Coverage all = half(0);
  const Coverage second = other.get();
  return {all.covered + second.covered, all.intervals + second.intervals, all.not_fitted + second.not_fitted};
}

TruthOf of_pairs(const std::vector<PairParameters>& pairs) {
  return [pairs](const FittedParameter& parameter) {
    return pairs.at(parameter.term_index / 3).terms.at(parameter.term)[parameter.coefficient];
  };
}

FitOptions with_profiles() {
  FitOptions options;
  options.profiles = Profiles::when_nonlinear;
  return options;
}

Simulated boiling(unsigned seed, bool alpha_free) {
  const Mixture truth = test::mtbe_methanol();
  Simulated simulated{{test::synthetic(truth, seed % 2 == 0 ? DataKind::txy : DataKind::pxy, 30, 1000 + seed,
                                       1, alpha_free ? test::Noise{0.025, 25, 0.001, 0.002} : test::Noise{})},
                      with_profiles(),
                      of_pairs(truth.parameters())};
  if (alpha_free) simulated.options.release = {"alpha"};
  return simulated;
}

// The vapour pressures of the still's substances are off by 1 %, as those of the bank may be.
Simulated fitted_vapour_pressures(unsigned seed) {
  std::mt19937_64 generator(100 + seed);
  std::normal_distribution<double> normal;
  const Mixture truth = test::mtbe_methanol();
  std::vector<Substance> off = truth.substances();
  std::vector<double> ln_factor(2);
  for (std::size_t i = 0; i < 2; ++i) {
    ln_factor[i] = 0.01 * normal(generator);
    off[i].vapour_pressure = off[i].vapour_pressure->scaled(std::exp(ln_factor[i]));
  }
  ParameterCollection collection;
  for (const PairParameters& pair : truth.parameters()) collection.add(pair);
  DataSet data = test::synthetic(Mixture(off, "nrtl", collection), DataKind::pxy, 15, 300 + seed);
  for (const std::size_t i : {0u, 1u}) {
    const std::vector<double> pure{i == 0 ? 1.0 : 0.0, i == 0 ? 0.0 : 1.0};
    DataPoint point{330, off[i].vapour_pressure->P_Pa(330), pure, pure, 0.05, 50, 0.002, 0.004, 50};
    point.T_K += 0.05 * normal(generator);
    point.P_Pa += 50 * normal(generator);
    data.points.push_back(point);
  }
  data.substances = truth.substances();
  Simulated simulated{{data}, with_profiles(), {}};
  simulated.options.pure = PurePressures::fit;
  simulated.options.u_pure = 0.01;
  simulated.truth = [pairs = of_pairs(truth.parameters()), ln_factor](const FittedParameter& parameter) {
    return parameter.term == "Psat" ? ln_factor.at(parameter.term_index - 3) : pairs(parameter);
  };
  return simulated;
}

Mixture parting_pair() {
  PairParameters pair = test::nrtl_pair("1-butanol", "water", 550, 1100, 0.4);
  pair.terms["tau_12"].constant = -1.2;
  pair.terms["tau_21"].constant = 0.6;
  ParameterCollection collection;
  collection.add(pair);
  return {substances_named({"1-butanol", "water"}), "nrtl", collection};
}

DataSet solubilities(Mixture& mixture, unsigned seed) {
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  DataSet data;
  data.name = "solubilities";
  data.kind = DataKind::lle;
  data.substances = mixture.substances();
  for (double T_K = 290; T_K < 371; T_K += 8) {
    const BinarySplit split = binary_splits(mixture.activity(), T_K).at(0);
    const double a = split.x1_alpha + 0.002 * normal(generator),
                 b = split.x1_beta + 0.001 * normal(generator);
    data.points.push_back(
        {T_K + 0.1 * normal(generator), 0, {a, 1 - a}, {b, 1 - b}, 0.1, 0, 0.002, 0.001, 1});
  }
  return data;
}

Simulated two_liquids(unsigned seed, bool with_other_kinds) {
  Mixture mixture = parting_pair();
  Simulated simulated{{solubilities(mixture, 7000 + seed)}, with_profiles(), of_pairs(mixture.parameters())};
  simulated.options.form = {Coefficient::constant, Coefficient::inverse_T};
  simulated.options.hold = {{"alpha", 0.4}};
  if (!with_other_kinds) return simulated;
  std::mt19937_64 generator(9000 + seed);
  std::normal_distribution<double> normal;
  DataSet heat, limits;
  heat.kind = DataKind::excess_enthalpy;
  limits.kind = DataKind::gamma_inf;
  heat.substances = limits.substances = mixture.substances();
  for (double x = 0.6; x < 0.99; x += 0.05) {
    DataPoint point{310, 0, {x, 1 - x}, {}, 0.1, 0, 0.001, 0, 1};
    point.u_value = 20;
    point.value = gamma_at(mixture.activity(), 310, point.x).hE_J_mol + 20 * normal(generator);
    heat.points.push_back(point);
  }
  for (const std::size_t solute : {0u, 1u}) {
    for (const double T_K : {320.0, 340.0, 360.0}) {
      DataPoint point{T_K, 0, {solute == 0 ? 0.0 : 1.0, solute == 0 ? 1.0 : 0.0}, {}, 0.1, 0, 0, 0, 1};
      point.solute = solute;
      point.solvent = 1 - solute;
      const double exact = std::exp(limiting_ln_gamma(mixture.activity(), T_K, solute, 1 - solute));
      point.u_value = 0.03 * exact;
      point.value = exact + point.u_value * normal(generator);
      limits.points.push_back(point);
    }
  }
  simulated.sets.push_back(heat);
  simulated.sets.push_back(limits);
  return simulated;
}

// Tie lines from the pair that parts towards the plait point; dilute fractions to 5 % of themselves.
Simulated tie_lines(unsigned seed) {
  std::mt19937_64 generator(100 + seed);
  std::normal_distribution<double> normal;
  ParameterCollection collection;
  collection.add(test::nrtl_pair("water", "acetone", 400, 200, 0.3));
  collection.add(test::nrtl_pair("water", "toluene", 1500, 900, 0.3));
  collection.add(test::nrtl_pair("acetone", "toluene", -50, 180, 0.3));
  Mixture mixture(substances_named({"water", "acetone", "toluene"}), "nrtl", collection);
  DataSet data;
  data.name = "tie lines";
  data.kind = DataKind::lle;
  data.substances = mixture.substances();
  constexpr double T_K = 298.15, u = 0.002, part = 0.05;
  for (double z = 0; z < 0.4; z += 0.06) {
    const auto split =
        LiquidSplitter(mixture.activity(), T_K).split(std::vector{0.5 * (1 - z), z, 0.5 * (1 - z)});
    DataPoint point{T_K, 0, split.x.at(0), split.x.at(1), 0.1, 0, u, u, 1};
    point.relative_u_x = part;
    for (std::vector<double>* x : {&point.x, &point.y}) {
      const auto rest = static_cast<std::size_t>(std::max_element(x->begin(), x->end()) - x->begin());
      double others = 0;
      for (std::size_t i = 0; i < 3; ++i) {
        if (i == rest) continue;
        (*x)[i] += std::min(u, part * (*x)[i]) * normal(generator);
        others += (*x)[i];
      }
      (*x)[rest] = 1 - others;
    }
    point.T_K += 0.1 * normal(generator);
    data.points.push_back(point);
  }
  return {{data}, with_profiles(), of_pairs(mixture.parameters())};
}

TEST(IntervalCoverage, OfTieLinesIsWhatItSays) {
  const Coverage found = coverage(120, tie_lines);
  EXPECT_GT(found.intervals, 600);
  EXPECT_NEAR(found.share(), 0.95, 0.03);
}

struct Kind {
  const char* name;
  std::function<Simulated(unsigned)> simulate;
};

// A thousand sets of each kind (minutes each).
class EachKindOfData : public ::testing::TestWithParam<Kind> {};

TEST_P(EachKindOfData, IsBetween93And97PerCent) {
  constexpr int simulations = 1000;
  const Coverage found = coverage(simulations, GetParam().simulate);
  RecordProperty("coverage_per_mille", static_cast<int>(1000 * found.share()));
  RecordProperty("not_fitted", found.not_fitted);
  EXPECT_LE(found.not_fitted, 10);
  EXPECT_GE(found.share(), 0.93);
  EXPECT_LE(found.share(), 0.97);
}

INSTANTIATE_TEST_SUITE_P(
    SlowCoverage, EachKindOfData,
    ::testing::Values(Kind{"AlphaHeld", [](unsigned k) { return boiling(k, false); }},
                      Kind{"AlphaFree", [](unsigned k) { return boiling(k, true); }},
                      Kind{"FittedVapourPressures", fitted_vapour_pressures},
                      Kind{"MutualSolubilities", [](unsigned k) { return two_liquids(k, false); }},
                      Kind{"TieLines", tie_lines},
                      Kind{"MixedKinds", [](unsigned k) { return two_liquids(k, true); }}),
    [](const auto& instance) { return std::string(instance.param.name); });

}  // namespace
}  // namespace jampot
