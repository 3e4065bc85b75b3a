#include "jampot/substance/define.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {
namespace {

// Molecules of the bank divided into groups by hand.
struct Divided {
  const char *name, *groups;
};
const std::vector<Divided> divided{{"1-butanol", "CH3=1, CH2=3, OH=1"},
                                   {"acetone", "CH3=2, CO=1"},
                                   {"ethyl acetate", "CH3=2, CH2=1, COO=1"},
                                   {"toluene", "CH3=1, ring =CH=5, ring =C=1"},
                                   {"n-hexane", "CH3=2, CH2=4"},
                                   {"methyl tert-butyl ether", "CH3=4, C=1, O=1"},
                                   {"cyclohexane", "ring CH2=6"},
                                   {"acetic acid", "CH3=1, COOH=1"},
                                   {"diethyl ether", "CH3=2, CH2=2, O=1"},
                                   {"2-propanol", "CH3=2, CH=1, OH=1"},
                                   {"acetonitrile", "CH3=1, CN=1"},
                                   {"chlorobenzene", "ring =CH=5, ring =C=1, Cl=1"}};

TEST(Groups, GiveTheFormulaOfTheMolecule) {
  for (const Divided& entry : divided) {
    EXPECT_EQ(formula_of(parse_groups(entry.groups)), Bank::built_in().require(entry.name).formula)
        << entry.name;
  }
}

TEST(Groups, EstimatesAreOfTheStatedQuality) {
  // With the boiling point known: Tc within 3 %, Pc within 15 %, Hvap within 15 %, gas heat capacity within 8
  // %.
  for (const Divided& entry : divided) {
    const Substance& known = Bank::built_in().require(entry.name);
    const GroupEstimate estimate = estimate_from_groups(parse_groups(entry.groups), *known.Tb_K);
    EXPECT_NEAR(*estimate.Tc_K / *known.Tc_K, 1, 0.03) << entry.name;
    EXPECT_NEAR(*estimate.Pc_Pa / *known.Pc_Pa, 1, 0.15) << entry.name;
    if (known.Hvap_Tb_J_mol && !known.name.ends_with(" acid")) {
      EXPECT_NEAR(*estimate.Hvap_Tb_J_mol / *known.Hvap_Tb_J_mol, 1, 0.15) << entry.name;
    }
    if (known.gas_heat_capacity) {
      EXPECT_NEAR(estimate.gas_heat_capacity->value(400) / known.gas_heat_capacity->value(400), 1, 0.08)
          << entry.name;
    }
  }
}

TEST(Groups, GapsInTheTableStayGaps) {
  const GroupEstimate estimate = estimate_from_groups(parse_groups("CH3=2, =NH=1"), std::nullopt);
  EXPECT_TRUE(estimate.Tb_K);
  EXPECT_FALSE(estimate.Tc_K);
  EXPECT_FALSE(estimate.Pc_Pa);
  EXPECT_EQ(group_names().size(), 41u);  // as many as the published table has
}

TEST(Define, WhatIsGivenStaysAndTheRestIsMarked) {
  KnownConstants known;
  known.groups = parse_groups("CH3=2, CH2=4");
  known.Tb_K = 341.9;
  known.Tc_K = 507.5;
  const DefinedSubstance defined = define_substance("own", known);
  EXPECT_EQ(defined.substance.Tc_K->source, "given by the user");
  EXPECT_EQ(*defined.substance.Tc_K, 507.5);
  EXPECT_TRUE(defined.substance.Pc_Pa->source.starts_with("estimated"));
  EXPECT_NEAR(defined.substance.vapour_pressure->T_K(101325), 341.9, 1e-6);
  EXPECT_TRUE(defined.notices.has("estimated"));
  for (const DefinedConstant& constant : defined.constants) {
    EXPECT_EQ(constant.estimated, constant.method != "given") << constant.name;
  }
}

TEST(Define, ANonVolatileSubstanceHasNoVapourPressure) {
  KnownConstants known;
  known.molar_mass_kg_mol = 0.342;
  const DefinedSubstance defined = define_substance("own sugar", known);
  EXPECT_FALSE(defined.substance.vapour_pressure);
  EXPECT_TRUE(defined.notices.has("no-vapour-pressure"));
}

TEST(Define, ComesBackFromItsFile) {
  KnownConstants known;
  known.groups = parse_groups("CH3=1, ring =CH=5, ring =C=1");
  known.Tb_K = 383.8;
  known.density_25C_kg_m3 = 862;
  const DefinedSubstance defined = define_substance("own \"toluene\"", known);
  const DefinedSubstance read = parse_substance(substance_text(defined, known), "own.toml");
  EXPECT_EQ(read.substance.name, "own \"toluene\"");
  EXPECT_EQ(*read.substance.Tc_K, *defined.substance.Tc_K);
  EXPECT_EQ(read.substance.vapour_pressure->P_Pa(350), defined.substance.vapour_pressure->P_Pa(350));
  for (const char* bad :
       {"name = 1", "", "name = 'x'\n[known]\nTb = 300", "name = 'x'\n[known]\nTb_K = -3",
        "name = 'x'\n[groups]\nCH9 = 1", "name = 'x'\n[groups]\nCH3 = 1.5", "name = 'x'\ngroups = 3"}) {
    EXPECT_THROW(parse_substance(bad, "own.toml"), RequestError) << bad;
  }
}

}  // namespace
}  // namespace jampot
