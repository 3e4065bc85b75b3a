#include "jampot/substance/smiles.hpp"

#include <gtest/gtest.h>

#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {
namespace {

std::string groups_of(const char* smiles) {
  std::string text;
  for (const GroupCount& entry : divide_into_groups(parse_smiles(smiles)).groups) {
    text += entry.group + "=" + std::to_string(entry.count) + " ";
  }
  return text;
}

TEST(Smiles, FormulasOfTheBank) {
  const std::vector<std::pair<const char*, const char*>> known{{"methyl tert-butyl ether", "COC(C)(C)C"},
                                                               {"toluene", "Cc1ccccc1"},
                                                               {"acetonitrile", "CC#N"},
                                                               {"pyridine", "c1ccncc1"},
                                                               {"acetic acid", "CC(=O)O"},
                                                               {"cyclohexene", "C1CCC=CC1"},
                                                               {"furfural", "O=Cc1ccco1"},
                                                               {"nitromethane", "C[N+](=O)[O-]"},
                                                               {"chloroform", "ClC(Cl)Cl"},
                                                               {"1,4-dioxane", "C1COCCO1"},
                                                               {"dimethyl sulfoxide", "CS(C)=O"},
                                                               {"aniline", "Nc1ccccc1"},
                                                               {"N,N-dimethylformamide", "CN(C)C=O"},
                                                               {"vinyl acetate", "CC(=O)OC=C"},
                                                               {"tetrahydrofuran", "C1CCOC1"}};
  for (const auto& [name, smiles] : known) {
    const Substance* substance = Bank::built_in().find(name);
    if (substance == nullptr) continue;  // not all of them need be in the bank
    EXPECT_EQ(parse_smiles(smiles).formula(), substance->formula) << name;
  }
}

TEST(Smiles, DividesByTheRules) {
  EXPECT_EQ(groups_of("COC(C)(C)C"), "C=1 CH3=4 O=1 ");
  EXPECT_EQ(groups_of("CC(=O)OCC"), "CH2=1 CH3=2 COO=1 ");
  EXPECT_EQ(groups_of("CC(=O)O"), "CH3=1 COOH=1 ");
  EXPECT_EQ(groups_of("CC(C)=O"), "CH3=2 CO=1 ");
  EXPECT_EQ(groups_of("CC=O"), "CH3=1 CHO=1 ");
  EXPECT_EQ(groups_of("Oc1ccccc1"), "phenol OH=1 ring =C=1 ring =CH=5 ");
  EXPECT_EQ(groups_of("OCc1ccccc1"), "CH2=1 OH=1 ring =C=1 ring =CH=5 ");
  EXPECT_EQ(groups_of("C1CCCCC1"), "ring CH2=6 ");
  EXPECT_EQ(groups_of("O=C1CCCCC1"), "ring CH2=5 ring CO=1 ");
  EXPECT_EQ(groups_of("CC#N"), "CH3=1 CN=1 ");
  EXPECT_EQ(groups_of("C[N+](=O)[O-]"), "CH3=1 NO2=1 ");
  EXPECT_EQ(groups_of("C=CC=C"), "=CH=2 =CH2=2 ");
  EXPECT_EQ(groups_of("C#CCO"), "#C=1 #CH=1 CH2=1 OH=1 ");
  EXPECT_EQ(groups_of("c1ccncc1"), "ring =CH=5 ring =N=1 ");
  EXPECT_EQ(groups_of("C1CCNCC1"), "ring CH2=5 ring NH=1 ");
  EXPECT_EQ(groups_of("CCSCC"), "CH2=2 CH3=2 S=1 ");
  EXPECT_EQ(groups_of("FC(Cl)(Br)CI"), "Br=1 C=1 CH2=1 Cl=1 F=1 I=1 ");
}

TEST(Smiles, TheWayItIsWrittenDoesNotMatter) {
  for (const auto& [one, other] :
       {std::pair("COC(C)(C)C", "C(C)(OC)(C)C"), std::pair("Cc1ccccc1", "c1c(C)cccc1"),
        std::pair("CC(=O)OCC", "CCOC(C)=O"), std::pair("C1CCOC1", "O1CCCC1")}) {
    EXPECT_EQ(groups_of(one), groups_of(other)) << one;
    EXPECT_EQ(parse_smiles(one).formula(), parse_smiles(other).formula());
  }
}

TEST(Smiles, EveryAtomIsInOneGroup) {
  const Molecule molecule = parse_smiles("CC(=O)OCc1ccc(O)cc1");
  std::vector<int> times(molecule.atoms.size());
  for (const auto& part : divide_into_groups(molecule).parts) {
    for (const std::size_t atom : part.atoms) ++times[atom];
  }
  for (const int count : times) EXPECT_EQ(count, 1);
}

TEST(Smiles, SaysWhereNoDivisionIsUniqueOrPossible) {
  EXPECT_TRUE(divide_into_groups(parse_smiles("CC(=O)OC(C)=O")).notices.has("division-not-unique"));
  EXPECT_TRUE(divide_into_groups(parse_smiles("O=C1CCCO1")).notices.has("division-not-unique"));
  EXPECT_TRUE(divide_into_groups(parse_smiles("CC(=O)OC")).notices.empty());
  for (const char* without : {"C", "O", "C=O", "OC=O", "CN1CCCC1=O", "C[Si](C)(C)C", "CS(C)=O"}) {
    EXPECT_THROW(divide_into_groups(parse_smiles(without)), CalculationError) << without;
  }
}

TEST(Smiles, RefusesWhatCannotBeRead) {
  for (const char* bad :
       {"", "C(", "C)", "C1CC", "CX", "C..C", "C(C)(C)(C)(C)C", "[CH3", "(C)", "1CC1", "O(C)(C)C", "C%1"}) {
    EXPECT_THROW(parse_smiles(bad), RequestError) << bad;
  }
}

TEST(Smiles, RandomTextIsReadOrRefused) {
  std::mt19937_64 generator(5);
  const std::string letters = "CCCNOScno()()=#123%[]H+-.FlBr";
  for (int trial = 0; trial < 20000; ++trial) {
    std::string text;
    for (int k = 0; k < 12; ++k) text += letters[generator() % letters.size()];
    try {
      divide_into_groups(parse_smiles(text));
    } catch (const RequestError&) {
    } catch (const CalculationError&) {
    }
  }
}

}  // namespace
}  // namespace jampot
