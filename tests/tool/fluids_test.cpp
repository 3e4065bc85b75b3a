// Equations of state and flashes by the built tool.
#include <nlohmann/json.hpp>

#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

TEST(Fluids, FlashClosesItsBalances) {
  const test::Workplace workplace;
  const json result = test::json_answer(
      workplace,
      "flash methane propane n-hexane --liquid eos --vapour pr --feed 'methane=10 kmol/h, "
      "propane=20 kmol/h, n-hexane=30 kmol/h' --temperature '20 degC' --pressure '10, 60 bar'");
  ASSERT_EQ(result["results"].size(), 2u);
  for (const json& state : result["results"]) {
    std::vector<double> sum(3);
    double mole = 0;
    for (const json& phase : state["phases"]) {
      mole += phase["flow_mol_s"].get<double>();
      for (std::size_t i = 0; i < 3; ++i)
        sum[i] += phase["flow_mol_s"].get<double>() * phase["x"][i].get<double>() * 3.6;
    }
    EXPECT_NEAR(mole * 3.6, 60, 1e-10);
    EXPECT_NEAR(sum[0], 10, 1e-10);
    EXPECT_NEAR(sum[2], 30, 1e-10);
    EXPECT_LT(state["residual"].get<double>(), 1e-10);
  }
  EXPECT_GT(result["vapour_fraction"].get<double>(), 0.1);
  EXPECT_EQ(result["results"][1]["vapour_fraction"], 0.0);  // 60 bar: all of it dissolves
  EXPECT_EQ(result["notices"][0]["code"], "no-interaction");
}

TEST(Fluids, InteractionsAreReadAndHaveASay) {
  const test::Workplace workplace;
  workplace.write("k.csv", "first,second,k_ij\nCO2,n-hexane,0.11\n");
  const std::string command =
      "fugacity 'carbon dioxide' n-hexane --composition CO2=0.3 --temperature '40 degC' --pressure '20 bar' ";
  const json bare = test::json_answer(workplace, command),
             told = test::json_answer(workplace, command + "--interactions k.csv");
  EXPECT_EQ(bare["notices"].size(), 1u);
  EXPECT_TRUE(told["notices"].empty());
  EXPECT_GT(told["roots"][0]["phi"][0].get<double>(), 1.1 * bare["roots"][0]["phi"][0].get<double>());
  workplace.write("bad.csv", "first,second,k_ij\nCO2,n-hexane,11\n");
  const test::Ran bad = workplace.run(command + "--interactions bad.csv");
  EXPECT_EQ(bad.status, 2);
  EXPECT_NE(bad.err.find("bad.csv, line 2"), std::string::npos) << bad.err;
}

TEST(Fluids, TheWorkingShowsTheCubic) {
  const test::Workplace workplace;
  const test::Ran ran =
      workplace.run("fugacity propane --temperature '20 degC' --pressure '8 bar' --working --compare srk");
  EXPECT_EQ(ran.status, 0) << ran.err;
  for (const char* said : {"Z^3", "A = a P/(R T)^2", "stable", "Soave-Redlich-Kwong"})
    EXPECT_NE(ran.out.find(said), std::string::npos) << said;
}

TEST(Fluids, BadRequestsSayWhatWasExpected) {
  const test::Workplace workplace;
  test::expect_refused(
      workplace,
      {{"fugacity propane --temperature '20 degC'", "--pressure"},
       {"fugacity propane --temperature '20 degC' --pressure '8 bar' --vapour prr", "Did you mean pr"},
       {"fugacity propane n-hexane --temperature '20 degC' --pressure '8 bar'", "--composition"},
       {"flash ethanol water --liquid unifac --feed 'ethanol=0.4' --temperature '80 degC'", "--pressure"},
       {"flash ethanol water --liquid unifac --vapour pr --feed 'ethanol=0.4' --temperature '80 degC' "
        "--pressure '1 atm'",
        "--liquid eos"},
       {"flash ethanol water --liquid eos --feed 'ethanol=0.4' --temperature '80 degC' --pressure '1 "
        "atm'",
        "pr or srk"},
       {"flash ethanol water --liquid unifac --temperature '80 degC' --pressure '1 atm'", "--feed"}});
}

}  // namespace
}  // namespace jampot
