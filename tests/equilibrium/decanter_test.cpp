// A feed parted: balances, names, duties, and what is said beside them.
#include "jampot/equilibrium/decanter.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

Feed feed_of(const std::vector<Substance>& substances) {
  return parse_feed("ethyl acetate=600 kg/h, ethanol=60 kg/h, water=840 kg/h", "", substances, Basis::mole);
}

Mixture mixture(const std::vector<std::string>& names) {
  return {substances_named(names), "unifac-lle", {}};
}

TEST(Decanter, TheOrderOfTheSubstancesDoesNotMatter) {
  std::vector<std::string> names{"ethanol", "ethyl acetate", "water"};
  std::optional<Decanted> first;
  do {
    Mixture liquid = mixture(names);
    DecanterConditions conditions;
    conditions.feed_T_K = 330;
    const Decanted out =
        decant(liquid.substances(), liquid.activity(), feed_of(liquid.substances()), conditions);
    ASSERT_EQ(out.liquids.size(), 2u);
    EXPECT_LT(out.balance, 1e-14);
    EXPECT_LT(out.residual, 1e-10);
    EXPECT_EQ(liquid.substances()[out.liquids[0].rich_in].name, "ethyl acetate");  // the lighter
    EXPECT_EQ(liquid.substances()[out.liquids[1].rich_in].name, "water");
    if (first) {
      EXPECT_NEAR(out.liquids[0].m_kg, first->liquids[0].m_kg, 1e-10);
      EXPECT_NEAR(*out.duty->total.value, *first->duty->total.value,
                  1e-6 * std::abs(*first->duty->total.value));
    } else {
      first = out;
    }
  } while (std::next_permutation(names.begin(), names.end()));
  EXPECT_NEAR((first->liquids[0].m_kg + first->liquids[1].m_kg) * 3600, 1500, 1e-9);
}

TEST(Decanter, ADutyLeadsBackToItsTemperature) {
  Mixture liquid = mixture({"ethyl acetate", "ethanol", "water"});
  const Feed feed = feed_of(liquid.substances());
  DecanterConditions conditions;
  conditions.feed_T_K = 330;
  for (const double T : {290.0, 305.0, 345.0}) {
    conditions.T_K = T;
    const Decanted out = decant(liquid.substances(), liquid.activity(), feed, conditions);
    const Decanted again =
        decant_with_duty(liquid.substances(), liquid.activity(), feed, *out.duty->total.value, conditions);
    EXPECT_NEAR(again.T_K, T, 1e-6);
  }
  conditions.T_K = 330;  // nowhere to go: no heat
  const Decanted still = decant(liquid.substances(), liquid.activity(), feed, conditions);
  EXPECT_NEAR(*still.duty->total.value, 0, 1e-6);
  EXPECT_THROW(decant_with_duty(liquid.substances(), liquid.activity(), feed, 1e9, conditions),
               CalculationError);
}

TEST(Decanter, RichInPutsThatLiquidFirst) {
  Mixture liquid = mixture({"ethyl acetate", "ethanol", "water"});
  DecanterConditions conditions;
  conditions.rich_in = 2;
  const Decanted out =
      decant(liquid.substances(), liquid.activity(), feed_of(liquid.substances()), conditions);
  EXPECT_EQ(out.liquids[0].rich_in, 2u);
}

TEST(Decanter, SaysWhenAVapourWouldForm) {
  Mixture liquid = mixture({"ethyl acetate", "ethanol", "water"});
  DecanterConditions conditions;
  conditions.P_Pa = 101325;
  conditions.T_K = 300;
  const Feed feed = feed_of(liquid.substances());
  EXPECT_FALSE(decant(liquid.substances(), liquid.activity(), feed, conditions).notices.has("vapour-forms"));
  conditions.T_K = 350;
  const Decanted hot = decant(liquid.substances(), liquid.activity(), feed, conditions);
  EXPECT_TRUE(hot.notices.has("vapour-forms"));
  EXPECT_GT(*hot.bubble_pressure_Pa, 101325);
}

}  // namespace
}  // namespace jampot
