#include "jampot/substance/bank.hpp"

#include <gtest/gtest.h>

#include <set>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "support.hpp"

namespace jampot {
namespace {

TEST(Bank, VapourPressureAtTheBoilingPointIsOneAtmosphere) {
  for (const Substance& substance : Bank::built_in().all()) {
    ASSERT_TRUE(substance.Tb_K && substance.vapour_pressure) << substance.name;
    EXPECT_NEAR(substance.vapour_pressure->P_Pa(*substance.Tb_K) / standard_atmosphere, 1, 0.01)
        << substance.name;
  }
}

TEST(Bank, SlopeGivesAnEnthalpyOfVaporisationOfTheRightSize) {
  // Trouton: about 88 J/(mol K) at the boiling point, up to 120 for alcohols and water; carboxylic acids
  // associate.
  for (const Substance& substance : Bank::built_in().all()) {
    if (substance.name.ends_with(" acid")) continue;
    const double Tb = *substance.Tb_K;
    const double entropy = 0.97 * gas_constant * Tb * substance.vapour_pressure->dln_P_dT(Tb);
    EXPECT_GT(entropy, 80) << substance.name;
    EXPECT_LT(entropy, 120) << substance.name;
  }
}

TEST(Bank, MolarMassFollowsFromTheFormula) {
  for (const Substance& substance : Bank::built_in().all()) {
    EXPECT_NEAR(substance.molar_mass_kg_mol, molar_mass_from_formula(substance.formula), 5e-5)
        << substance.name;
  }
}

TEST(Bank, EveryNameMeansOneSubstance) {
  std::set<std::string> seen;
  for (const Substance& substance : Bank::built_in().all()) {
    EXPECT_TRUE(seen.insert(lower_case(substance.name)).second) << substance.name;
    EXPECT_TRUE(seen.insert(substance.cas).second) << substance.cas;
    for (const std::string& alias : substance.aliases)
      EXPECT_TRUE(seen.insert(lower_case(alias)).second) << alias;
    EXPECT_FALSE(substance.source.empty());
    EXPECT_FALSE(substance.vapour_pressure->source().empty());
  }
}

TEST(Bank, FindsByNameAliasFormulaAndCas) {
  const Bank& bank = Bank::built_in();
  for (const char* text : {"methyl tert-butyl ether", "MTBE", "mtbe", " C5H12O ", "1634-04-4"}) {
    ASSERT_NE(bank.find(text), nullptr) << text;
    EXPECT_EQ(bank.find(text)->name, "methyl tert-butyl ether");
  }
  EXPECT_EQ(bank.find("methyl"), nullptr);
}

TEST(Bank, SearchForgivesSpelling) {
  const auto names = [](const char* text) {
    std::vector<std::string> list;
    for (const Substance* match : Bank::built_in().search(text)) list.push_back(match->name);
    return list;
  };
  EXPECT_EQ(names("etyl").at(0), "ethanol");  // "ethyl alcohol"
  EXPECT_EQ(names("tolune").at(0), "toluene");
  EXPECT_EQ(names("acetone").at(0), "acetone");
  EXPECT_EQ(names("acetonitrle").at(0), "acetonitrile");
  EXPECT_TRUE(names("unobtainium").empty());
  try {
    Bank::built_in().require("metanol");
    FAIL();
  } catch (const RequestError& error) {
    EXPECT_NE(std::string(error.what()).find("methanol"), std::string::npos);
  }
}

TEST(VapourPressure, ContinuationKeepsValueAndSlope) {
  const VapourPressure& curve = *Bank::built_in().require("water").vapour_pressure;
  for (const double end : {curve.Tmin_K(), curve.Tmax_K()}) {
    EXPECT_NEAR(curve.ln_P(end - 1e-9), curve.ln_P(end + 1e-9), 1e-9);
    EXPECT_NEAR(curve.dln_P_dT(end - 1e-9), curve.dln_P_dT(end + 1e-9), 1e-9);
  }
  for (const double T_K : {200.0, 300.0, 350.0, 450.0, 700.0}) {
    EXPECT_NEAR(curve.T_K(curve.P_Pa(T_K)), T_K, 1e-9 * T_K);
    EXPECT_NEAR(curve.dln_P_dT(T_K), test::derivative([&](double T) { return curve.ln_P(T); }, T_K, 1e-2),
                1e-9);
  }
  EXPECT_FALSE(curve.covers(200));
  EXPECT_TRUE(curve.covers(300));
}

}  // namespace
}  // namespace jampot
