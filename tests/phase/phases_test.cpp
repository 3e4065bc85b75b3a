// Every kind of phase answers the same question; compositions and energies around it.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/fluid/virial_coefficients.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/phase/energies.hpp"
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/define.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;
using test::random_composition;

struct PhaseCase {
  std::string name, liquid, vapour;
  bool of_vapour;  ///< the vapour is tested, else the liquid
};

class AnyPhase : public testing::TestWithParam<PhaseCase> {
 protected:
  AnyPhase() : mixture_(make(GetParam())) {}
  static Mixture make(const PhaseCase& c) {
    VapourChoice choice;
    choice.model = c.vapour;
    const std::vector<std::string> names =
        c.liquid == "eos" ? std::vector<std::string>{"propane", "n-butane", "n-hexane"}
                          : std::vector<std::string>{"acetone", "methanol", "chloroform"};
    return {substances_named(names), c.liquid, {}, choice};
  }
  Phase& phase() { return GetParam().of_vapour ? mixture_.vapour() : mixture_.liquid(); }
  std::vector<double> ln_phi(double T_K, double P_Pa, const std::vector<double>& n) {
    double total = 0;
    for (const double value : n) total += value;
    std::vector<double> x;
    for (const double value : n) x.push_back(value / total);
    PhaseValues values(3);
    phase().evaluate(T_K, P_Pa, x, {}, values);
    return values.ln_phi;
  }

  Mixture mixture_;
  std::mt19937_64 generator_{41};
};

TEST_P(AnyPhase, DerivativesAreExact) {
  for (int k = 0; k < 5; ++k) {
    const std::vector<double> x = random_composition(generator_, 3);
    const double T = 300 + 8.0 * k, P = 1e5 + 2e4 * k;
    PhaseValues values(3);
    phase().evaluate(T, P, x, {true, true, true}, values);
    for (std::size_t i = 0; i < 3; ++i) {
      const double by_T = derivative([&](double t) { return ln_phi(t, P, x)[i]; }, T, 1e-2);
      EXPECT_NEAR(values.dT[i], by_T, 1e-6 * (1 + std::abs(by_T))) << GetParam().name;
      const double by_P =
          derivative([&](double l) { return ln_phi(T, std::exp(l), x)[i]; }, std::log(P), 1e-3);
      EXPECT_NEAR(values.dln_P[i], by_P, 1e-6) << GetParam().name;
      for (std::size_t j = 0; j < 3; ++j) {
        const double by_n = derivative(
            [&](double n) {
              std::vector<double> amounts = x;
              amounts[j] = n;
              return ln_phi(T, P, amounts)[i];
            },
            x[j], 1e-4 * x[j]);
        EXPECT_NEAR(values.dn[3 * i + j], by_n, 1e-5 * (1 + std::abs(by_n))) << GetParam().name;
      }
    }
  }
}

TEST_P(AnyPhase, ObeysGibbsDuhemAndSymmetry) {
  for (int k = 0; k < 10; ++k) {
    const std::vector<double> x = random_composition(generator_, 3);
    PhaseValues values(3);
    phase().evaluate(310 + k, 1.2e5, x, {false, false, true}, values);
    for (std::size_t j = 0; j < 3; ++j) {
      double sum = 0, along = 0;
      for (std::size_t i = 0; i < 3; ++i) {
        sum += x[i] * values.dn[3 * i + j];
        along += x[i] * values.dn[3 * j + i];
        EXPECT_NEAR(values.dn[3 * i + j], values.dn[3 * j + i], 1e-8) << GetParam().name;
      }
      EXPECT_NEAR(sum, 0, 1e-8) << GetParam().name;
      EXPECT_NEAR(along, 0, 1e-8) << GetParam().name;
    }
  }
}

TEST_P(AnyPhase, ACloneKeepsItsOwnState) {
  const std::vector<double> x{0.2, 0.3, 0.5};
  const auto copy = phase().clone();
  PhaseValues before(3), elsewhere(3), after(3);
  phase().evaluate(320, 1e5, x, {}, before);
  copy->evaluate(380, 3e5, x, {}, elsewhere);
  phase().evaluate(320, 1e5, x, {}, after);
  EXPECT_EQ(before.ln_phi, after.ln_phi);
  if (GetParam().vapour != "ideal" || !GetParam().of_vapour) {
    EXPECT_NE(before.ln_phi, elsewhere.ln_phi);
  }
  EXPECT_EQ(copy->size(), 3u);
}

INSTANTIATE_TEST_SUITE_P(All, AnyPhase,
                         testing::Values(PhaseCase{"IdealGas", "unifac", "ideal", true},
                                         PhaseCase{"VirialVapour", "unifac", "virial", true},
                                         PhaseCase{"TsonopoulosVapour", "unifac", "tsonopoulos", true},
                                         PhaseCase{"CubicVapour", "unifac", "pr", true},
                                         PhaseCase{"Liquid", "unifac", "ideal", false},
                                         PhaseCase{"LiquidBesideAVirialVapour", "unifac", "virial", false},
                                         PhaseCase{"LiquidBesideACubicVapour", "unifac", "srk", false},
                                         PhaseCase{"IdealLiquid", "ideal", "ideal", false},
                                         PhaseCase{"CubicLiquid", "eos", "pr", false},
                                         PhaseCase{"PcSaftLiquid", "eos", "pc-saft", false},
                                         PhaseCase{"PcSaftVapour", "eos", "pc-saft", true}),
                         [](const auto& tested) { return tested.param.name; });

TEST(Phases, APureLiquidHasItsVapourPressure) {
  for (const char* name : {"acetone", "water", "toluene", "n-hexane"}) {
    const auto substances = substances_named({name, "methanol"});
    Mixture mixture(substances, "ideal", {});
    PhaseValues values(2);
    const double T = 330, P = std::exp(substances[0].vapour_pressure->ln_P(T));
    mixture.liquid().evaluate(T, P, std::vector<double>{1, 0}, {}, values);
    EXPECT_NEAR(values.ln_phi[0], 0, 1e-12) << name;
  }
}

TEST(Phases, EvaluationsAreCounted) {
  Mixture mixture = test::mtbe_methanol();
  const long before = mixture.evaluations();
  PhaseValues values(2);
  for (int k = 0; k < 7; ++k) mixture.liquid().evaluate(320, 1e5, std::vector<double>{0.4, 0.6}, {}, values);
  EXPECT_EQ(mixture.evaluations() - before, 7);
}

TEST(Compositions, MassAndMoleAreInverse) {
  std::mt19937_64 generator(2);
  const auto substances = substances_named({"water", "ethanol", "ethyl acetate", "toluene"});
  for (int k = 0; k < 100; ++k) {
    const std::vector<double> x = random_composition(generator, 4);
    const std::vector<double> w = mass_fractions(x, substances), back = mole_fractions(w, substances);
    double sum = 0;
    for (std::size_t i = 0; i < 4; ++i) {
      EXPECT_NEAR(back[i], x[i], 1e-14);
      sum += w[i];
    }
    EXPECT_NEAR(sum, 1, 1e-14);
  }
  // Water is lighter than anything here: its mass fraction is the smaller one.
  EXPECT_LT(mass_fractions(std::vector<double>{0.5, 0.5, 0, 0}, substances)[0], 0.5);
}

TEST(Compositions, TheUncertaintyOfAMassFractionIsCarriedOver) {
  const auto substances = substances_named({"water", "ethanol"});
  for (double x = 0.05; x < 1; x += 0.15) {
    const double w = mass_fractions(std::vector<double>{x, 1 - x}, substances)[0];
    const double slope = derivative(
        [&](double at) {
          return mole_fractions(std::vector<double>{at, 1 - at}, substances)[0];
        },
        w, 1e-4);
    EXPECT_NEAR(mole_fraction_uncertainty(0.002, std::vector<double>{x, 1 - x}, substances), 0.002 * slope,
                1e-9);
  }
}

TEST(Compositions, MolalitiesAndRichness) {
  const std::vector<double> x =
      from_mole_ratio(0.25, 1);  // a quarter mole of the second for each of the first
  EXPECT_NEAR(x[1], 0.2, 1e-15);
  EXPECT_NEAR(x[0], 0.8, 1e-15);
  // 0.6 of water against 0.55 elsewhere, 0.3 of ethanol against 0.05: rich in ethanol, though mostly water.
  EXPECT_EQ(rich_in(std::vector<double>{0.6, 0.3, 0.1}, {{0.55, 0.05, 0.4}}), 1u);
  const auto substances = substances_named({"water", "ethanol"});
  EXPECT_EQ(member_named("EtOH", substances), 1u);
  EXPECT_EQ(member_named("7732-18-5", substances), 0u);
  EXPECT_THROW(member_named("acetone", substances), RequestError);
  EXPECT_EQ(parse_basis("mole"), Basis::mole);
  EXPECT_THROW(parse_basis("molar"), RequestError);
}

TEST(Energy, HeatCapacityIsTheSlopeOfTheEnthalpy) {
  // Gases of every model, with a reference of the enthalpy that does not matter.
  for (const char* model : {"ideal", "virial", "pr", "srk"}) {
    VapourChoice choice;
    choice.model = model;
    Mixture mixture(substances_named({"acetone", "ethanol", "toluene"}), "ideal", {}, choice);
    Energies energies(mixture);
    const std::vector<double> y{0.3, 0.3, 0.4};
    const double T = 400, P = 8e4;
    const PhaseEnergy here = energies.of(0, T, P, y);
    ASSERT_TRUE(here.Cp_J_mol_K.value) << model;
    const double slope = derivative([&](double t) { return energies.enthalpy(0, t, P, y); }, T, 0.1);
    EXPECT_NEAR(*here.Cp_J_mol_K.value, slope, 2e-4 * slope) << model;
  }
}

TEST(Energy, MixingAnIdealLiquidTakesNoHeat) {
  Mixture mixture(substances_named({"n-hexane", "toluene"}), "ideal", {});
  Energies energies(mixture);
  const double T = 310, P = 1e5;
  const double first = energies.enthalpy(1, T, P, std::vector<double>{1, 0}),
               second = energies.enthalpy(1, T, P, std::vector<double>{0, 1});
  for (double x = 0.1; x < 1; x += 0.2)
    EXPECT_NEAR(energies.enthalpy(1, T, P, std::vector<double>{x, 1 - x}), x * first + (1 - x) * second,
                1e-6);
}

TEST(Energy, TheVapourStandsAboveTheLiquid) {
  for (const char* model : {"ideal", "virial"}) {
    VapourChoice choice;
    choice.model = model;
    Mixture mixture(substances_named({"water", "ethanol"}), "unifac", {}, choice);
    Energies energies(mixture);
    for (double x = 0; x <= 1; x += 0.25) {
      const std::vector<double> z{x, 1 - x};
      const double gap = energies.enthalpy(0, 355, 101325, z) - energies.enthalpy(1, 355, 101325, z);
      EXPECT_GT(gap, 35e3) << model;
      EXPECT_LT(gap, 46e3) << model;
    }
  }
}

TEST(Mixtures, SayWhatTheyRestOn) {
  Mixture mixture = test::mtbe_methanol();
  EXPECT_EQ(mixture.liquid_model(), "nrtl");
  EXPECT_EQ(mixture.vapour_model(), "ideal");
  ASSERT_EQ(mixture.parameters().size(), 1u);
  EXPECT_EQ(mixture.parameters()[0].source, "test");
  EXPECT_EQ(mixture.unifac(), nullptr);
  EXPECT_FALSE(mixture.one_equation());
  Mixture predicted(substances_named({"ethanol", "water"}), "unifac", {});
  EXPECT_NE(predicted.unifac(), nullptr);
  EXPECT_TRUE(predicted.range_notices(300, 310).empty() ||
              !predicted.range_notices(300, 310).has("parameter-range"));
}

TEST(Mixtures, WhatCannotBeAMixtureIsRefused) {
  const auto pair = substances_named({"ethanol", "water"});
  EXPECT_THROW(Mixture(substances_named({"ethanol"}), "unifac", ParameterCollection{}), RequestError);
  EXPECT_THROW(Mixture(substances_named({"ethanol", "EtOH"}), "unifac", ParameterCollection{}), RequestError);
  EXPECT_THROW(Mixture(pair, "unifak", ParameterCollection{}), RequestError);
  EXPECT_THROW(Mixture(pair, "nrtl", ParameterCollection{}), CalculationError);
  VapourChoice choice;
  choice.model = "steam";
  EXPECT_THROW(Mixture(pair, "unifac", ParameterCollection{}, choice), RequestError);
}

TEST(Mixtures, ParametersUsedOutsideTheirDataAreNoticed) {
  PairParameters pair = test::nrtl_pair("methyl tert-butyl ether", "methanol", 236, 194, 0.3);
  pair.T_range_K = {320, 340};
  ParameterCollection parameters;
  parameters.add(pair);
  const Mixture mixture(substances_named({"methyl tert-butyl ether", "methanol"}), "nrtl", parameters);
  EXPECT_FALSE(mixture.range_notices(321, 339).has("parameter-range"));
  EXPECT_FALSE(mixture.range_notices(318.5, 341.5).has("parameter-range"));  // a step that is none
  ASSERT_TRUE(mixture.range_notices(300, 339).has("parameter-range"));
  for (const Notice& notice : mixture.range_notices(298.15, 298.15)) {
    if (notice.code != "parameter-range") continue;
    EXPECT_NE(notice.text.find("between 46.9 and 66.9 degC"), std::string::npos) << notice.text;
    EXPECT_NE(notice.text.find("uses them at 25.0 degC"), std::string::npos) << notice.text;
  }
}

// Formic acid pairs up in the vapour so strongly that its azeotrope with water boils above both. Handbook:
// 107.2 degC, x(water) 0.433 (L. H. Horsley, Azeotropic Data III); without dimers UNIFAC makes it a minimum.
TEST(Association, FormicAcidAndWaterHaveAMaximumAzeotrope) {
  VapourChoice choice;
  choice.model = "virial";
  Mixture mixture(substances_named({"formic acid", "water"}), "unifac", {}, choice);
  EXPECT_TRUE(mixture.range_notices(370, 380).has("dimers"));
  EXPECT_FALSE(mixture.range_notices(370, 380).has("associating-vapour"));
  const auto found = txy(mixture, 101325).azeotropes;
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].heterogeneous, false);
  EXPECT_GT(found[0].T_K, std::max(*mixture.substances()[0].Tb_K, *mixture.substances()[1].Tb_K) + 2);
  EXPECT_NEAR(found[0].T_K - celsius_zero, 107.2, 5);
  EXPECT_NEAR(1 - found[0].x1, 0.433, 0.06);
}

// Dimers of one acid and of two: derivatives, and that two alike make of each other what each makes of
// itself.
TEST(Association, DimersOfDifferentAcidsFollowTheGeometricRule) {
  HaydenOConnellVirial B(substances_named({"formic acid", "propanoic acid", "acetic acid", "water"}));
  EXPECT_TRUE(B.dimers());
  for (const double T : {320.0, 380.0}) {
    B.set_temperature(T);
    for (std::size_t i = 0; i < 3; ++i) {
      for (std::size_t j = 0; j < 3; ++j)
        EXPECT_NEAR(B.bound(i, j).value / -std::sqrt(B.bound(i, i).value * B.bound(j, j).value), 1, 1e-12);
      EXPECT_EQ(B.bound(i, 3).value < 0,
                i == 2);  // of these three only acetic acid is known to solvate water
    }
    // K = P(dimer)/P(monomer)^2 = -B/(R T); Coolidge 1928 as tabulated: log10(K mmHg) = -10.743 + 3083/T
    EXPECT_NEAR(-B.bound(0, 0).value / (gas_constant * T) * mmHg / std::pow(10, -10.743 + 3083 / T), 1, 1e-9);
    const VirialCoefficient here = B.total(0, 1);
    const auto at = [&](double t) {
      B.set_temperature(t);
      return B.total(0, 1);
    };
    EXPECT_NEAR(here.dT / derivative([&](double t) { return at(t).value; }, T, 0.02), 1, 1e-6);
    EXPECT_NEAR(here.dTT / derivative([&](double t) { return at(t).dT; }, T, 0.02), 1, 1e-6);
  }
}

// A carboxylic acid by any name.
TEST(Association, IsSeenInTheStructure) {
  KnownConstants known;
  known.groups = parse_groups("CH3=1, COOH=1");
  known.Tb_K = 391;
  const Substance glacial = define_substance("glacial", known).substance;
  EXPECT_TRUE(pairs_up(glacial));
  Mixture mixture({glacial, Bank::built_in().require("toluene")}, "ideal", {});
  EXPECT_TRUE(mixture.range_notices(350, 380).has("associating-vapour"));
  for (const Substance& substance : Bank::built_in().all())
    EXPECT_EQ(pairs_up(substance), substance.name.ends_with(" acid")) << substance.name;
}

}  // namespace
}  // namespace jampot
