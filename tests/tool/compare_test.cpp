// --compare says what separate runs say, in every command that has it.
#include "requests.hpp"

namespace jampot {
namespace {

using nlohmann::json;
using test::demo_place;
using test::json_answer;
using test::pair_of_demo;

// Entries of `key` whose model (under one of the usual keys) is this one.
json of_model(const json& answer, const std::string& key, const std::string& model) {
  json list = json::array();
  for (const json& entry : answer[key]) {
    for (const char* name : {"liquid", "model", "fluid"}) {
      if (entry.contains(name) && entry[name] == model) list.push_back(entry);
    }
  }
  return list;
}

// The numbers of two answers, without the name of the model.
void expect_same(json left, json right, const std::string& what) {
  for (json* side : {&left, &right}) {
    for (json& entry : *side) {
      for (const char* name : {"liquid", "model", "fluid", "evaluations"}) entry.erase(name);
    }
  }
  EXPECT_FALSE(left.empty()) << what;
  EXPECT_EQ(left, right) << what;
}

struct Compared {
  std::string name, request, alone, key, model;  ///< `alone`: options that make the other model the only one
};

class EveryComparison : public testing::TestWithParam<Compared> {};

TEST_P(EveryComparison, IsThatOfSeparateRuns) {
  const Compared& c = GetParam();
  const json both = json_answer(demo_place(), c.request + " --compare " + c.model);
  const json other = json_answer(demo_place(), c.alone);
  // A command that states its models in the plural only where there are several is asked for two.
  const bool several = c.alone.find("--compare") != std::string::npos;
  expect_same(of_model(both, c.key, c.model), several ? of_model(other, c.key, c.model) : other[c.key],
              c.name);
}

INSTANTIATE_TEST_SUITE_P(
    All, EveryComparison,
    testing::Values(
        Compared{"gamma", "gamma " + pair_of_demo() + "--temperature '50 degC' --points 7",
                 "gamma MTBE methanol --liquid unifac --temperature '50 degC' --points 7", "points",
                 "unifac"},
        Compared{"limiting", "gamma " + pair_of_demo() + "--limiting --temperature '30, 50 degC'",
                 "gamma MTBE methanol --liquid unifac --limiting --temperature '30, 50 degC'", "limiting",
                 "unifac"},
        Compared{"bubble", "bubble " + pair_of_demo() + "--composition MTBE=0.3 --pressure '1, 2 atm'",
                 "bubble MTBE methanol --liquid unifac --composition MTBE=0.3 --pressure '1, 2 atm'",
                 "points", "unifac"},
        Compared{"dew", "dew " + pair_of_demo() + "--composition MTBE=0.3 --temperature '55 degC'",
                 "dew MTBE methanol --liquid unifac --composition MTBE=0.3 --temperature '55 degC'", "points",
                 "unifac"},
        Compared{"txy", "txy " + pair_of_demo() + "--pressure '1, 3 atm' --points 11",
                 "txy MTBE methanol --liquid unifac --pressure '1, 3 atm' --points 11", "curves", "unifac"},
        Compared{"pxy", "pxy " + pair_of_demo() + "--temperature '50 degC' --points 11",
                 "pxy MTBE methanol --liquid ideal --temperature '50 degC' --points 11", "curves", "ideal"},
        Compared{"xy", "xy " + pair_of_demo() + "--pressure '1 atm' --points 11",
                 "xy MTBE methanol --liquid ideal --pressure '1 atm' --points 11", "curves", "ideal"},
        Compared{"solubility", "solubility 1-butanol water --liquid unifac-lle --temperature '20, 40 degC'",
                 "solubility 1-butanol water --liquid unifac --temperature '20, 40 degC'", "points",
                 "unifac"},
        Compared{
            "ternary",
            "ternary water ethanol 'ethyl acetate' --liquid unifac-lle --temperature '25 degC' --tie-lines 5",
            "ternary water ethanol 'ethyl acetate' --liquid unifac --temperature '25 degC' --tie-lines 5",
            "tie_lines", "unifac"},
        Compared{"azeotropes", "azeotropes " + pair_of_demo() + "--pressure '1, 2 bar'",
                 "azeotropes MTBE methanol --liquid unifac --pressure '1, 2 bar'", "azeotropes", "unifac"},
        Compared{"flash",
                 "flash " + pair_of_demo() + "--feed MTBE=0.4 --temperature '53 degC' --pressure '1 atm'",
                 "flash MTBE methanol --liquid unifac --feed MTBE=0.4 --temperature '53 degC' --pressure '1 "
                 "atm' --compare ideal",
                 "results", "unifac"},
        Compared{
            "fugacity",
            "fugacity propane n-hexane --composition propane=0.4 --temperature '80 degC' --pressure '5 bar'",
            "fugacity propane n-hexane --vapour srk --composition propane=0.4 --temperature '80 degC' "
            "--pressure '5 bar'",
            "roots", "srk"}),
    [](const auto& tested) { return tested.param.name; });

TEST(Comparison, OfResidueMapsIsThatOfSeparateRuns) {
  const std::string three = "residue acetone chloroform methanol --pressure '1 atm' --curves 5 ";
  const json both = json_answer(demo_place(), three + "--liquid unifac --compare ideal");
  const json first = json_answer(demo_place(), three + "--liquid unifac");
  const json other = json_answer(demo_place(), three + "--liquid ideal");
  for (const char* key : {"singular_points", "curves", "boundaries", "regions", "index_balance"})
    EXPECT_EQ(both[key], first[key]) << key;
  ASSERT_EQ(both["compared"].size(), 1u);
  EXPECT_EQ(both["compared"][0]["liquid"], "ideal");
  for (const char* key : {"singular_points", "boundaries", "regions", "index_balance"})
    EXPECT_EQ(both["compared"][0][key], other[key]) << key;
  EXPECT_TRUE(both["compared"][0]["curves"].empty());  // of the others only the structure
}

TEST(Comparison, OfResidueMapsIsDrawnAndSaid) {
  const std::string request =
      "residue ethanol benzene water --liquid unifac --compare nrtl --missing-pairs estimate --pressure '1 "
      "atm' --curves 5 --figure maps.svg";
  const test::Ran ran = demo_place().run(request);
  ASSERT_EQ(ran.status, 0) << ran.err;
  for (const char* said : {"unifac: 7 singular points", "nrtl: 7 singular points", "nrtl: two liquids boil",
                           "curves, tie lines and the statements on feeds are those of unifac"})
    EXPECT_NE(ran.out.find(said), std::string::npos) << said;
  const std::string svg = demo_place().read("maps.svg");
  for (const char* drawn : {"nrtl, azeotropes", "distillation boundary", "two boiling liquids"})
    EXPECT_NE(svg.find(drawn), std::string::npos) << drawn;
  // A vapour pressure is the same whatever the liquid model: what is doubtful about it is said once.
  const test::Ran narrow = demo_place().run(
      "residue 1-hexene benzene 3-pentanone --liquid unifac --compare ideal --pressure '4 atm' --curves 3");
  ASSERT_EQ(narrow.status, 0) << narrow.err;
  std::size_t times = 0;
  for (std::size_t at = 0;
       (at = narrow.err.find("the vapour pressure of 3-pentanone", at)) != std::string::npos; ++at)
    ++times;
  EXPECT_EQ(times, 1u) << narrow.err;
}

TEST(Comparison, WithParameterFilesBesideEachOther) {
  const json both =
      json_answer(demo_place(),
                  "txy MTBE methanol --parameters jampot-demo/mtbe-methanol.pairs.toml --compare "
                  "jampot-demo/mtbe-methanol-second-still.pairs.toml --pressure '1 atm' --points 11");
  ASSERT_EQ(both["curves"].size(), 2u);
  EXPECT_NE(both["curves"][0]["liquid"], both["curves"][1]["liquid"]);
  const double first = both["curves"][0]["azeotropes"][0]["x"][0],
               second = both["curves"][1]["azeotropes"][0]["x"][0];
  EXPECT_NEAR(first, 0.678, 0.002);
  EXPECT_NEAR(second, 0.636, 0.002);
}

TEST(Comparison, RefusesWhatIsNoModel) {
  test::expect_refused(
      demo_place(),
      {{"txy " + pair_of_demo() + "--pressure '1 atm' --compare unifak", "unifac"},
       {"residue acetone chloroform methanol --liquid unifac --pressure '1 atm' --compare nrtk", "nrtl"},
       {"fugacity propane n-hexane --composition propane=0.4 --temperature '80 degC' --pressure '5 bar' "
        "--compare prr",
        "pr"},
       {"txy " + pair_of_demo() + "--pressure '1 atm' --compare nowhere.pairs.toml", "nowhere.pairs.toml"}});
}

}  // namespace
}  // namespace jampot
