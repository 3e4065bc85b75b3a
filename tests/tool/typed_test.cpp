// What is typed is what is calculated.
#include "run_tool.hpp"

namespace jampot::test {
namespace {

TEST(Typed, TwoNumbersAreNeverMultiplied) {
  const Workplace workplace;
  workplace.put_data();
  workplace.write("p.csv",
                  "# substances: MTBE, methanol\n# P: 7 60 mmHg\nT [degC], x1\n52, 0.4\n53, 0.3\n54, 0.2\n");
  expect_refused(workplace, {{"flash p-xylene toluene --liquid ideal --pressure '1 atm' --temperature '120 "
                              "degC' --feed 'p-xylene=1 500 kg/h, "
                              "toluene=300 kg/h'",
                              "1500 kg/h"},
                             {"txy MTBE methanol --liquid ideal --pressure '1 2 bar'", "a list"},
                             {"txy MTBE methanol --liquid ideal --pressure '1..3 bar'", "range"},
                             {"pxy MTBE methanol --liquid ideal --temperature '20 30 degC'", "a list"},
                             {"txy MTBE methanol --liquid ideal --pressure '1,013 mbar'", "1013 mbar"},
                             {"regress p.csv", "line 2"}});
}

TEST(Typed, WhatPeopleMeanIsTaken) {
  const Workplace workplace;
  for (const char* T : {"60 C",
                        "60 \xC2\xB0"
                        "C",
                        "140 F", "333.15K"}) {
    const nlohmann::json answer =
        json_answer(workplace, std::string("saturation acetone --temperature '") + T + "'");
    EXPECT_NEAR(answer["points"][0]["T_K"].get<double>(), 333.15, 1e-9) << T;
  }
  EXPECT_EQ(
      json_answer(
          workplace,
          "bubble methane propane --liquid pr --pressure '10 bara' --composition methane=0.1")["models"],
      json_answer(workplace,
                  "bubble methane propane --liquid eos --vapour pr --pressure '10 bar' --composition "
                  "methane=0.1")["models"]);
  const Ran help = workplace.run("help txy"), same = workplace.run("txy --help");
  EXPECT_EQ(help.status, 0);
  EXPECT_EQ(help.out, same.out);
  expect_refused(workplace, {{"help txx", "Did you mean"}});
}

TEST(Typed, AnswersComeInTheUnitsOfTheQuestion) {
  const Workplace workplace;
  EXPECT_NE(workplace.run("saturation water --temperature '290 K'").out.find("T [K]"), std::string::npos);
  EXPECT_NE(workplace.run("saturation water --temperature '290 K' --units degC").out.find("16.85"),
            std::string::npos);
  const std::string text =
      workplace
          .run(
              "flash ethanol water --liquid unifac --pressure '14.7 psi' --temperature '180 F' --feed "
              "'ethanol=200 lb/h, water=300 lb/h'")
          .out;
  for (const char* heading : {"T [degF]", "P [psi]", "lb/h"})
    EXPECT_NE(text.find(heading), std::string::npos) << heading << "\n" << text;
}

TEST(Typed, NamesWithCommasWorkEverywhere) {
  const Workplace workplace;
  const std::string mixture = " '1,4-dioxane' water --liquid unifac --pressure '1 atm' ";
  EXPECT_EQ(workplace.run("bubble" + mixture + "--composition '1,4-dioxane=0.2'").status, 0);
  EXPECT_EQ(
      workplace.run("flash" + mixture + "--temperature '95 C' --feed '1,4-dioxane=20 kg/h, water=80 kg/h'")
          .status,
      0);
  EXPECT_EQ(workplace
                .run("ternary water ethanol '1,2-dichloroethane' --temperature '25 C' --tie-lines 3 --figure "
                     "t.svg --mark "
                     "'feed: 1,2-dichloroethane=0.3, water=0.5'")
                .status,
            0);
  workplace.write("d.csv",
                  "# substances: 1,4-dioxane, water\nT [degC], P [kPa], x1, y1\n88, 101.3, 0.4, 0.45\n");
  workplace.write("q.csv",
                  "# substances: \"1,4-dioxane\", water\nT [degC], P [kPa], x1, y1\n88, 101.3, 0.4, 0.45\n");
  EXPECT_EQ(json_answer(workplace, "data d.csv")["data_sets"][0]["substances"][0], "1,4-dioxane");
  EXPECT_EQ(json_answer(workplace, "data q.csv")["data_sets"][0]["substances"][0], "1,4-dioxane");
  ASSERT_EQ(workplace.run("bubble" + mixture + "--composition '1,4-dioxane=0.2' --csv t.csv").status, 0);
  const nlohmann::json first = json_answer(workplace, "bubble" + mixture + "--composition '1,4-dioxane=0.2'"),
                       again = json_answer(workplace, "bubble" + mixture + "--composition t.csv");
  EXPECT_NEAR(first["points"][0]["T_K"].get<double>(), again["points"][0]["T_K"].get<double>(), 1e-9);
}

TEST(Typed, AJobIsCheckedAsItWouldBeRead) {
  const Workplace workplace;
  const std::string step = "[[step]]\ncommand = 'txy'\nsubstances = ['ethanol', 'water']\n";
  workplace.write("a.job.toml", step + "liquid = 'unifac'\npressure = '1 C'\n");
  workplace.write("b.job.toml", step + "liquid = 'wilsn'\npressure = '1 atm'\n");
  workplace.write("c.job.toml", step + "liquid = 'unifac'\npressure = ['1 atm', '2 atm']\npoints = 11\n");
  expect_refused(workplace, {{"job --check a.job.toml", "line 5: pressure: 'C' is not a unit"},
                             {"job --check b.job.toml", "Did you mean wilson"}});
  EXPECT_EQ(json_answer(workplace, "job c.job.toml")["steps"][0]["result"]["curves"].size(), 2u);
}

TEST(Typed, TheEndingOfACsvIsNoOtherForm) {
  const Workplace workplace;
  expect_refused(workplace, {{"find etyl --csv t.md", "--csv writes"}, {"find etyl --csv t.xlsx", "--xlsx"}});
}

}  // namespace
}  // namespace jampot::test
