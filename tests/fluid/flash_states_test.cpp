// Flashes by vapour fraction and enthalpy; energies on one reference.
#include "jampot/equilibrium/flash_states.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/rachford_rice.hpp"
#include "support.hpp"

namespace jampot {
namespace {

struct Kind {
  std::string name, liquid, vapour;
  std::vector<std::string> substances;
};
void PrintTo(const Kind& kind, std::ostream* out) {
  *out << kind.name;
}

class FlashStates : public ::testing::TestWithParam<Kind> {
 protected:
  static Mixture make() {
    VapourChoice choice;
    choice.model = GetParam().vapour;
    return {substances_named(GetParam().substances), GetParam().liquid, {}, choice};
  }
  Mixture mixture = make();
  std::mt19937_64 generator{21};
};

double worst_balance(const FlashState& state, const std::vector<double>& z) {
  double worst = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    double sum = 0;
    for (const FlashedPhase& phase : state.flashed.phases) sum += phase.amount * phase.x[i];
    worst = std::max(worst, std::abs(sum - z[i]));
  }
  return worst;
}

TEST_P(FlashStates, VapourFractionsAreMet) {
  std::uniform_real_distribution<double> share(0.01, 0.99), lnP(std::log(5e4), std::log(4e5));
  for (int k = 0; k < 12; ++k) {
    const auto z = test::random_composition(generator, mixture.size());
    const double wanted = share(generator), P = std::exp(lnP(generator));
    const FlashState state = flash_at_P_and_vapour_fraction(mixture, P, wanted, z);
    EXPECT_NEAR(state.flashed.vapour_fraction(), wanted, 1e-10);
    EXPECT_LT(worst_balance(state, z), 1e-12);
    EXPECT_LT(state.flashed.residual, 1e-10);
    const FlashState back = flash_at_T_and_vapour_fraction(mixture, state.T_K, wanted, z);
    EXPECT_NEAR(back.P_Pa / P, 1, 1e-7);
    EXPECT_NEAR(back.flashed.vapour_fraction(), wanted, 1e-10);
  }
  const auto z = test::random_composition(generator, mixture.size());
  EXPECT_NEAR(flash_at_P_and_vapour_fraction(mixture, 101325, 1, z).T_K,
              dew_temperature(mixture, 101325, z).T_K, 1e-5);
  EXPECT_THROW(flash_at_P_and_vapour_fraction(mixture, 101325, 1.2, z), RequestError);
}

// Let down adiabatically: the enthalpy is kept, and flashing at the temperature found gives the same phases.
TEST_P(FlashStates, EnthalpyIsKept) {
  Energies energies(mixture);
  std::uniform_real_distribution<double> T(320, 440);
  for (int k = 0; k < 12; ++k) {
    const auto z = test::random_composition(generator, mixture.size());
    const FlashState feed = flash_at(mixture, {Kelvin(T(generator)), Pascal(6e5)}, z);
    const double h = enthalpy(energies, feed);
    const FlashState out = flash_at_P_and_enthalpy(mixture, energies, 1.2e5, h, z);
    double size = std::abs(h);
    for (const FlashedPhase& phase : out.flashed.phases)
      size += std::abs(phase.amount * energies.enthalpy(phase.kind, out.T_K, out.P_Pa, phase.x));
    EXPECT_LT(std::abs(enthalpy(energies, out) - h), 1e-9 * size);
    EXPECT_LT(worst_balance(out, z), 1e-12);
    EXPECT_NEAR(flash_at(mixture, {Kelvin(out.T_K), Pascal(out.P_Pa)}, z).flashed.vapour_fraction(),
                out.flashed.vapour_fraction(), 1e-6);
  }
}

// Enthalpy and heat capacity of a phase hang together; the reference only shifts.
TEST_P(FlashStates, EnthalpiesAreConsistent) {
  Energies gas(mixture), elements(mixture, parse_reference("liquid at 20 degC"));
  const auto x = test::random_composition(generator, mixture.size());
  for (std::size_t kind = 0; kind < mixture.kinds().size(); ++kind) {
    const double T = 360, P = 4e4;
    const PhaseEnergy energy = gas.of(kind, T, P, x);
    ASSERT_TRUE(energy.h_J_mol.value);
    EXPECT_DOUBLE_EQ(*energy.h_J_mol.value, gas.enthalpy(kind, T, P, x));
    const double shift = elements.enthalpy(kind, T, P, x) - *energy.h_J_mol.value;
    EXPECT_NEAR(elements.enthalpy(kind, 400, 1e5, x) - gas.enthalpy(kind, 400, 1e5, x), shift, 1e-6);
    const bool exact = mixture.one_equation() || (kind == 0 && mixture.vapour_model() != "virial");
    if (exact && energy.Cp_J_mol_K.value) {
      const double slope = test::derivative([&](double t) { return gas.enthalpy(kind, t, P, x); }, T, 0.05);
      EXPECT_NEAR(*energy.Cp_J_mol_K.value / slope, 1, 1e-6);
    }
    ASSERT_TRUE(energy.molar_volume_m3_mol.value);
    EXPECT_GT(*energy.molar_volume_m3_mol.value, 0);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Models, FlashStates,
    ::testing::Values(Kind{"activity", "unifac", "ideal", {"acetone", "methanol", "ethyl acetate"}},
                      Kind{"virial", "unifac", "virial", {"acetone", "methanol", "ethyl acetate"}},
                      Kind{"pr", "eos", "pr", {"propane", "n-hexane", "benzene"}},
                      Kind{"pc_saft", "eos", "pc-saft", {"propane", "n-hexane", "1-butanol"}}),
    [](const auto& kind) { return kind.param.name; });

// The heat that evaporates a pure liquid is its enthalpy of vaporisation.
TEST(Energies, EvaporationTakesTheKnownEnthalpy) {
  Mixture mixture(substances_named({"ethanol", "water"}), "unifac", {});
  Energies energies(mixture);
  const std::vector<double> pure{1, 0};
  const double T = *mixture.substances()[0].Tb_K;
  EXPECT_NEAR(energies.enthalpy(0, T, 101325, pure) - energies.enthalpy(1, T, 101325, pure),
              *enthalpy_of_vaporisation(mixture.substances()[0], T).value, 1e-3 * 38000);
}

// At the temperature of a heteroazeotrope the enthalpy of a binary jumps: three phases share it out.
TEST(Energies, ThreePhasesOfABinaryShareTheHeat) {
  Mixture mixture = test::butanol_water();
  Energies energies(mixture);
  const std::vector<double> z{0.15, 0.85};
  const FlashState boiling = flash_at_P_and_vapour_fraction(mixture, 101325, 0.2, z);
  EXPECT_EQ(boiling.flashed.phases.size(), 3u);
  const double h = enthalpy(energies, boiling);
  const FlashState again = flash_at_P_and_enthalpy(mixture, energies, 101325, h, z);
  EXPECT_EQ(again.flashed.phases.size(), 3u);
  EXPECT_NEAR(again.T_K, boiling.T_K, 1e-8);
  EXPECT_NEAR(again.flashed.vapour_fraction(), 0.2, 1e-6);
}

// Seeded, with K values over twenty decades and feeds on the edge: the equation is solved or says that there
// is one phase.
TEST(RachfordRice, CannotFail) {
  std::mt19937_64 generator(4);
  std::normal_distribution<double> ln_K(0, 6);
  for (int k = 0; k < 20000; ++k) {
    const std::size_t n = 2 + generator() % 9;
    const auto z = test::random_composition(generator, n);
    std::vector<double> K(n);
    bool above = false, below = false;
    for (double& value : K) {
      value = std::exp(ln_K(generator));
      (value > 1 ? above : below) = true;
    }
    const double V = rachford_rice(z, K);
    ASSERT_EQ(std::isnan(V), !(above && below));
    if (std::isnan(V)) continue;
    double f = 0, size = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const double x = z[i] / (1 + V * (K[i] - 1));
      ASSERT_GT(x, 0);
      f += (K[i] - 1) * x;
      size += (K[i] + 1) * x;
    }
    EXPECT_LT(std::abs(f), 1e-7 * size) << k;
  }
}

}  // namespace
}  // namespace jampot
