#include "jampot/files/pairs_toml.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/files/measured_csv.hpp"

namespace jampot {
namespace {

TEST(PairsToml, AFitComesBackToTheLastDigit) {
  const Fit result = fit({read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv")});
  const std::string text = pairs_text(result);
  ParameterCollection read;
  parse_pairs(text, "f.pairs.toml", read);
  ASSERT_EQ(read.all().size(), 1u);
  EXPECT_TRUE(read.all()[0].same_values(result.pairs()[0]));
  EXPECT_EQ(read.all()[0].T_range_K, result.pairs()[0].T_range_K);
  EXPECT_EQ(pairs_text(result), text);  // nothing in it depends on when it is written
}

TEST(PairsToml, AcceptsAliasesAndPlainNumbers) {
  ParameterCollection read;
  parse_pairs(
      "model = 'nrtl'\nsource = 'made up'\n[[pair]]\nbetween = ['MTBE', 'MeOH']\nrange_K = [300, 350.5]\n"
      "tau_12 = 0.7\ntau_21 = { constant = 1, inverse_T = -20, log_T = 0.1, linear_T = 1e-3 }\nalpha = 0.3\n",
      "f", read);
  const PairParameters& pair = read.all().at(0);
  EXPECT_EQ(pair.between[0], "methyl tert-butyl ether");
  EXPECT_EQ(pair.terms.at("tau_12").constant, 0.7);
  EXPECT_EQ(pair.terms.at("tau_21").log_T, 0.1);
  EXPECT_EQ(pair.source, "made up");
}

struct Fault {
  const char* name;
  std::string text;
  std::vector<std::string> said;
};

class BadPairs : public ::testing::TestWithParam<Fault> {};

TEST_P(BadPairs, GetOneMessageWithItsPlace) {
  try {
    ParameterCollection read;
    parse_pairs(GetParam().text, "f.toml", read);
    FAIL() << "no error";
  } catch (const RequestError& error) {
    for (const std::string& said : GetParam().said) {
      EXPECT_NE(std::string(error.what()).find(said), std::string::npos) << said << " in: " << error.what();
    }
  }
}

const std::string start = "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'methanol']\n";

INSTANTIATE_TEST_SUITE_P(
    Faults, BadPairs,
    ::testing::Values(
        Fault{"Empty", " \n", {"f.toml", "empty"}},
        Fault{"NotToml", "model = \n", {"line 1", "not valid TOML"}},
        Fault{"NoModel", "[[pair]]\n", {"'model' is missing"}},
        Fault{"UnknownModel", "model = 'nrlt'\n[[pair]]\n", {"line 1", "nrlt", "Did you mean nrtl"}},
        Fault{"MisspeltKey",
              start + "tau_12 = 1\ntau_21 = 1\nalhpa = 0.3\n",
              {"line 6", "alhpa", "Did you mean alpha"}},
        Fault{"MissingTerm", start + "tau_12 = 1\nalpha = 0.3\n", {"'tau_21' is missing"}},
        Fault{"MisspeltCoefficient",
              start + "tau_12 = { inverseT = 1 }\ntau_21 = 1\nalpha = 0.3\n",
              {"line 4", "inverse_T"}},
        Fault{"Text", start + "tau_12 = '1'\ntau_21 = 1\nalpha = 0.3\n", {"line 4", "number or a table"}},
        Fault{"NotFinite", start + "tau_12 = nan\ntau_21 = 1\nalpha = 0.3\n", {"line 4", "finite"}},
        Fault{"NegativeAlpha", start + "tau_12 = 1\ntau_21 = 1\nalpha = -0.3\n", {"line 6", "positive"}},
        Fault{"UnknownSubstance",
              "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'metanol']\n",
              {"line 3", "methanol"}},
        Fault{"OneSubstance", "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE']\n", {"line 3", "two substances"}},
        Fault{"Itself", "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'MTBE']\n", {"line 3", "with itself"}},
        Fault{"Range",
              start + "range_K = [350, 300]\ntau_12 = 1\ntau_21 = 1\nalpha = 0.3\n",
              {"line 4", "lower one first"}},
        Fault{
            "Conflict",
            start +
                "tau_12 = 1\ntau_21 = 1\nalpha = 0.3\n[[pair]]\nbetween = ['MTBE', 'methanol']\ntau_12 = 2\n"
                "tau_21 = 1\nalpha = 0.3\n",
            {"conflicting", "methanol"}}),
    [](const auto& fault) { return std::string(fault.param.name); });

}  // namespace
}  // namespace jampot
