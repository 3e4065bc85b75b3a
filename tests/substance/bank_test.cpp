#include "jampot/substance/bank.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <map>
#include <set>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/bank_check.hpp"
#include "jampot/substance/properties.hpp"
#include "support.hpp"

namespace jampot {
namespace {

TEST(Bank, HoldsOverAHundredAndTwentySubstancesWithAVapourPressure) {
  const auto& all = Bank::built_in().all();
  const auto known =
      std::count_if(all.begin(), all.end(), [](const Substance& s) { return s.vapour_pressure; });
  EXPECT_GT(known, 120);
  EXPECT_GE(all.size(), 212u);
}

// Every check of bank_check.hpp holds, save for the misses that data/README.md lists; where the slope of the
// vapour pressure is the miss, that curve is of grade C.
TEST(Bank, HoldsAgainstPhysicsButForTheListed) {
  const std::set<std::pair<std::string, std::string>> listed{
      {"1,2-ethanediol", "enthalpy of vaporisation"},
      {"2-ethoxyethanol", "enthalpy of vaporisation"},
      {"2-methoxyethanol", "enthalpy of vaporisation"},
      {"acetonitrile", "enthalpy of vaporisation"},
      {"acetonitrile", "critical compressibility"},
      {"acrylonitrile", "enthalpy of vaporisation"},
      {"benzyl alcohol", "enthalpy of vaporisation"},
      {"furfural", "enthalpy of vaporisation"},
      {"glycerol", "enthalpy of vaporisation"},
      {"nitroethane", "enthalpy of vaporisation"},
      {"acetic anhydride", "enthalpy of vaporisation"},
      {"methyl methacrylate", "enthalpy of vaporisation"},
      {"3-methyl-2-butanone", "enthalpy of vaporisation"},
      {"ethyl acrylate", "enthalpy of vaporisation"}};
  std::map<std::string, int> checked;
  std::set<std::pair<std::string, std::string>> missed;
  for (const Substance& substance : Bank::built_in().all()) {
    for (const BankFinding& finding : check_substance(substance)) {
      ++checked[finding.check];
      if (finding.passed() || !finding.exempt.empty()) continue;
      missed.insert({finding.substance, finding.check});
      EXPECT_TRUE(listed.contains({finding.substance, finding.check}))
          << finding.substance << ", " << finding.check << ": " << finding.says;
      if (finding.check == "enthalpy of vaporisation") {
        EXPECT_NEAR(finding.value, 1, 0.10) << finding.substance;
        EXPECT_EQ(substance.vapour_pressure->grade(), 'C') << finding.substance;
      }
    }
  }
  EXPECT_EQ(missed, listed);  // a miss that has been mended leaves the list
  EXPECT_GT(checked["boiling point"], 120);
  EXPECT_GT(checked["enthalpy of vaporisation"], 100);
  EXPECT_GT(checked["groups"], 100);
  EXPECT_GT(checked["MOSCED volume"], 60);
}

TEST(Bank, ACheckNoticesWhatIsWrong) {
  const auto misses = [](const Substance& substance) {
    std::set<std::string> names;
    for (const BankFinding& finding : check_substance(substance)) {
      if (!finding.passed() && finding.exempt.empty()) names.insert(finding.check);
    }
    return names;
  };
  Substance wrong = Bank::built_in().require("toluene");
  EXPECT_TRUE(misses(wrong).empty());
  wrong.Tb_K->value += 2;
  EXPECT_EQ(misses(wrong), std::set<std::string>{"boiling point"});
  wrong = Bank::built_in().require("toluene");
  wrong.formula = "C7H9";
  wrong.Pc_Pa->value *= 1.5;
  wrong.uniquac_r->value *= 2;
  wrong.mosced->v_cm3_mol = 90;
  const std::set<std::string> found = misses(wrong);
  for (const char* check :
       {"molar mass", "critical point", "critical compressibility", "groups", "MOSCED volume"}) {
    EXPECT_TRUE(found.contains(check)) << check;
  }
}

TEST(Bank, VapourPressureRisesFromMeltingToTheCriticalPoint) {
  for (const Substance& substance : Bank::built_in().all()) {
    const auto& curve = substance.vapour_pressure;
    if (!curve || !curve->Tc_K()) continue;
    if (substance.Pc_Pa) {
      EXPECT_NEAR(curve->P_Pa(*curve->Tc_K()) / *substance.Pc_Pa, 1, 1e-9) << substance.name;
    }
    const double from = curve->lowest_K(), to = *curve->Tc_K();
    for (int k = 0; k <= 400; ++k) {
      const double T_K = from + (to - from) * k / 400;
      ASSERT_GT(curve->dln_P_dT(T_K), 0) << substance.name << " at " << T_K << " K";
    }
  }
}

TEST(Bank, EstimatesFromTheCriticalPointAreNearTheMeasuredCurve) {
  // How good corresponding states are where nothing better is known: tried on substances that have a measured
  // curve.
  std::vector<double> errors;
  for (const Substance& substance : Bank::built_in().all()) {
    const auto& curve = substance.vapour_pressure;
    if (!curve || curve->estimated() || !substance.Tc_K || !substance.Pc_Pa || !substance.Tb_K) continue;
    if (substance.name.ends_with(" acid")) continue;
    const CorrespondingStates estimate(
        {*substance.Tc_K, *substance.Pc_Pa,
         CorrespondingStates::acentric_factor(*substance.Tb_K, *substance.Tc_K, *substance.Pc_Pa)});
    const double T_K = 0.9 * *substance.Tb_K;
    if (curve->covers(T_K)) errors.push_back(std::abs(estimate.ln_P(T_K) - curve->ln_P(T_K)));
  }
  ASSERT_GT(errors.size(), 50u);
  std::sort(errors.begin(), errors.end());
  EXPECT_LT(errors[errors.size() / 2], 0.02);
  EXPECT_LT(errors[errors.size() * 9 / 10], 0.10);  // as data/README.md says
}

TEST(Formula, IsReadOrRefused) {
  EXPECT_EQ(atoms_in("C2H4Cl2"), (std::map<std::string, int>{{"C", 2}, {"H", 4}, {"Cl", 2}}));
  EXPECT_NEAR(molar_mass_from_formula("H2O"), 0.018015, 1e-6);
  for (const char* bad : {"", "2H", "h2o", "C-H", "Xx2"})
    EXPECT_THROW(molar_mass_from_formula(bad), RequestError) << bad;
}

TEST(Bank, NamesAndNumbersAreUnique) {
  std::set<std::string> names, numbers;
  for (const Substance& substance : Bank::built_in().all()) {
    EXPECT_TRUE(names.insert(lower_case(substance.name)).second) << substance.name;
    EXPECT_TRUE(numbers.insert(substance.cas).second) << substance.cas;
    EXPECT_EQ(Bank::built_in().find(substance.name), &substance);
    EXPECT_EQ(Bank::built_in().find(substance.cas), &substance);
    if (substance.vapour_pressure) {
      EXPECT_FALSE(substance.vapour_pressure->source().empty());
    }
  }
}

TEST(Bank, AnAmbiguousNameIsNotGuessed) {
  for (const char* text : {"DME", "C4H10O"}) {
    EXPECT_EQ(Bank::built_in().find(text), nullptr);
    try {
      Bank::built_in().require(text);
      FAIL();
    } catch (const RequestError& error) {
      EXPECT_NE(std::string(error.what()).find("may mean"), std::string::npos) << error.what();
    }
  }
}

TEST(Bank, FindsByNameAliasFormulaAndCas) {
  const Bank& bank = Bank::built_in();
  for (const char* text : {"methyl tert-butyl ether", "MTBE", "mtbe", "1634-04-4"}) {
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
  for (std::size_t k = 0; k < 5; ++k) EXPECT_NE(names("etyl").at(k).find("ethyl"), std::string::npos);
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
    EXPECT_TRUE(curve.covers(end));
  }
  for (const double T_K : {200.0, 274.0, 300.0, 350.0, 450.0, 640.0, 700.0}) {
    EXPECT_NEAR(curve.T_K(curve.P_Pa(T_K)), T_K, 1e-9 * T_K);
    EXPECT_NEAR(curve.dln_P_dT(T_K), test::derivative([&](double T) { return curve.ln_P(T); }, T_K, 1e-2),
                1e-9);
  }
  EXPECT_FALSE(curve.covers(200));
  EXPECT_TRUE(curve.covers(300));
}

// data/version.csv says which data these are: whoever changes a table changes its version and its checksum
// (FNV-1a of all tables by name).
TEST(Data, TheVersionIsThatOfTheseTables) {
  std::vector<std::filesystem::path> tables;
  for (const auto& entry : std::filesystem::directory_iterator(JAMPOT_SOURCE_DIR "/data")) {
    if (entry.path().extension() == ".csv" && entry.path().filename() != "version.csv")
      tables.push_back(entry.path());
  }
  std::sort(tables.begin(), tables.end());
  std::uint64_t checksum = 0xcbf29ce484222325;
  for (const auto& table : tables) {
    std::ifstream file(table, std::ios::binary);
    for (char c; file.get(c);) {
      checksum ^= static_cast<unsigned char>(c);
      checksum *= 0x100000001b3;
    }
  }
  std::ifstream version(JAMPOT_SOURCE_DIR "/data/version.csv");
  std::string head, row;
  std::getline(version, head);
  std::getline(version, row);
  EXPECT_EQ(row, fmt::format("{},{:016x}", data_version(), checksum));
}

}  // namespace
}  // namespace jampot
