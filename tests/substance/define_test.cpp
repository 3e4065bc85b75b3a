#include "jampot/substance/define.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/properties.hpp"

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
  known.density = LiquidDensity{862, 298.15};
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

// Points taken from a curve of the bank: what is fitted to them must find the curve again.
std::vector<VapourPressurePoint> points_of(const char* name, std::initializer_list<double> T_K) {
  std::vector<VapourPressurePoint> points;
  for (const double T : T_K) points.push_back({T, Bank::built_in().require(name).vapour_pressure->P_Pa(T)});
  return points;
}

TEST(Define, FindsTheVapourPressureThroughPoints) {
  const Substance& toluene = Bank::built_in().require("toluene");
  for (const auto& points : {points_of("toluene", {350}), points_of("toluene", {340, 380}),
                             points_of("toluene", {320, 340, 360, 390})}) {
    KnownConstants known;
    known.groups = parse_groups("CH3=1, ring =CH=5, ring =C=1");
    known.vapour_pressure_points = points;
    const DefinedSubstance defined = define_substance("own", known);
    const VapourPressure& curve = *defined.substance.vapour_pressure;
    for (const VapourPressurePoint& point : points) {
      EXPECT_NEAR(curve.P_Pa(point.T_K) / point.P_Pa, 1, points.size() > 2 ? 2e-3 : 1e-9);
    }
    EXPECT_FALSE(curve.estimated());
    EXPECT_EQ(curve.Tmin_K(), points.front().T_K);
    EXPECT_NEAR(*defined.substance.Tb_K, *toluene.Tb_K, 2.5);  // a boiling point no one gave
    EXPECT_NEAR(curve.P_Pa(*defined.substance.Tb_K), 101325, 1e-3);
    EXPECT_NEAR(curve.P_Pa(*defined.substance.Tc_K) / *defined.substance.Pc_Pa, 1, 1e-9);
    EXPECT_NEAR(*defined.substance.acentric_factor, *toluene.acentric_factor, 0.08);
  }
}

TEST(Define, PointsWithoutACriticalPointGiveAnAntoineEquation) {
  KnownConstants known;
  known.molar_mass_kg_mol = 0.092;
  known.vapour_pressure_points = points_of("toluene", {320, 340, 360, 380});
  const DefinedSubstance defined = define_substance("own", known);
  for (const double T : {330.0, 350.0, 370.0}) {
    EXPECT_NEAR(defined.substance.vapour_pressure->P_Pa(T) / points_of("toluene", {T})[0].P_Pa, 1, 1e-6);
  }
  known.vapour_pressure_points = points_of("toluene", {350, 380});
  EXPECT_NEAR(define_substance("own", known).substance.vapour_pressure->P_Pa(365) /
                  points_of("toluene", {365})[0].P_Pa,
              1, 0.02);
  known.vapour_pressure_points = {{350, 1e5}};
  EXPECT_THROW(define_substance("own", known), CalculationError);
  known.vapour_pressure_points = {{350, 1e5}, {370, 9e4}};
  EXPECT_THROW(define_substance("own", known), CalculationError);
}

TEST(Define, ReadsEquationsAsTheyArePrinted) {
  const char* const forms[] = {"log10(P/mmHg) = 8.07131 - 1730.63/(T/degC + 233.426), 1 to 100 degC",
                               "log10(P/mmHg)=8.07131-1730.63/(T/K-39.724), 274.15 to 373.15 K",
                               "lg P/bar = 5.1962131 - 1730.63 / ( T/degC + 233.426 ), 1 to 100 degC",
                               "ln(P/kPa) = 16.569893 - 3984.9228/(T/degC + 233.426), 34 to 212 degF",
                               "log10(P/mmHg) = 8.07131 - 3115.134/(T/degF + 388.1668), 1 to 100 degC"};
  for (const char* form : forms) {
    const auto coefficients = parse_vapour_pressure_equation(form);
    EXPECT_NEAR(VapourPressure(coefficients, "", 'C').P_Pa(373.15) / (760.08637 * mmHg), 1, 1e-5) << form;
    EXPECT_NEAR(VapourPressure(coefficients, "", 'C').P_Pa(323.15) / (92.299888 * mmHg), 1, 1e-5) << form;
    EXPECT_NEAR(coefficients.Tmax_K, 373.15, 0.01) << form;
  }
  for (const char* bad :
       {"", "8.07131, 1730.63, 233.426", "log10(P/mmHg) = 8.07131 - 1730.63/(T + 233.426)",
        "log10(P/parsec) = 8 - 1730/(T/degC + 233)", "log10(P/mmHg) = 8 + 1730/(T/degC + 233)",
        "log10(P/mmHg) = 8.07131 - 1730.63/(T/K + 233.426), 1 to",
        "log10(P/mmHg) = 8 - 1730/(T/degC - 300), 1 to 100 degC"}) {
    EXPECT_THROW(parse_vapour_pressure_equation(bad), RequestError) << bad;
  }
  KnownConstants known;
  known.molar_mass_kg_mol = 0.018;
  known.vapour_pressure_equation = forms[0];
  const DefinedSubstance water = define_substance("own water", known);
  EXPECT_NEAR(*water.substance.Tb_K, 373.15, 0.05);
  EXPECT_NEAR(*water.substance.Hvap_Tb_J_mol, 40650, 2000);  // from the slope alone
  known.vapour_pressure_points = {{350, 1e5}};
  EXPECT_THROW(define_substance("own water", known), RequestError);
}

TEST(LiquidDensity, SpecificGravityNeedsBothItsTemperatures) {
  // Kell 1975: 999.972 kg/m3 at 4 degC, 998.204 at 20 degC, 997.045 at 25 degC.
  EXPECT_NEAR(water_density_kg_m3(277.15), 999.972, 0.002);
  EXPECT_NEAR(water_density_kg_m3(293.15), 998.204, 0.002);
  EXPECT_NEAR(water_density_kg_m3(298.15), 997.045, 0.002);
  EXPECT_THROW(water_density_kg_m3(400), RequestError);
  const LiquidDensity at20 = parse_specific_gravity("0.867 at 20/4 degC");
  EXPECT_NEAR(at20.kg_m3, 866.98, 0.01);
  EXPECT_NEAR(at20.T_K, 293.15, 1e-9);
  const LiquidDensity at60F = parse_specific_gravity("0.87 at 60/60 degF");
  EXPECT_NEAR(at60F.T_K, 288.706, 0.001);
  EXPECT_NEAR(at60F.kg_m3, 0.87 * 999.01, 0.05);
  EXPECT_NEAR(parse_density("0.867 g/cm3 at 20 degC").kg_m3, 867, 1e-9);
  EXPECT_NEAR(parse_density("54.1 lb/ft3").kg_m3, 866.6, 0.1);
  EXPECT_EQ(parse_density("867").T_K, 298.15);
  for (const char* bad :
       {"0.867", "0.867 at 20 degC", "heavy at 20/4 degC", "0.867 at 20/4", "0.867 at 20/4 bar"}) {
    EXPECT_THROW(parse_specific_gravity(bad), RequestError) << bad;
  }
  for (const char* bad : {"0.867", "", "867 bar", "-5 kg/m3", "867 at noon"})
    EXPECT_THROW(parse_density(bad), RequestError) << bad;
}

TEST(Define, ADensityElsewhereIsCarriedTo25DegreesAndBack) {
  KnownConstants known;
  known.groups = parse_groups("CH3=1, ring =CH=5, ring =C=1");
  known.Tb_K = 383.8;
  known.density = LiquidDensity{829.4, 333.15};
  const Substance own = define_substance("own", known).substance;
  EXPECT_NEAR(own.molar_mass_kg_mol / *liquid_molar_volume(own, 333.15).value, 829.4, 1e-9);
  EXPECT_NEAR(*own.density_25C_kg_m3, 862, 6);  // toluene
}

TEST(Define, SizesComeFromGroupsUnlessGiven) {
  KnownConstants known;
  known.molar_mass_kg_mol = 0.342;
  known.uniquac_r = 14.5;
  known.uniquac_q = 13.8;
  EXPECT_EQ(*define_substance("sugar", known).substance.uniquac_r, 14.5);
  known = {};
  known.molar_mass_kg_mol = 0.0881;
  known.unifac_groups[UnifacTable::vle] = UnifacGroups::of(UnifacTable::vle).parse("CH3=1, CH2=1, CH3COO=1");
  known.Tb_K = 350.3;
  const DefinedSubstance own = define_substance("own acetate", known);
  const Substance& acetate = Bank::built_in().require("ethyl acetate");
  EXPECT_NEAR(*own.substance.uniquac_r, *acetate.uniquac_r, 1e-12);
  EXPECT_NEAR(*own.substance.uniquac_q, *acetate.uniquac_q, 1e-12);
  const DefinedSubstance read = parse_substance(substance_text(own, known), "own.toml");
  EXPECT_TRUE(read.substance.groups.contains("unifac"));
  EXPECT_NEAR(*read.substance.uniquac_r, *own.substance.uniquac_r, 1e-12);
  EXPECT_THROW(UnifacGroups::of(UnifacTable::vle).parse("CH9=1"), RequestError);
  EXPECT_THROW(UnifacGroups::of(UnifacTable::vle).parse("CH3=1, CH3=2"), RequestError);
}

TEST(Define, EverythingKnownComesBackFromTheFile) {
  KnownConstants known;
  known.groups = parse_groups("CH3=2, CH2=3, O=1");
  known.vapour_pressure_points = {{313.15, 14000}, {333.15, 30000}, {353.15, 58000}};
  known.density = parse_specific_gravity("0.75 at 20/4 degC");
  known.Hvap_Tb_J_mol = 31000;
  known.uniquac_r = 4.1;
  known.uniquac_q = 3.6;
  known.Tm_K = 170;
  const DefinedSubstance first = define_substance("own", known);
  const DefinedSubstance second = parse_substance(substance_text(first, known), "own.toml");
  ASSERT_EQ(first.constants.size(), second.constants.size());
  for (std::size_t k = 0; k < first.constants.size(); ++k) {
    EXPECT_EQ(first.constants[k].name, second.constants[k].name);
    EXPECT_EQ(first.constants[k].value, second.constants[k].value) << first.constants[k].name;
  }
  EXPECT_EQ(first.substance.vapour_pressure->P_Pa(340), second.substance.vapour_pressure->P_Pa(340));
}

}  // namespace
}  // namespace jampot
