// Heat capacities of liquids against temperature.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/decanter.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/energies.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/saturation.hpp"
#include "support.hpp"

namespace jampot {
namespace {

TEST(LiquidHeatCapacity, CorrelationsMeetTheKnownValuesAndAreCarriedOnWithoutAStep) {
  int known = 0;
  for (const Substance& substance : Bank::built_in().all()) {
    const auto& Cp = substance.liquid_heat_capacity;
    if (!Cp) continue;
    ++known;
    ASSERT_LT(Cp->Tmin_K, Cp->Tmax_K) << substance.name;
    if (substance.Cp_liquid_25C_J_mol_K) {
      EXPECT_NEAR(Cp->value(298.15) / *substance.Cp_liquid_25C_J_mol_K, 1, 0.03) << substance.name;
    }
    for (int k = 0; k <= 20; ++k)
      EXPECT_GT(Cp->value(Cp->Tmin_K + (Cp->Tmax_K - Cp->Tmin_K) * k / 20), 0) << substance.name;
    for (const double end : {Cp->Tmin_K, Cp->Tmax_K}) {
      const Property below = liquid_heat_capacity(substance, end - 1e-6),
                     above = liquid_heat_capacity(substance, end + 1e-6);
      if (!below.value || !above.value) continue;
      EXPECT_NEAR(*below.value / *above.value, 1, 1e-6) << substance.name;
      if (end < 0.85 * *substance.Tc_K) {
        EXPECT_NE(below.method, above.method) << substance.name;
      }
    }
  }
  EXPECT_EQ(known, 60);
}

// Those of alcohols rise with temperature, by about a tenth in 50 K.
TEST(LiquidHeatCapacity, RisesAsMeasuredOnesDo) {
  const Substance methanol = Bank::built_in().require("methanol");
  const double cold = liquid_heat_capacity(methanol, 298.15).value.value(),
               warm = liquid_heat_capacity(methanol, 333.15).value.value();
  EXPECT_NEAR(cold, *methanol.Cp_liquid_25C_J_mol_K, 0.02 * cold);
  EXPECT_GT(warm, cold);
  EXPECT_LT(warm, 1.15 * cold);
}

// Beside a second substance of which nothing is there.
std::vector<Substance> beside_another(const Substance& substance) {
  return {substance, Bank::built_in().require(substance.name == "toluene" ? "benzene" : "toluene")};
}

const std::vector<double> pure{1, 0};

// One truth: what a flash, a decanter and the table of a substance say of heating a liquid from 25 degC (or
// its melting point) to 10 K below its boiling point is the integral of the heat capacity that stands beside
// it.
TEST(OnePathOfHeat, FlashSplitAndSubstanceAgreeForEveryLiquid) {
  int compared = 0;
  for (const Substance& substance : Bank::built_in().all()) {
    if (!substance.Tb_K || !substance.vapour_pressure) continue;
    const double from = std::max(298.15, substance.Tm_K ? substance.Tm_K->value : 0.0),
                 to = *substance.Tb_K - 10;
    if (to < from + 1) continue;
    const auto level = [&](double T) {
      return properties_at(substance, T, 101325, {}).liquid->h_J_mol.value;
    };
    if (!level(from) || !level(to)) {
      ADD_FAILURE() << "no enthalpy of " << substance.name;
      continue;
    }
    ++compared;
    const double by_substance = *level(to) - *level(from);
    Mixture mixture(beside_another(substance), "ideal", {});
    Energies energies(mixture);
    const double by_flash = energies.enthalpy(1, to, 101325, pure) - energies.enthalpy(1, from, 101325, pure);
    double by_Cp = 0;
    constexpr int steps = 400;
    for (int k = 0; k < steps; ++k)
      by_Cp += *liquid_heat_capacity(substance, from + (to - from) * (k + 0.5) / steps).value * (to - from) /
               steps;
    EXPECT_NEAR(by_substance / by_Cp, 1, 1e-3) << substance.name;
    EXPECT_NEAR(by_flash / by_Cp, 1, 1e-3) << substance.name;
    const auto model = make_activity_model("ideal", {substance, substance}, {});
    Feed feed;
    feed.n = {1, 1e-9};
    DecanterConditions conditions;
    conditions.T_K = to;
    conditions.feed_T_K = from;
    const Decanted out = decant({substance, substance}, *model, feed, conditions);
    EXPECT_NEAR(*out.duty->total.value / by_Cp, 1, 1e-3) << substance.name;
  }
  EXPECT_GE(compared, 126);
}

// At every temperature the saturated vapour of a flash stands the enthalpy of vaporisation above its liquid,
// by any vapour model, and both meet at the critical point.
TEST(OnePathOfHeat, EvaporationTakesTheEnthalpyOfVaporisationAtEveryTemperature) {
  for (const char* name : {"methanol", "water", "ethanol", "toluene", "n-hexane", "acetonitrile"}) {
    const Substance& substance = Bank::built_in().require(name);
    for (const char* vapour : {"ideal", "virial", "tsonopoulos", "srk"}) {
      VapourChoice choice;
      choice.model = vapour;
      Mixture mixture(beside_another(substance), "ideal", {}, choice);
      Energies energies(mixture);
      for (double Tr = 0.5; Tr < 0.93; Tr += 0.06) {
        const double T = Tr * *substance.Tc_K, P = substance.vapour_pressure->P_Pa(T);
        const double gap = energies.enthalpy(0, T, P, pure) - energies.enthalpy(1, T, P, pure);
        EXPECT_NEAR(gap / *enthalpy_of_vaporisation(substance, T).value, 1, 1e-9)
            << name << ' ' << vapour << ' ' << T;
        const PhaseEnergy liquid = energies.of(1, T, P, pure), thin = energies.of(0, T, 0.3 * P, pure);
        const auto slope = [&](std::size_t kind, double p) {
          return test::derivative([&](double t) { return energies.enthalpy(kind, t, p, pure); }, T, 0.05);
        };
        EXPECT_NEAR(*liquid.Cp_J_mol_K.value / slope(1, P), 1, 1e-5) << name << ' ' << vapour << ' ' << T;
        EXPECT_NEAR(*thin.Cp_J_mol_K.value / slope(0, 0.3 * P), 1, 1e-5) << name << ' ' << vapour << ' ' << T;
      }
    }
  }
}

// A thin vapour keeps nothing of what its path adds at saturation.
TEST(OnePathOfHeat, AThinVapourIsAnIdealGas) {
  const Substance& methanol = Bank::built_in().require("methanol");
  Mixture mixture(beside_another(methanol), "ideal", {});
  Energies energies(mixture);
  const double warm = energies.enthalpy(0, 400, 1, pure) - energies.enthalpy(0, 300, 1, pure);
  EXPECT_NEAR(warm, methanol.gas_heat_capacity->enthalpy_change(300, 400), 0.1);
}

// Of a substance whose vapour pressure is a curve: exact slopes, no step where the row of Antoine
// coefficients begins and ends, the boiling point within 1 %, the critical point exactly.
TEST(LongCurves, AreSmoothAndEndAtTheCriticalPoint) {
  int curves = 0;
  for (const Substance& substance : Bank::built_in().all()) {
    const auto& curve = substance.vapour_pressure;
    if (!curve || curve->source().find("Perry") == std::string::npos) continue;
    ++curves;
    const double low = curve->lowest_K(), Tc = *curve->Tc_K();
    double before = curve->dln_P_dT(low);
    for (double T = low + 0.25; T < Tc - 0.5; T += 0.25) {
      const double slope = curve->dln_P_dT(T);
      ASSERT_GT(slope, 0) << substance.name << ' ' << T;
      ASSERT_NEAR(slope / before, 1, 0.02) << substance.name << ' ' << T;
      before = slope;
    }
    for (double T = low + 1; T < Tc - 1; T += 7.3)
      EXPECT_NEAR(curve->dln_P_dT(T) / test::derivative([&](double t) { return curve->ln_P(t); }, T, 0.01), 1,
                  1e-4)
          << substance.name << ' ' << T;
    EXPECT_NEAR(curve->P_Pa(Tc) / *substance.Pc_Pa, 1, 1e-9) << substance.name;
    if (substance.Tb_K) {
      EXPECT_NEAR(curve->P_Pa(*substance.Tb_K) / 101325, 1, 0.01) << substance.name;
    }
    EXPECT_FALSE(vapour_pressure_notices(substance, low + 1, Tc - 1).has("vapour-pressure-range"));
  }
  EXPECT_GE(curves, 78);
}

}  // namespace
}  // namespace jampot
