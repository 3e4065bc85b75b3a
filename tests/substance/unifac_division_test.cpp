#include "jampot/substance/unifac_division.hpp"

#include <gtest/gtest.h>

#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/unifac_groups.hpp"

namespace jampot {
namespace {

std::map<std::string, int> counted(const std::vector<GroupCount>& groups) {
  std::map<std::string, int> counts;
  for (const GroupCount& entry : groups) counts[entry.group] += entry.count;
  return counts;
}

// The make-up in the bank was assigned by hand from the published tables; the rules know nothing of it.
TEST(UnifacDivision, FindsTheMakeUpOfTheBank) {
  const std::vector<std::pair<const char*, const char*>> molecules{{"methanol", "CO"},
                                                                   {"ethanol", "CCO"},
                                                                   {"1-propanol", "CCCO"},
                                                                   {"2-propanol", "CC(C)O"},
                                                                   {"1-butanol", "CCCCO"},
                                                                   {"tert-butanol", "CC(C)(C)O"},
                                                                   {"water", "O"},
                                                                   {"acetone", "CC(C)=O"},
                                                                   {"2-butanone", "CCC(C)=O"},
                                                                   {"4-methyl-2-pentanone", "CC(C)CC(C)=O"},
                                                                   {"cyclohexanone", "O=C1CCCCC1"},
                                                                   {"ethyl acetate", "CC(=O)OCC"},
                                                                   {"methyl acetate", "COC(C)=O"},
                                                                   {"butyl acetate", "CCCCOC(C)=O"},
                                                                   {"vinyl acetate", "CC(=O)OC=C"},
                                                                   {"methyl formate", "COC=O"},
                                                                   {"methyl methacrylate", "CC(=C)C(=O)OC"},
                                                                   {"diethyl ether", "CCOCC"},
                                                                   {"diisopropyl ether", "CC(C)OC(C)C"},
                                                                   {"methyl tert-butyl ether", "COC(C)(C)C"},
                                                                   {"ethyl tert-butyl ether", "CCOC(C)(C)C"},
                                                                   {"tetrahydrofuran", "C1CCOC1"},
                                                                   {"2-methyltetrahydrofuran", "CC1CCCO1"},
                                                                   {"1,4-dioxane", "C1COCCO1"},
                                                                   {"1,2-dimethoxyethane", "COCCOC"},
                                                                   {"2-ethoxyethanol", "CCOCCO"},
                                                                   {"2-methoxyethanol", "COCCO"},
                                                                   {"diethylene glycol", "OCCOCCO"},
                                                                   {"1,2-ethanediol", "OCCO"},
                                                                   {"glycerol", "OCC(O)CO"},
                                                                   {"benzene", "c1ccccc1"},
                                                                   {"toluene", "Cc1ccccc1"},
                                                                   {"ethylbenzene", "CCc1ccccc1"},
                                                                   {"p-xylene", "Cc1ccc(C)cc1"},
                                                                   {"phenol", "Oc1ccccc1"},
                                                                   {"aniline", "Nc1ccccc1"},
                                                                   {"chlorobenzene", "Clc1ccccc1"},
                                                                   {"nitrobenzene", "[O-][N+](=O)c1ccccc1"},
                                                                   {"benzyl alcohol", "OCc1ccccc1"},
                                                                   {"pyridine", "c1ccncc1"},
                                                                   {"furfural", "O=Cc1ccco1"},
                                                                   {"acetonitrile", "CC#N"},
                                                                   {"propionitrile", "CCC#N"},
                                                                   {"acrylonitrile", "C=CC#N"},
                                                                   {"acetic acid", "CC(=O)O"},
                                                                   {"formic acid", "OC=O"},
                                                                   {"propanoic acid", "CCC(=O)O"},
                                                                   {"acetaldehyde", "CC=O"},
                                                                   {"chloroform", "ClC(Cl)Cl"},
                                                                   {"dichloromethane", "ClCCl"},
                                                                   {"carbon tetrachloride", "ClC(Cl)(Cl)Cl"},
                                                                   {"1,2-dichloroethane", "ClCCCl"},
                                                                   {"trichloroethylene", "ClC=C(Cl)Cl"},
                                                                   {"nitromethane", "C[N+](=O)[O-]"},
                                                                   {"nitroethane", "CCN(=O)=O"},
                                                                   {"carbon disulfide", "S=C=S"},
                                                                   {"dimethyl sulfoxide", "CS(C)=O"},
                                                                   {"N,N-dimethylformamide", "CN(C)C=O"},
                                                                   {"N-methyl-2-pyrrolidone", "CN1CCCC1=O"},
                                                                   {"morpholine", "C1COCCN1"},
                                                                   {"diethylamine", "CCNCC"},
                                                                   {"triethylamine", "CCN(CC)CC"},
                                                                   {"n-butylamine", "CCCCN"},
                                                                   {"n-hexane", "CCCCCC"},
                                                                   {"cyclohexane", "C1CCCCC1"},
                                                                   {"1-hexene", "C=CCCCC"},
                                                                   {"isoprene", "CC(=C)C=C"},
                                                                   {"styrene", "C=Cc1ccccc1"},
                                                                   {"ethyl lactate", "CCOC(=O)C(C)O"},
                                                                   {"gamma-butyrolactone", "O=C1CCCO1"}};
  int compared = 0;
  for (const auto& [name, smiles] : molecules) {
    const Substance* substance = Bank::built_in().find(name);
    if (substance == nullptr || !substance->groups.contains("unifac")) continue;
    ++compared;
    const Molecule molecule = parse_smiles(smiles);
    EXPECT_EQ(molecule.formula(), substance->formula) << name;
    const auto& table = UnifacGroups::of(UnifacTable::vle);
    EXPECT_EQ(counted(divide_into_unifac_groups(molecule).groups),
              counted(table.parse(substance->groups.at("unifac"))))
        << name;
  }
  EXPECT_GT(compared, 55);
}

TEST(UnifacDivision, TheWayItIsWrittenDoesNotMatterAndEveryAtomIsInOneGroup) {
  for (const auto& [one, other] :
       {std::pair("COC(C)(C)C", "C(C)(OC)(C)C"), std::pair("CC(=O)OCC", "CCOC(C)=O"),
        std::pair("Cc1ccccc1", "c1c(C)cccc1"), std::pair("OCCOCC", "C(C)OCCO")}) {
    const Molecule a = parse_smiles(one);
    const GroupDivision division = divide_into_unifac_groups(a);
    EXPECT_EQ(counted(division.groups), counted(divide_into_unifac_groups(parse_smiles(other)).groups))
        << one;
    std::vector<int> times(a.atoms.size());
    for (const auto& part : division.parts) {
      for (const std::size_t atom : part.atoms) ++times[atom];
    }
    for (const int count : times) EXPECT_EQ(count, 1);
  }
}

TEST(UnifacDivision, SaysWhereNoneIsPossibleOrUnique) {
  for (const char* without : {"CC(=O)OC(C)=O", "C", "C[Si](C)(C)C", "c1ccoc1", "CC(C)C(=O)C(C)C", "O=C=O"}) {
    EXPECT_THROW(divide_into_unifac_groups(parse_smiles(without)), CalculationError) << without;
  }
  // An ether between a CH2 of either side: as good with one as with the other, and of one make-up.
  EXPECT_TRUE(divide_into_unifac_groups(parse_smiles("CCCOCC")).notices.empty());
  // The nitrogen may take a CH2 or ... of equal cost, with another make-up.
  EXPECT_TRUE(divide_into_unifac_groups(parse_smiles("CC#CC=C")).notices.empty());
  EXPECT_TRUE(divide_into_unifac_groups(parse_smiles("C=CC=CC(C)=C")).notices.empty());
}

TEST(UnifacDivision, RandomMoleculesAreDividedOrRefused) {
  std::mt19937_64 generator(11);
  const std::string letters = "CCCCCCOONc1()=#Cl";
  int divided = 0;
  for (int trial = 0; trial < 5000; ++trial) {
    std::string text;
    for (int k = 0; k < 10; ++k) text += letters[generator() % letters.size()];
    try {
      const Molecule molecule = parse_smiles(text);
      const GroupDivision division = divide_into_unifac_groups(molecule);
      std::size_t atoms = 0;
      for (const auto& part : division.parts) atoms += part.atoms.size();
      EXPECT_EQ(atoms, molecule.atoms.size()) << text;
      ++divided;
    } catch (const RequestError&) {
    } catch (const CalculationError&) {
    }
  }
  EXPECT_GT(divided, 20);
}

}  // namespace
}  // namespace jampot
