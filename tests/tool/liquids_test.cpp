// Two liquids as a user meets them: solubility, split and ternary by the built tool.
#include <nlohmann/json.hpp>

#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

class Liquids : public ::testing::Test {
 protected:
  json answer(const std::string& arguments) const { return test::json_answer(workplace, arguments); }
  test::Workplace workplace;
};

TEST_F(Liquids, SolubilityInMolesAndMassWhicheverIsNamedFirst) {
  const json one = answer("solubility 1-butanol water --temperature '20, 40 degC'");
  const json other = answer("solubility water 1-butanol --temperature '20, 40 degC'");
  ASSERT_EQ(one["points"].size(), 2u);
  EXPECT_EQ(one["models"]["liquid"], "nrtl");  // fitted to what handbooks say of them
  for (std::size_t k = 0; k < 2; ++k) {
    const json &a = one["points"][k], &b = other["points"][k];
    EXPECT_NEAR(a["x_alpha"][0].get<double>(), b["x_beta"][1].get<double>(), 1e-10);
    EXPECT_NEAR(a["w_beta"][0].get<double>(), b["w_alpha"][1].get<double>(), 1e-10);
    EXPECT_LT(a["residual"].get<double>(), 1e-10);
  }
  EXPECT_EQ(one["description"], "two liquids throughout this range");
  EXPECT_NEAR(one["points"][0]["w_alpha"][0].get<double>(), 0.075, 0.015);  // handbook: 7.5 % at 25 degC
}

TEST_F(Liquids, WhereNothingPartsItIsSaid) {
  const test::Ran ran =
      workplace.run("solubility ethanol water --temperature '20 to 60 by 10 degC' --figure f.svg");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.err.find("one liquid throughout"), std::string::npos) << ran.err;
  EXPECT_FALSE(workplace.has("f.svg"));
}

TEST_F(Liquids, AModelThatCannotSplitIsRefused) {
  for (const char* arguments :
       {"solubility 1-butanol water --liquid ideal --temperature '20 degC'",
        "ternary water ethanol 'ethyl acetate' --liquid ideal --temperature '25 degC'",
        "split 1-butanol water --liquid ideal --feed '1-butanol=0.3' --temperature '25 degC'"}) {
    const test::Ran ran = workplace.run(arguments);
    EXPECT_EQ(ran.status, 1) << arguments;
    EXPECT_NE(ran.err.find("cannot describe two liquids"), std::string::npos) << ran.err;
  }
}

TEST_F(Liquids, SplitClosesItsBalancesAndNamesItsLiquids) {
  const json result = answer(
      "split 'ethyl acetate' ethanol water --feed 'ethyl acetate=600 kg/h, ethanol=60 kg/h, water=840 kg/h' "
      "--feed-temperature '60 degC' --temperature '25 degC'");
  ASSERT_EQ(result["phases"].size(), 2u);
  double mass = 0, water = 0;
  for (const json& phase : result["phases"]) {
    mass += phase["flow_kg_s"].get<double>();
    water += phase["flow_kg_s"].get<double>() * phase["w"][2].get<double>();
    EXPECT_GT(phase["density_kg_m3"].get<double>(), 800);
  }
  EXPECT_NEAR(mass * 3600, 1500, 1e-8);
  EXPECT_NEAR(water * 3600, 840, 1e-8);
  EXPECT_LT(result["balance"].get<double>(), 1e-12);
  EXPECT_EQ(result["phases"][0]["rich_in"], "ethyl acetate");
  EXPECT_LT(result["duty_W"].get<double>(), -40e3);  // about 1500 kg/h of mostly water cooled by 35 K
  EXPECT_GT(result["duty_W"].get<double>(), -60e3);
  const json first = answer(
      "split 'ethyl acetate' ethanol water --feed 'ethyl acetate=600 kg/h, ethanol=60 kg/h, water=840 kg/h' "
      "--temperature '25 degC' --rich-in water");
  EXPECT_EQ(first["phases"][0]["rich_in"], "water");
}

TEST_F(Liquids, ADutyFindsItsTemperature) {
  const std::string feed =
      "split 'ethyl acetate' water --feed 'ethyl acetate=40%' --basis mass --amount '1 t/h' "
      "--feed-temperature '60 degC' ";
  const json there = answer(feed + "--temperature '30 degC'");
  const double duty = there["duty_W"];
  const json back = answer(feed + "--duty '" + std::to_string(duty / 1000) + " kW'");
  EXPECT_NEAR(back["T_K"].get<double>(), 303.15, 1e-3);
}

TEST_F(Liquids, TernaryHasTieLinesPlaitPointAndDistribution) {
  const json result = answer(
      "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --tie-line 'water=0.5, ethanol=0.1'");
  EXPECT_EQ(result["tie_lines"].size(), 25u);
  for (const json& line : result["tie_lines"]) {
    EXPECT_LT(line["residual"].get<double>(), 1e-10);
    EXPECT_GT(line["tangent_plane_distance"].get<double>(), -1e-9);
  }
  ASSERT_EQ(result["plait_points"].size(), 1u);
  EXPECT_LT(std::abs(result["plait_points"][0]["curvature"].get<double>()), 1e-8);
  EXPECT_LT(std::abs(result["plait_points"][0]["third_derivative"].get<double>()), 1e-8);
  EXPECT_EQ(result["distribution"][0]["solute"], "ethanol");
  EXPECT_EQ(result["distribution"][0]["solvent"], "ethyl acetate");
  EXPECT_EQ(result["through"].size(), 1u);
  // The other solvent turns the coefficient over.
  const json turned = answer("ternary water ethanol 'ethyl acetate' --temperature '25 degC' --solvent water");
  EXPECT_NEAR(turned["distribution"][0]["coefficient"].get<double>() *
                  result["distribution"][0]["coefficient"].get<double>(),
              1, 0.05);
}

TEST_F(Liquids, MeasuredTieLinesAreFittedAndLaidOver) {
  const json predicted = answer(
      "ternary water ethanol 'ethyl acetate' --liquid unifac-lle --temperature '25 degC' --tie-lines 9");
  std::string data =
      "# substances: water, ethanol, ethyl acetate\n# kind: tie-lines\n# u(x): 0.002\n# u(y): 0.002\n"
      "T [degC], x1_alpha, x2_alpha, x1_beta, x2_beta\n";
  for (const json& line : predicted["tie_lines"]) {
    data += "25";
    for (const char* side : {"alpha", "beta"}) {
      for (int i : {0, 1})
        data += "," + std::to_string(line[side][static_cast<std::size_t>(i)].get<double>());
    }
    data += "\n";
  }
  workplace.write("lines.csv", data);
  ASSERT_EQ(workplace.run("regress lines.csv --form constant --out own.pairs.toml").status, 0);
  const json fitted = answer(
      "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --parameters own.pairs.toml --compare "
      "unifac-lle "
      "--measured lines.csv --uncertainty --overview --figure t.svg");
  ASSERT_EQ(fitted["measured"].size(), 2u);
  EXPECT_LT(fitted["measured"][0]["distance"]["rms"].get<double>(), 0.01);
  EXPECT_LT(fitted["measured"][1]["distance"]["rms"].get<double>(), 1e-5);  // what the data were made with
  EXPECT_GT(fitted["tie_lines"][3]["u_alpha"][0].get<double>(), 0);
  EXPECT_TRUE(workplace.has("t.svg"));
  const test::Ran bare = workplace.run(
      "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --liquid uniquac --missing-pairs "
      "estimate "
      "--estimate-from unifac-lle --uncertainty");
  EXPECT_EQ(bare.status, 1);
  EXPECT_NE(bare.err.find("carry no covariance"), std::string::npos) << bare.err;
}

TEST_F(Liquids, BadRequestsSayWhatWasExpected) {
  const std::string three = "ternary water ethanol 'ethyl acetate' --temperature '25 degC' ";
  const std::string feed = "split 'ethyl acetate' water --temperature '25 degC' --feed ";
  test::expect_refused(
      workplace, {{"ternary water ethanol --temperature '25 degC'", "three substances"},
                  {"ternary water ethanol 'ethyl acetate'", "--temperature"},
                  {three + "--corners 'water, ethanol, water'", "twice"},
                  {three + "--corners 'water, ethanol'", "top, left, right"},
                  {three + "--hide tielines", "Did you mean tie-lines"},
                  {three + "--mark 'water=0.3'", "text: composition"},
                  {three + "--solute water --solvent water", "two substances"},
                  {three + "--tie-lines 0", "from 1 to"},
                  {feed + "'ethyl acetate=10 kg/h'", "does not mention water"},
                  {feed + "'ethyl acetate=10 kg/h, water=1 kg'", "mixes amounts and flows"},
                  {feed + "'ethyl acetate=10 kg/h, water=5 bar'", "mass flow"},
                  {"split 'ethyl acetate' water --feed 'water=1 kg, ethyl acetate=1 kg'", "--temperature"},
                  {"split 'ethyl acetate' water --feed 'water=0.5' --duty '3 kW'", "--feed-temperature"},
                  {"solubility 1-butanol water --temperature '20 degX'", "degX"}});
}

}  // namespace
}  // namespace jampot
