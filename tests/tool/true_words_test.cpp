// What a command says beside its numbers is true: sources, references, names, causes.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include "run_tool.hpp"

namespace jampot {
namespace {

using json = nlohmann::json;
using test::json_answer;

bool mentions(const json& parameters, const std::string& what) {
  return parameters.dump().find(what) != std::string::npos;
}

TEST(TrueWords, ComparedModelsHaveTheirSourcesAndTheDefaultComesOnce) {
  const test::Workplace workplace;
  for (const char* command :
       {"txy ethanol toluene --pressure '1 atm'", "azeotropes ethanol toluene --pressure '1 atm'",
        "bubble ethanol toluene --composition ethanol=0.3 --pressure '1 atm'",
        "flash ethanol toluene --feed ethanol=0.3 --temperature '78 degC' --pressure '1 atm'",
        "gamma ethanol toluene --temperature '60 degC'"}) {
    const json answer = json_answer(workplace, std::string(command) + " --compare nrtl,unifac,wilson");
    EXPECT_TRUE(mentions(answer["parameters"], "UNIFAC (VLE table)")) << command;
    EXPECT_TRUE(mentions(answer["parameters"], "\"nrtl\"")) << command;
    EXPECT_TRUE(mentions(answer["parameters"], "\"wilson\"")) << command;
    const test::Ran ran = workplace.run(std::string(command) + " --compare nrtl,unifac");
    EXPECT_NE(ran.out.find("parameters: UNIFAC (VLE table)"), std::string::npos) << command;
    EXPECT_EQ(ran.out.find("nrtl [degC]", ran.out.find("nrtl [degC]") + 1), std::string::npos) << ran.out;
  }
}

TEST(TrueWords, MembersAreNamesOfTheSubstances) {
  const test::Workplace workplace;
  const json answer = json_answer(
      workplace,
      "azeotropes 'ethyl acetate' ethanol --label 'ethyl acetate=EA' --liquid unifac --pressure '1 atm'");
  std::vector<std::string> names;
  for (const json& substance : answer["substances"]) names.push_back(substance["name"]);
  EXPECT_EQ(answer["substances"][0]["label"], "EA");
  for (const char* list : {"pure", "azeotropes"}) {
    for (const json& point : answer[list]) {
      for (const json& member : point["members"])
        EXPECT_NE(std::find(names.begin(), names.end(), member.get<std::string>()), names.end()) << member;
    }
  }
}

// Whatever --csv wrote can be laid beside the results again, table by table, and differs in nothing.
TEST(TrueWords, WhatCsvWroteIsAReferenceToo) {
  const test::Workplace workplace;
  for (const char* command :
       {"flash ethanol toluene water --feed 'ethanol=1 mol/s, toluene=4 mol/s, water=5 mol/s' --liquid "
        "unifac "
        "--temperature '40 degC' --pressure '1 atm' --feed-temperature '25 degC' --feed-pressure '1 atm'",
        "split ethanol toluene water --feed 'ethanol=1 mol/s, toluene=4 mol/s, water=5 mol/s' --temperature "
        "'40 "
        "degC' --feed-temperature '25 degC'",
        "azeotropes ethanol toluene --liquid unifac --pressure '1, 2 bar'",
        "txy ethanol toluene --liquid unifac --pressure '1 atm' --points 11"}) {
    ASSERT_EQ(workplace.run(std::string(command) + " --csv all.csv").status, 0) << command;
    const json answer = json_answer(workplace, std::string(command) + " --expect all.csv");
    EXPECT_GT(answer["expected"].size(), 4u) << command;
    for (const json& row : answer["expected"])
      EXPECT_NEAR(row["deviation"].get<double>(), 0, 1e-9 * std::abs(row["result"].get<double>()) + 1e-12)
          << command << ": " << row.dump();
  }
}

TEST(TrueWords, AReferenceMayNameATotalAndSubstancesByFormula) {
  const test::Workplace workplace;
  const std::string split =
      "split ethanol toluene water --feed 'ethanol=1 mol/s, toluene=4 mol/s, water=5 mol/s' --temperature "
      "'40 degC' "
      "--feed-temperature '25 degC' ";
  workplace.write("total.csv", "duty [kW]\n17\n");
  const json total = json_answer(workplace, split + "--expect total.csv");
  ASSERT_EQ(total["expected"].size(), 1u);
  EXPECT_EQ(total["expected"][0]["quantity"], "duty");
  EXPECT_NEAR(total["expected"][0]["deviation"].get<double>(),
              total["expected"][0]["result"].get<double>() - 17, 1e-6);
  workplace.write("bare.csv", "duty\n17\n");
  const test::Ran bare = workplace.run(split + "--expect bare.csv");
  EXPECT_EQ(bare.status, 2);
  EXPECT_NE(bare.err.find("as in 'duty [kW]'"), std::string::npos) << bare.err;
  workplace.write("formula.csv",
                  "T [degC],x(C2H5OH),x(C7H8)\n40,0.1,0.5\n\nsubstance,feed [mol/s]\nEtOH,1\n");
  const json formula = json_answer(workplace,
                                   "flash ethanol toluene --feed 'ethanol=1 mol/s, toluene=9 mol/s' --liquid "
                                   "unifac --temperature '40 degC' "
                                   "--pressure '1 atm' --expect formula.csv");
  ASSERT_EQ(formula["expected"].size(), 4u);  // T too
  EXPECT_EQ(formula["expected"][3]["deviation"], 0);
}

TEST(TrueWords, DataThatCannotBeRightAreNamedFirst) {
  const test::Workplace workplace;
  workplace.write(
      "kelvin.csv",
      "# substances: methanol, water\n# P: 101.325 kPa\n"
      "T [K],x1,y1\n91.2,0.06,0.304\n84.4,0.15,0.517\n78.0,0.30,0.665\n73.1,0.50,0.779\n69.3,0.70,"
      "0.870\n66.0,0.90,0.958\n");
  for (const char* command : {"regress kelvin.csv", "consistency kelvin.csv", "data kelvin.csv"}) {
    const test::Ran ran = workplace.run(command);
    const std::size_t at = ran.err.find("degrees Celsius stated as kelvins");
    ASSERT_NE(at, std::string::npos) << command << ": " << ran.err;
    EXPECT_EQ(ran.err.find("notice ("), ran.err.find("notice (data-implausible)")) << ran.err;
  }
}

// A fit that such data stop says why, not only where it stopped.
TEST(TrueWords, AFitThatStopsNamesTheData) {
  const test::Workplace workplace;
  workplace.write(
      "kilo.csv",
      "# substances: ethanol, water\n# P: 760 kPa\nT [degC],x1,y1\n95.5,0.019,0.17\n89.0,0.0721,0.3891\n"
      "86.7,0.0966,0.4375\n85.3,0.1238,0.4704\n84.1,0.1661,0.5089\n82.7,0.2337,0.5445\n82.3,0.2608,"
      "0.5580\n81.5,0.3273,0.5826\n80.7,0.3965,0.6122\n79.8,0.5079,0.6564\n79.3,0.5732,0.6841\n");
  const test::Ran ran = workplace.run("regress kilo.csv");
  EXPECT_NE(ran.err.find("mmHg stated as kPa"), std::string::npos) << ran.err;
}

// Which liquid takes the solute: the sentence says what the numbers say, by mole and by mass.
TEST(InWords, WhichLiquidTakesTheSolute) {
  const test::Workplace workplace;
  for (const bool mass : {false, true}) {
    const json answer = json_answer(
        workplace, std::string("ternary water 'acetic acid' 'ethyl acetate' --temperature '25 degC'") +
                       (mass ? " --basis mass" : ""));
    ASSERT_EQ(answer["in_words"].size(), 1u);
    const std::string said = answer["in_words"][0];
    std::vector<double> coefficients;
    for (const auto& point : answer["distribution"]) {
      if (point["coefficient"].is_number() && point["in_carrier_liquid"].get<double>() > 0)
        coefficients.push_back(point["coefficient"]);
    }
    ASSERT_GT(coefficients.size(), 3u);
    const std::string numbers = fmt::format("({:.3g} at small content, {:.3g} at the largest)",
                                            coefficients.front(), coefficients.back());
    EXPECT_NE(said.find(numbers), std::string::npos) << said << "\n" << numbers;
    EXPECT_NE(said.find(mass ? "by mass fraction" : "by mole fraction"), std::string::npos);
  }
  // Named the other way round, the solute and the liquids are the same.
  const auto one = test::json_answer(workplace,
                                     "ternary water 'acetic acid' 'ethyl acetate' --temperature '25 degC' "
                                     "--solute 'acetic acid' --solvent 'ethyl acetate'"),
             other = test::json_answer(workplace,
                                       "ternary 'ethyl acetate' water 'acetic acid' --temperature '25 degC' "
                                       "--solute 'acetic acid' --solvent 'ethyl acetate'");
  EXPECT_EQ(one["in_words"], other["in_words"]);
}

// Whether pressure moves an azeotrope enough for two columns.
TEST(InWords, WhatAnotherPressureDoes) {
  const test::Workplace workplace;
  const auto said = [&](const std::string& arguments) {
    const json answer = json_answer(workplace, "azeotropes " + arguments);
    EXPECT_EQ(answer["in_words"].size(), 1u) << arguments;
    return answer["in_words"][0].get<std::string>();
  };
  EXPECT_NE(said("tetrahydrofuran water --pressure '1, 7 bar'").find("enough for two columns"),
            std::string::npos);
  EXPECT_NE(said("ethanol water --pressure '1, 1.5 bar'").find("too little for two columns"),
            std::string::npos);
  EXPECT_NE(said("methanol acetone --pressure '0.1, 1 bar'").find("and not at"), std::string::npos);
  EXPECT_NE(said("methanol water --pressure '1, 5 bar'").find("one column separates the two"),
            std::string::npos);
  EXPECT_FALSE(
      test::json_answer(workplace, "azeotropes ethanol water --pressure '1 bar'").contains("in_words"));
}

// Which of the models compared agree, and when they do not.
TEST(InWords, WhichModelsAgree) {
  const test::Workplace workplace;
  const nlohmann::json solubility = test::json_answer(
      workplace,
      "solubility 1-butanol water --temperature '20 to 80 by 20 degC' --compare 'unifac, unifac-lle'");
  ASSERT_EQ(solubility["in_words"].size(), 2u);
  const std::string first = solubility["in_words"][0];
  EXPECT_NE(first.find("nrtl and unifac differ by a factor of 2.8 in the solubility of 1-butanol in water"),
            std::string::npos)
      << first;
  EXPECT_NE(first.find("must decide"), std::string::npos) << first;
  const nlohmann::json wilson =
      test::json_answer(workplace, "txy ethanol water --pressure '1 atm' --compare 'ideal, wilson'");
  ASSERT_EQ(wilson["in_words"].size(), 2u);
  EXPECT_NE(wilson["in_words"][0].get<std::string>().find("an azeotrope and no azeotrope"),
            std::string::npos);
  EXPECT_NE(wilson["in_words"][1].get<std::string>().find("agree on the azeotrope"), std::string::npos);
}

}  // namespace
}  // namespace jampot
