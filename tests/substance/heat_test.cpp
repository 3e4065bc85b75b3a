// Heat capacities of liquids against temperature.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/substance/bank.hpp"
#include "jampot/substance/properties.hpp"

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
      EXPECT_NE(below.method, above.method) << substance.name;
    }
  }
  EXPECT_EQ(known, 56);
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

}  // namespace
}  // namespace jampot
