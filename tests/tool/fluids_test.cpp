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
       {"flash ethanol water --liquid unifac --vapour viral --feed 'ethanol=0.4' --temperature '80 degC' "
        "--pressure '1 atm'",
        "Did you mean virial"},
       {"flash ethanol water --liquid unifac --feed 'ethanol=0.4' --temperature '80 degC' --pressure '1 atm' "
        "--vapour-fraction 0.3",
        "give two"},
       {"flash ethanol water --liquid unifac --feed 'ethanol=0.4' --pressure '1 atm' --adiabatic",
        "--feed-temperature"},
       {"bubble ethanol water --liquid unifac --vapour virial --poynting maybe --composition ethanol=0.4 "
        "--pressure "
        "'1 atm'",
        "on or off"},
       {"flash ethanol water --liquid eos --feed 'ethanol=0.4' --temperature '80 degC' --pressure '1 "
        "atm'",
        "srk, pr, pc-saft"},
       {"flash ethanol water --liquid unifac --temperature '80 degC' --pressure '1 atm'", "--feed"}});
}

TEST(Fluids, AdiabaticFlashKeepsTheEnthalpyAndSaysItsReference) {
  const test::Workplace workplace;
  const json result = test::json_answer(
      workplace,
      "flash propane n-hexane --liquid eos --vapour pr --feed 'propane=20 kmol/h, n-hexane=30 kmol/h' "
      "--feed-temperature '60 degC' --feed-pressure '20 bar' --pressure '3 bar' --adiabatic "
      "--reference-enthalpy 'liquid at 0 degC'");
  EXPECT_EQ(result["feed_state"]["vapour_fraction"], 0.0);
  EXPECT_LT(result["T_K"].get<double>(), 333.15);
  EXPECT_GT(result["vapour_fraction"].get<double>(), 0.01);
  EXPECT_LT(result["energy_balance"].get<double>(), 1e-9);
  EXPECT_LT(std::abs(result["duty_W"].get<double>()), 1e-3);
  EXPECT_NE(result["reference"].get<std::string>().find("saturated liquid at 0"), std::string::npos);
  for (const json& phase : result["phases"]) {
    EXPECT_GT(phase["density_kg_m3"].get<double>(), 0);
    EXPECT_GT(phase["Cp_J_mol_K"].get<double>(), 50);
  }
}

// A duty given is the duty that a flash to the temperature found reports.
TEST(Fluids, DutiesAgree) {
  const test::Workplace workplace;
  const std::string feed =
      "flash ethanol water --liquid unifac --feed 'ethanol=400 kg/h, water=600 kg/h' --feed-temperature '25 "
      "degC' "
      "--pressure '1 atm' ";
  const json half = test::json_answer(workplace, feed + "--vapour-fraction 0.5");
  const double duty = half["duty_W"].get<double>();
  EXPECT_GT(duty, 2e5);
  const json given = test::json_answer(workplace, feed + "--duty '" + std::to_string(duty) + " W'");
  EXPECT_NEAR(given["T_K"].get<double>(), half["T_K"].get<double>(), 1e-6);
  EXPECT_NEAR(given["vapour_fraction"].get<double>(), 0.5, 1e-8);
}

TEST(Fluids, ModelsSideBySideAndAReferenceTable) {
  const test::Workplace workplace;
  workplace.write("book.csv", "T [degC],P [kPa],phase,x(propane),mole share\n40,800,vapour,0.9,0.2\n");
  const std::string command =
      "flash propane n-hexane --liquid eos --vapour pr --feed propane=0.6 --temperature '40 degC' --pressure "
      "'8 bar' ";
  const json result = test::json_answer(workplace, command + "--compare srk,pc-saft");
  ASSERT_EQ(result["results"].size(), 3u);
  EXPECT_EQ(result["results"][2]["model"], "pc-saft");
  const json laid = test::json_answer(workplace, command + "--expect book.csv");
  ASSERT_EQ(laid["expected"].size(), 4u);
  for (const json& row : laid["expected"]) {
    EXPECT_NEAR(row["deviation"].get<double>(), row["result"].get<double>() - row["reference"].get<double>(),
                1e-12);
    if (row["quantity"] == "x(propane)") {
      EXPECT_EQ(row["reference"], 0.9);
    }
  }
  workplace.write("wrong.csv", "T [degC],vapor\n40,0.2\n");
  const test::Ran wrong = workplace.run(command + "--expect wrong.csv");
  EXPECT_EQ(wrong.status, 2);
  EXPECT_NE(wrong.err.find("wrong.csv, line 1"), std::string::npos) << wrong.err;
}

TEST(Fluids, CorrectionsAreColumnsAndSwitches) {
  const test::Workplace workplace;
  const std::string command =
      "bubble acetone methanol --liquid unifac --vapour virial --composition acetone=0.4 --pressure '3 bar' ";
  const json on = test::json_answer(workplace, command),
             off = test::json_answer(workplace, command + "--poynting off --saturation-fugacity off");
  const json& point = on["points"][0];
  EXPECT_LT(point["phi"][0].get<double>(), 0.97);
  EXPECT_GT(point["poynting"][1].get<double>(), 1.0);
  EXPECT_EQ(off["points"][0]["poynting"][0], 1.0);
  EXPECT_EQ(off["points"][0]["phi_saturated"][0], 1.0);
  EXPECT_GT(std::abs(on["points"][0]["T_K"].get<double>() - off["points"][0]["T_K"].get<double>()), 0.5);
}

TEST(Fluids, WorkingOfPackingFractions) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run(
      "fugacity methanol --vapour pc-saft --temperature '40 degC' --pressure '2 bar' --working");
  EXPECT_EQ(ran.status, 0) << ran.err;
  for (const char* said : {"packing fraction", "sites of methanol are free", "2B", "ln phi"})
    EXPECT_NE(ran.out.find(said), std::string::npos) << said;
}

TEST(Fluids, RangesGiveTablesAndPairs) {
  const test::Workplace workplace;
  const std::string command = "flash ethanol water --liquid unifac --feed ethanol=0.4 ";
  EXPECT_EQ(test::json_answer(workplace,
                              command + "--temperature '80, 85, 90 degC' --pressure '1, 1.2 bar'")["results"]
                .size(),
            6u);
  EXPECT_EQ(
      test::json_answer(workplace,
                        command + "--temperature '80, 85 degC' --pressure '1, 1.2 bar' --together")["results"]
          .size(),
      2u);
  EXPECT_EQ(
      test::json_answer(workplace,
                        command + "--feed ethanol=0.7 --temperature '82 degC' --pressure '1 bar'")["results"]
          .size(),
      2u);
}

TEST(Fluids, GasesInLiquids) {
  const test::Workplace workplace;
  const std::string command =
      "flash 'carbon dioxide' water --liquid ideal --feed CO2=0.2 --temperature '40 degC' --pressure '2 "
      "bar' ";
  const json guessed = test::json_answer(workplace, command);
  const auto codes = [](const json& answer) {
    std::string list;
    for (const json& notice : answer["notices"]) list += notice["code"].get<std::string>() + " ";
    return list;
  };
  EXPECT_NE(codes(guessed).find("supercritical-component"), std::string::npos);
  const json known = test::json_answer(
      workplace, command + "--henry 'CO2 in water = 1640 bar at 25 degC, 2360 bar at 40 degC'");
  EXPECT_EQ(codes(known).find("supercritical-component"), std::string::npos);
  EXPECT_NEAR(known["x"][0].get<double>(), known["y"][0].get<double>() * 2 / 2360, 1e-9);
}

TEST(Fluids, SaturationBesideTheCorrelation) {
  const test::Workplace workplace;
  const json result =
      test::json_answer(workplace, "saturation propane --temperature '0, 50 degC' --compare pr,pc-saft");
  ASSERT_EQ(result["equations"].size(), 4u);
  for (const json& point : result["equations"]) {
    const double T = point["T_K"].get<double>();
    const double correlation = result["points"][T > 300 ? 1 : 0]["P_Pa"].get<double>();
    EXPECT_NEAR(point["P_Pa"].get<double>() / correlation, 1, 0.02);
  }
}

// The uncertainty of the azeotrope by moved parameters is that of the band, which has derivatives.
TEST(Azeotropes, UncertaintyIsThatOfTheBand) {
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo").status, 0);
  const std::string mixture =
      " 'methyl tert-butyl ether' methanol --parameters jampot-demo/mtbe-methanol.pairs.toml --pressure '1 "
      "atm' --uncertainty";
  const json found = test::json_answer(workplace, "azeotropes" + mixture)["azeotropes"][0];
  const json band = test::json_answer(workplace, "txy" + mixture)["curves"][0]["azeotropes"][0];
  EXPECT_GT(found["u_T_K"].get<double>(), 1e-4);
  EXPECT_NEAR(found["u_T_K"].get<double>() / band["u_T_K"].get<double>(), 1, 1e-3);
  EXPECT_NEAR(found["u_x"][0].get<double>() / band["u_x"].get<double>(), 1, 1e-3);
  const test::Ran none =
      workplace.run("azeotropes ethanol water --liquid unifac --pressure '1 atm' --uncertainty");
  EXPECT_EQ(none.status, 1);
  EXPECT_NE(none.err.find("covariance"), std::string::npos) << none.err;
}

TEST(Azeotropes, AreListedWithTheirBalance) {
  const test::Workplace workplace;
  const json result =
      test::json_answer(workplace, "azeotropes benzene ethanol water --liquid unifac --pressure '1, 3 atm'");
  ASSERT_EQ(result["index_balance"].size(), 2u);
  for (const json& balance : result["index_balance"]) EXPECT_TRUE(balance["balanced"].get<bool>());
  EXPECT_EQ(result["pure"].size(), 6u);
  bool ternary = false;
  for (const json& azeotrope : result["azeotropes"]) {
    double sum = 0;
    for (const json& x : azeotrope["x"]) sum += x.get<double>();
    EXPECT_NEAR(sum, 1, 1e-9);
    if (azeotrope["members"].size() != 3) continue;
    ternary = true;
    EXPECT_EQ(azeotrope["kind"], "heterogeneous");
    EXPECT_EQ(azeotrope["liquids"].size(), 2u);
  }
  EXPECT_TRUE(ternary);
  test::expect_refused(workplace,
                       {{"azeotropes benzene ethanol water --liquid unifac", "--pressure"},
                        {"azeotropes benzene --liquid unifac --pressure '1 atm'", "at least two"}});
  const test::Ran figure = workplace.run(
      "azeotropes ethanol benzene --liquid unifac --pressure '0.2 to 5 by 0.4 bar' --figure swing.svg");
  EXPECT_EQ(figure.status, 0) << figure.err;
  EXPECT_TRUE(workplace.has("swing.svg"));
  const test::Ran alone =
      workplace.run("azeotropes ethanol water benzene --liquid eos --vapour pr --pressure '1 atm'");
  EXPECT_EQ(alone.status, 2);
  EXPECT_NE(alone.err.find("mixtures of two components"), std::string::npos) << alone.err;
}

}  // namespace
}  // namespace jampot
