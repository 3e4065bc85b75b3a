// Flashes at given T and P: balances, equal fugacities, and no phase that lowers the Gibbs energy further, at
// random states of random mixtures.
#include "jampot/equilibrium/flash.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <map>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/equilibrium/stability.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// What is wrong with a result, all computed afresh; empty where nothing is.
std::string faults(const std::vector<Phase*>& kinds, double T_K, double P_Pa, const std::vector<double>& z,
                   const Flashed& result, std::mt19937_64& generator, int random_starts) {
  const std::size_t n = z.size();
  std::vector<std::vector<double>> ln_f;
  for (std::size_t i = 0; i < n; ++i) {
    double sum = 0;
    for (const FlashedPhase& phase : result.phases) sum += phase.amount * phase.x[i];
    if (!(std::abs(sum - z[i]) < 1e-12)) return "mass balance";
  }
  for (const FlashedPhase& phase : result.phases) {
    PhaseValues values(n);
    kinds[phase.kind]->evaluate(T_K, P_Pa, phase.x, {}, values);
    for (std::size_t i = 0; i < n; ++i) values.ln_phi[i] += std::log(phase.x[i]);
    ln_f.push_back(values.ln_phi);
    for (std::size_t i = 0; i < n; ++i) {
      if (!(std::abs(ln_f.back()[i] - ln_f.front()[i]) < 1e-9)) return "fugacities";
    }
  }
  for (std::size_t a = 0; a < result.phases.size(); ++a) {
    for (std::size_t b = a + 1; b < result.phases.size(); ++b) {
      double most = 0;
      for (std::size_t i = 0; i < n; ++i)
        most = std::max(most, std::abs(result.phases[a].x[i] - result.phases[b].x[i]));
      if (result.phases[a].kind == result.phases[b].kind && !(most > 1e-6)) return "trivial solution";
    }
  }
  TangentPlane plane;
  for (int k = 0; k < random_starts; ++k) {
    for (Phase* kind : kinds) {
      const TangentMinimum found =
          plane.descend(*kind, T_K, P_Pa, ln_f.front(), test::random_composition(generator, n));
      if (found.distance < -1e-8) return "a phase that lowers the Gibbs energy was not found";
    }
  }
  return "";
}

void random_flashes(int flashes, unsigned seed) {
  const std::vector<std::string> pool{
      "methane",   "ethane",         "propane",          "n-butane", "n-pentane", "n-hexane",
      "n-heptane", "n-octane",       "benzene",          "toluene",  "hydrogen",  "nitrogen",
      "water",     "carbon dioxide", "hydrogen sulfide", "methanol", "acetone"};
  std::map<std::size_t, int> counted;
  for (int k = 0; k < flashes; ++k) {
    std::mt19937_64 generator(seed + static_cast<unsigned>(k));
    std::vector<std::string> names = pool;
    std::shuffle(names.begin(), names.end(), generator);
    names.resize(2 + generator() % 5);
    CubicEquation equation(
        k % 2 == 0 ? CubicEquation::Form::peng_robinson : CubicEquation::Form::soave_redlich_kwong,
        substances_named(names));
    FluidPhase fluid(equation.clone(), FluidPhase::Root::stable);
    std::uniform_real_distribution<double> T(180, 550), lnP(std::log(2e4), std::log(2e7));
    const std::vector<double> z = test::random_composition(generator, names.size());
    const double T_K = T(generator), P_Pa = std::exp(lnP(generator));
    try {
      const Flashed result = flash({&fluid}, {Kelvin(T_K), Pascal(P_Pa)}, z);
      ++counted[result.phases.size()];
      EXPECT_EQ(faults({&fluid}, T_K, P_Pa, z, result, generator, 10), "") << "flash " << k;
    } catch (const std::runtime_error& error) {
      ADD_FAILURE() << "flash " << k << ": " << error.what();
    }
  }
  EXPECT_GT(counted[1], flashes / 4);
  EXPECT_GT(counted[2], flashes / 5);
  EXPECT_GT(counted[3], 0);
}

TEST(Flash, RandomMixturesByCubicEquations) {
  random_flashes(300, 1);
}

TEST(SlowFlash, TenThousandRandomMixturesByCubicEquations) {
  random_flashes(10000, 50000);
}

// The same of any mixture; every third one is let down adiabatically as well.
void random_states(int flashes, unsigned seed, const std::vector<std::string>& pool,
                   const std::string& liquid, const std::string& vapour, std::array<double, 2> T_range,
                   std::array<double, 2> P_range) {
  VapourChoice choice;
  choice.model = vapour;
  std::map<std::size_t, int> counted;
  for (int k = 0; k < flashes; ++k) {
    std::mt19937_64 generator(seed + static_cast<unsigned>(k));
    std::vector<std::string> names = pool;
    std::shuffle(names.begin(), names.end(), generator);
    names.resize(2 + generator() % 4);
    std::uniform_real_distribution<double> T(T_range[0], T_range[1]),
        lnP(std::log(P_range[0]), std::log(P_range[1]));
    const std::vector<double> z = test::random_composition(generator, names.size());
    const double T_K = T(generator), P_Pa = std::exp(lnP(generator));
    try {
      Mixture mixture(substances_named(names), liquid, {}, choice);
      const Flashed result = flash(mixture.kinds(), {Kelvin(T_K), Pascal(P_Pa)}, z);
      ++counted[result.phases.size()];
      EXPECT_EQ(faults(mixture.kinds(), T_K, P_Pa, z, result, generator, 4), "") << "flash " << k;
      if (k % 3 != 0) continue;
      Energies energies(mixture);
      const FlashState feed{T_K, P_Pa, result};
      const double h = enthalpy(energies, feed);
      const FlashState out = flash_at_P_and_enthalpy(mixture, energies, P_Pa / 3, h, z, T_K);
      double size = std::abs(h);
      for (const FlashedPhase& phase : out.flashed.phases)
        size += std::abs(phase.amount * energies.enthalpy(phase.kind, out.T_K, out.P_Pa, phase.x));
      EXPECT_LT(std::abs(enthalpy(energies, out) - h), 1e-9 * size) << "let down " << k;
    } catch (const std::runtime_error& error) {
      ADD_FAILURE() << "flash " << k << ": " << error.what();
    }
  }
  EXPECT_GT(counted[1], flashes / 10);
  EXPECT_GT(counted[2], flashes / 10);
}

const std::vector<std::string> saft_pool{"methane",  "propane", "n-hexane",  "toluene",  "cyclohexane",
                                         "methanol", "water",   "1-butanol", "nitrogen", "acetic acid"};
const std::vector<std::string> solvent_pool{"acetone", "methanol", "water",    "ethyl acetate",
                                            "ethanol", "toluene",  "n-hexane", "2-butanone"};

TEST(Flash, RandomMixturesByOtherModels) {
  random_states(40, 7, saft_pool, "eos", "pc-saft", {260, 500}, {3e4, 5e6});
  random_states(150, 7, solvent_pool, "unifac", "virial", {290, 420}, {2e4, 3e5});
  random_states(150, 9, solvent_pool, "unifac", "ideal", {290, 420}, {2e4, 3e5});
}

TEST(SlowFlash, ThousandsOfRandomMixturesByOtherModels) {
  random_states(2000, 70000, saft_pool, "eos", "pc-saft", {260, 500}, {3e4, 5e6});
  random_states(4000, 80000, solvent_pool, "unifac", "virial", {290, 420}, {2e4, 3e5});
  random_states(4000, 90000, solvent_pool, "unifac", "ideal", {290, 420}, {2e4, 3e5});
}

// An activity model with an ideal vapour: between bubble and dew point two phases, outside one, three at a
// heteroazeotrope's composition just where both liquids and the vapour stand.
TEST(Flash, AgreesWithBubbleAndDewPoints) {
  Mixture mixture = test::mtbe_methanol();
  const std::vector<double> z{0.3, 0.7};
  const double bubble = bubble_temperature(mixture, 101325, z).T_K,
               dew = dew_temperature(mixture, 101325, z).T_K;
  ASSERT_LT(bubble, dew);
  const std::vector<Phase*> kinds{&mixture.vapour(), &mixture.liquid()};
  EXPECT_EQ(flash(kinds, {Kelvin(bubble - 0.05), Pascal(101325)}, z).phases.size(), 1u);
  EXPECT_EQ(flash(kinds, {Kelvin(dew + 0.05), Pascal(101325)}, z).phases.size(), 1u);
  std::mt19937_64 generator(1);
  double before = 0;
  for (const double share : {0.01, 0.3, 0.6, 0.99}) {
    const double T = bubble + share * (dew - bubble);
    const Flashed result = flash(kinds, {Kelvin(T), Pascal(101325)}, z);
    ASSERT_EQ(result.phases.size(), 2u);
    EXPECT_EQ(faults(kinds, T, 101325, z, result, generator, 20), "");
    const double vapour = result.phases[result.phases[0].kind == 0 ? 0 : 1].amount;
    EXPECT_GT(vapour, before);  // more vapour the hotter
    before = vapour;
  }
}

TEST(Flash, TwoLiquidsAndAVapour) {
  Mixture mixture = test::butanol_water();
  std::mt19937_64 generator(2);
  const std::vector<Phase*> kinds{&mixture.vapour(), &mixture.liquid()};
  const std::vector<double> z{0.2, 0.8};
  const Flashed cold = flash(kinds, {Kelvin(330), Pascal(101325)}, z);
  ASSERT_EQ(cold.phases.size(), 2u);
  for (const FlashedPhase& phase : cold.phases) EXPECT_EQ(phase.kind, 1u);  // both liquid
  EXPECT_EQ(faults(kinds, 330, 101325, z, cold, generator, 20), "");
  const Flashed hot = flash(kinds, {Kelvin(420), Pascal(101325)}, z);
  ASSERT_EQ(hot.phases.size(), 1u);
  EXPECT_EQ(hot.phases[0].kind, 0u);
}

}  // namespace
}  // namespace jampot
