// Measured points laid over diagrams: what they are held against, and what cannot be laid over what.
#include <algorithm>
#include <cmath>
#include <cstdio>

#include "jampot/substance/bank.hpp"
#include "requests.hpp"

namespace jampot {
namespace {

using nlohmann::json;
using test::demo_place;
using test::json_answer;
using test::pair_of_demo;

TEST(Overlay, ActivityCoefficientsOfBoilingPoints) {
  const json answer =
      json_answer(demo_place(), "gamma " + pair_of_demo() +
                                    "--temperature '52 degC' --measured jampot-demo/mtbe-methanol.csv");
  ASSERT_EQ(answer["measured"].size(), 1u);
  const json& measured = answer["measured"][0];
  const json data = json_answer(demo_place(), "data jampot-demo/mtbe-methanol.csv")["data_sets"][0];
  ASSERT_EQ(measured["points"].size(), 2 * data["points"].size());
  // By hand: y P / (x Psat).
  const auto& bank = Bank::built_in();
  const Substance mtbe = bank.require("MTBE");
  const json& point = data["points"][3];
  const double P_sat = std::exp(mtbe.vapour_pressure->ln_P(point["T_K"].get<double>()));
  const double gamma =
      point["y"][0].get<double>() * point["P_Pa"].get<double>() / (point["x"][0].get<double>() * P_sat);
  EXPECT_NEAR(measured["points"][6]["gamma"].get<double>(), gamma, 1e-9);
  EXPECT_EQ(measured["points"][6]["of"], "MTBE");
  // The parameters were fitted to these points: no bias beyond a few per cent.
  for (const json& summary : measured["ln_gamma"]) {
    EXPECT_EQ(summary["count"], 30);
    EXPECT_LT(std::abs(summary["mean"].get<double>()), 0.02);
    EXPECT_GE(summary["rms"].get<double>(), std::abs(summary["mean"].get<double>()));
    EXPECT_GE(std::abs(summary["max"].get<double>()), summary["mean_absolute"].get<double>());
  }
  bool said = false;
  for (const json& notice : answer["notices"]) said = said || notice["code"] == "measured-elsewhere";
  EXPECT_TRUE(said);  // boiling points lie at many temperatures, the curves at one
}

TEST(Overlay, TheModelIsTakenAtThePointsOwnTemperature) {
  const std::string with =
      "gamma " + pair_of_demo() + "--measured jampot-demo/mtbe-methanol.csv --points 5 --temperature ";
  const json cold = json_answer(demo_place(), with + "'30 degC'"),
             hot = json_answer(demo_place(), with + "'90 degC'");
  EXPECT_EQ(cold["measured"], hot["measured"]);
}

TEST(Overlay, OrderOfTheSubstancesDoesNotMatter) {
  const std::string rest = test::demo_parameters() +
                           " --temperature '52 degC' --points 5 --measured jampot-demo/mtbe-methanol.csv";
  const json one = json_answer(demo_place(), "gamma MTBE methanol " + rest)["measured"][0]["ln_gamma"],
             two = json_answer(demo_place(), "gamma methanol MTBE " + rest)["measured"][0]["ln_gamma"];
  ASSERT_EQ(one.size(), 2u);
  for (const json& left : one) {
    for (const json& right : two) {
      if (left["of"] != right["of"]) continue;
      EXPECT_NEAR(left["rms"].get<double>(), right["rms"].get<double>(), 1e-12);
    }
  }
  EXPECT_NE(one[0]["of"], two[0]["of"]);
}

TEST(Overlay, LimitsAreLaidOverLimits) {
  const test::Workplace workplace;
  workplace.write("limits.csv",
                  "# substances: ethanol, water\n# kind: gamma-inf\nsolute,solvent,T "
                  "[degC],gamma,u(gamma)\nethanol,water,25,3.8,0.2\n"
                  "ethanol,water,50,4.6,0.2\nwater,ethanol,50,2.5,0.1\n");
  const std::string request =
      "gamma ethanol water --liquid unifac --limiting --temperature '20 to 60 by 10 degC' ";
  const json answer = json_answer(workplace, request + "--measured limits.csv");
  const json& measured = answer["measured"][0];
  ASSERT_EQ(measured["points"].size(), 3u);
  EXPECT_EQ(measured["points"][0]["of"], "ethanol in water");
  EXPECT_EQ(measured["points"][2]["of"], "water in ethanol");
  EXPECT_NEAR(measured["points"][1]["gamma"].get<double>(), 4.6, 1e-12);
  // The model at a measured point is the model at that temperature.
  for (const json& limit : answer["limiting"]) {
    if (limit["solute"] != "ethanol" || std::abs(limit["T_K"].get<double>() - 323.15) > 1e-9) continue;
    EXPECT_NEAR(limit["gamma"].get<double>(), measured["points"][1]["gamma_model"].get<double>(), 1e-9);
  }
  // Named the other way round the solute stays the solute.
  const json other = json_answer(
      workplace,
      "gamma water ethanol --liquid unifac --limiting --temperature '50 degC' --measured limits.csv");
  EXPECT_EQ(other["measured"][0]["points"][0]["of"], "ethanol in water");
  EXPECT_NEAR(other["measured"][0]["points"][0]["gamma_model"].get<double>(),
              measured["points"][0]["gamma_model"].get<double>(), 1e-12);
  ASSERT_EQ(workplace.run(request + "--measured limits.csv --figure limits.svg").status, 0);
  EXPECT_NE(workplace.read("limits.svg").find("ethanol in water, limits.csv"), std::string::npos);
}

TEST(Overlay, ThePictureNamesThePoints) {
  const test::Ran ran =
      demo_place().run("gamma " + pair_of_demo() +
                       "--temperature '52 degC' --measured jampot-demo/mtbe-methanol.csv --figure g.svg");
  ASSERT_EQ(ran.status, 0) << ran.err;
  EXPECT_NE(ran.out.find("with an ideal vapour"), std::string::npos);
  const std::string svg = demo_place().read("g.svg");
  EXPECT_NE(svg.find("MTBE, mtbe-methanol.csv"), std::string::npos);
  EXPECT_NE(svg.find("measured-elsewhere"), std::string::npos);
}

// Acetone and water have no azeotrope at 1 atm; UNIFAC's lies within its own error.
TEST(Predictions, AzeotropesNextToAPureSubstanceAreDoubted) {
  const auto codes = [](const json& answer) {
    std::vector<std::string> list;
    for (const json& notice : answer["notices"]) list.push_back(notice["code"]);
    return list;
  };
  const auto doubted =
      codes(json_answer(demo_place(), "azeotropes acetone water --liquid unifac --pressure '1 atm'"));
  EXPECT_EQ(std::count(doubted.begin(), doubted.end(), "azeotrope-near-pure"), 1);
  const auto firm =
      codes(json_answer(demo_place(), "azeotropes acetone methanol --liquid unifac --pressure '1 atm'"));
  EXPECT_EQ(std::count(firm.begin(), firm.end(), "azeotrope-near-pure"), 0);
  const auto measured =
      codes(json_answer(demo_place(), "azeotropes " + pair_of_demo() + "--pressure '1 atm'"));
  EXPECT_EQ(std::count(measured.begin(), measured.end(), "azeotrope-near-pure"), 0);
  const auto map = codes(json_answer(
      demo_place(), "residue acetone methanol water --liquid unifac --pressure '1 atm' --curves 3"));
  EXPECT_EQ(std::count(map.begin(), map.end(), "azeotrope-near-pure"), 1);
}

// What is written out ends in the numbers of the table.
TEST(WorkingOfAzeotropes, EndsInItsNumbers) {
  const json answer =
      json_answer(demo_place(), "azeotropes " + pair_of_demo() + "--pressure '1 atm' --working");
  std::string text;
  for (const json& line : answer["working"]) text += line.get<std::string>() + "\n";
  EXPECT_NE(text.find("homogeneous azeotrope of MTBE + methanol"), std::string::npos) << text;
  EXPECT_NE(text.find("sum = 101325 Pa;  P = 101325 Pa"), std::string::npos) << text;
  const double x = answer["azeotropes"][0]["x"][0];
  char shown[32];
  std::snprintf(shown, sizeof shown, "y_1 = %.6g", x);
  EXPECT_NE(text.find(shown), std::string::npos) << text;
  const json two = json_answer(
      demo_place(), "residue ethanol benzene water --liquid unifac --pressure '1 atm' --curves 2 --working");
  text.clear();
  for (const json& line : two["working"]) text += line.get<std::string>() + "\n";
  EXPECT_FALSE(text.empty());
  const json none =
      json_answer(demo_place(), "azeotropes methanol water --liquid unifac --pressure '1 atm' --working");
  EXPECT_NE(none["working"].dump().find("no azeotrope to write out"), std::string::npos);
  const json heterogeneous =
      json_answer(demo_place(), "azeotropes 1-butanol water --liquid unifac --pressure '1 atm' --working");
  EXPECT_NE(heterogeneous["working"].dump().find("all liquids give the same vapour"), std::string::npos);
}

TEST(Overlay, WhatCannotBeLaidOverWhat) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write("limits.csv",
                  "# substances: MTBE, methanol\n# kind: gamma-inf\nsolute,solvent,T "
                  "[degC],gamma\nMTBE,methanol,25,3.8\n");
  workplace.write(
      "boiling.csv",
      "# substances: MTBE, methanol\nT [degC],P [kPa],x1\n60,101.3,0.05\n55,101.3,0.2\n52,101.3,0.5\n");
  workplace.write("liquids.csv", "# substances: 1-butanol, water\nT [degC],x1_alpha,x1_beta\n25,0.02,0.5\n");
  const std::string gamma = "gamma MTBE methanol --liquid unifac --temperature '50 degC' ";
  test::expect_refused(
      workplace,
      {{gamma + "--measured limits.csv", "vapour"},
       {gamma + "--measured boiling.csv", "vapour"},
       {gamma + "--measured nowhere.csv", "nowhere.csv"},
       {gamma + "--limiting --measured data.csv", "limiting activity coefficients"},
       {gamma + "--limiting --compare mosced --measured limits.csv", "mosced"},
       {"gamma acetone methanol --liquid unifac --temperature '50 degC' --measured data.csv", "data.csv"},
       {"txy MTBE methanol --liquid unifac --pressure '1 atm' --measured limits.csv", "boiling liquid"},
       {"solubility 1-butanol water --temperature '25 degC' --measured data.csv", "two liquids"},
       {"txy 1-butanol water --liquid unifac --pressure '1 atm' --measured liquids.csv", "boiling liquid"}});
}

}  // namespace
}  // namespace jampot
