// Measured data in either form, through the tool.
#include "run_tool.hpp"

namespace jampot::test {
namespace {

const std::string sample = JAMPOT_SOURCE_DIR "/tests/files/equilibria.xml";

TEST(Data, ListsWhatAFileHolds) {
  const Workplace workplace;
  const Ran ran = workplace.run("data " + sample);
  EXPECT_EQ(ran.status, 0) << ran.err;
  for (const char* text :
       {"#2", "pxy", "#5+6", "lle", "gamma-inf", "excess-enthalpy", "ethanol, water, 1-butanol"})
    EXPECT_NE(ran.out.find(text), std::string::npos) << text << "\n" << ran.out;
  EXPECT_NE(ran.err.find("samphire oil is not in the databank"), std::string::npos) << ran.err;
  const auto json = json_answer(workplace, "data " + sample + "#8");
  EXPECT_EQ(json["substances"].size(), 3u);
  EXPECT_NEAR(json["data_sets"][0]["points"][0]["x_alpha"][2].get<double>(), 0.025, 1e-12);
}

// The same points in another form give the same fit.
TEST(Data, AFitDoesNotDependOnTheForm) {
  const Workplace workplace;
  workplace.put_data();
  EXPECT_EQ(workplace.run("data data.csv --out data.xml").status, 0);
  const auto from_csv = json_answer(workplace, "regress data.csv --model nrtl");
  const auto from_xml = json_answer(workplace, "regress data.xml --model nrtl");
  for (std::size_t k = 0; k < 2; ++k)
    EXPECT_NEAR(from_csv["fits"][0]["parameters"][k]["value"].get<double>(),
                from_xml["fits"][0]["parameters"][k]["value"].get<double>(), 1e-5);
  EXPECT_EQ(workplace.run("consistency data.xml").status, 0);
}

TEST(Data, LiesOverDiagrams) {
  const Workplace workplace;
  const Ran boiling =
      workplace.run("pxy ethanol water --temperature '70 degC' --liquid unifac --measured " + sample);
  EXPECT_EQ(boiling.status, 0) << boiling.err;
  EXPECT_NE(boiling.out.find("#2"), std::string::npos) << boiling.out;
  EXPECT_NE(boiling.err.find("not drawn"), std::string::npos) << boiling.err;
  const Ran liquids = workplace.run(
      "solubility 1-butanol water --temperature '25 to 40 by 5 degC' --liquid "
      "unifac-lle --measured " +
      sample);
  EXPECT_EQ(liquids.status, 0) << liquids.err;
  EXPECT_NE(liquids.out.find("#5+6"), std::string::npos) << liquids.out;
}

TEST(Data, WhatCannotBeIsRefused) {
  const Workplace workplace;
  workplace.put_data();
  workplace.write("half.xml", "<DataReport><Citation>");
  expect_refused(workplace,
                 {{"data data.csv --out data.xlsx", "as .csv or, in ThermoML, as .xml"},
                  {"data " + sample + " --out all.csv", "a CSV file holds one data set"},
                  {"data half.xml", "no well-formed XML"},
                  {"data " + sample + "#77", "there is no data set #77"},
                  {"txy acetone methanol --pressure '1 atm' --liquid unifac --measured " + sample,
                   "none of the 7 data sets"},
                  {"txy 1-butanol water --pressure '1 atm' --liquid unifac --measured '" + sample + "#5+6'",
                   "holds lle data"}});
  EXPECT_FALSE(workplace.has("all.csv"));
}

}  // namespace
}  // namespace jampot::test
