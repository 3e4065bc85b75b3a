// The commands as a user meets them: answers, files, and help whose examples run.
#include <fmt/format.h>

#include <nlohmann/json.hpp>
#include <sstream>

#include "jampot/basis/text.hpp"
#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

TEST(Commands, HelpExamplesRunAsTheyStand) {
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo").status, 0);
  int examples = 0;
  for (const std::string command :
       {"find",  "substance", "saturation", "define",   "regress",    "bubble",   "dew",         "txy",
        "pxy",   "xy",        "demo",       "pairs",    "gamma",      "estimate", "consistency", "solubility",
        "split", "ternary",   "flash",      "fugacity", "azeotropes", "residue",  "job",         "data"}) {
    const test::Ran help = workplace.run(command + " --help");
    EXPECT_EQ(help.status, 0);
    std::istringstream lines(help.out);
    for (std::string line; std::getline(lines, line);) {
      if (!line.starts_with("  jampot ")) continue;
      ++examples;
      const test::Ran ran = workplace.run(line.substr(9));
      EXPECT_EQ(ran.status, 0) << line << "\n" << ran.err;
      EXPECT_FALSE(ran.out.empty());
    }
  }
  EXPECT_EQ(examples, 24);
  EXPECT_EQ(workplace.run("--help").status, 0);
  EXPECT_EQ(workplace.run("help").out, workplace.run("--help").out);
  EXPECT_EQ(workplace.run("--version").status, 0);
  // The manual page and the completion know every command and option.
  const std::string page = workplace.run("help man").out, completion = workplace.run("help bash").out;
  for (const char* text : {".SH NAME", "isotherms", "residue", "EXIT STATUS", "missing\\-pairs"})
    EXPECT_NE(page.find(text), std::string::npos) << text;
  workplace.write("jampot.1", page);
  EXPECT_EQ(
      std::system(("cd " + workplace.folder().string() +
                   " && (! command -v man || man --warnings -l jampot.1 2>warnings >/dev/null && test ! -s "
                   "warnings) >/dev/null")
                      .c_str()),
      0);
  workplace.write("completion", completion);
  const auto completed = [&](const std::string& words, int at) {
    const std::string command =
        "cd " + workplace.folder().string() + " && bash -c 'source completion; COMP_WORDS=(" + words +
        "); COMP_CWORD=" + std::to_string(at) + "; _jampot; echo ${COMPREPLY[@]}' > found";
    EXPECT_EQ(std::system(command.c_str()), 0);
    return workplace.read("found");
  };
  EXPECT_EQ(completed("jampot resi", 1), "residue\n");
  EXPECT_EQ(completed("jampot residue --iso", 2), "--isotherms\n");
  EXPECT_EQ(completed("jampot txy --parameters compl", 3), "completion\n");
}

TEST(Commands, FindSuggestsEthylCompounds) {
  const test::Workplace workplace;
  const json found = test::json_answer(workplace, "find etyl");
  ASSERT_GE(found["matches"].size(), 5u);
  for (int k = 0; k < 5; ++k) {
    EXPECT_NE(found["matches"][k]["name"].get<std::string>().find("ethyl"), std::string::npos);
  }
  EXPECT_EQ(found["matches"][0]["name"], "ethyl acetate");
  EXPECT_EQ(found["matches"][0]["cas"], "141-78-6");
}

TEST(Commands, SaturationInBothDirections) {
  const test::Workplace workplace;
  const json at_P = test::json_answer(
      workplace, "saturation water --pressure '0.1 to 20 by 0.5 bar' --figure w.svg --csv w.csv");
  ASSERT_EQ(at_P["points"].size(), 40u);
  const double T = at_P["points"][39]["T_K"], Hvap = at_P["points"][0]["Hvap_J_mol"];
  EXPECT_NEAR(Hvap, 43e3, 1e3);
  const json at_T = test::json_answer(
      workplace, "saturation water --temperature '" + std::to_string(T) + " K' --axes linear --figure l.png");
  EXPECT_NEAR(at_T["points"][0]["P_Pa"].get<double>(), 19.6e5, 10);
  EXPECT_TRUE(workplace.has("w.svg") && workplace.has("w.csv") && workplace.has("l.png"));
}

TEST(Commands, SaturationEndsAtTheCriticalPoint) {
  const test::Workplace workplace;
  const json some = test::json_answer(workplace, "saturation propane --temperature '-60 to 130 by 10 degC'");
  EXPECT_EQ(some["points"].size(), 16u);  // to 90 degC; the critical point is at 96.7 degC
  EXPECT_EQ(some["notices"][0]["code"], "points-left-out");
  const test::Ran none =
      workplace.run("saturation propane --temperature '100 to 130 by 10 degC' --figure f.svg");
  EXPECT_EQ(none.status, 1);
  EXPECT_EQ(none.out, "");
  EXPECT_NE(none.err.find("critical point at 369.8"), std::string::npos) << none.err;
  EXPECT_FALSE(workplace.has("f.svg"));
}

TEST(Commands, SubstanceSheetAndStates) {
  const test::Workplace workplace;
  const json sheet = test::json_answer(workplace, "substance MTBE");
  EXPECT_NEAR(sheet["constants"]["Tb_K"]["value"], 328.35, 1e-9);
  EXPECT_EQ(sheet["constants"]["Tb_K"]["grade"], "B");
  EXPECT_TRUE(sheet["groups"].contains("unifac-dortmund"));
  const json states =
      test::json_answer(workplace, "substance MTBE --at '25, 55 degC' --reference-enthalpy liquid");
  ASSERT_EQ(states["properties"].size(), 2u);
  EXPECT_NEAR(states["properties"][0]["liquid"]["h_J_mol"]["value"], 0, 1e-9);
  EXPECT_GT(states["properties"][1]["vapour"]["h_J_mol"]["value"], 25000);
  const json grid =
      test::json_answer(workplace, "substance MTBE --temperature '20, 80 degC' --pressure '0.2, 1 bar'");
  EXPECT_EQ(grid["properties"].size(), 4u);
  const test::Ran text = workplace.run("substance 'propylene carbonate'");
  EXPECT_NE(text.out.find("not known"), std::string::npos);
  const test::Ran ambiguous = workplace.run("substance DME");
  EXPECT_EQ(ambiguous.status, 2);
  EXPECT_NE(ambiguous.err.find("may mean"), std::string::npos);
  EXPECT_NE(ambiguous.err.find("1,2-dimethoxyethane"), std::string::npos);
}

TEST(Commands, ASubstanceOfOnesOwnWorksEverywhere) {
  const test::Workplace workplace;
  const json defined =
      test::json_answer(workplace,
                        "define 'my ether' --groups 'CH3=4, C=1, O=1' --boiling-point '55.2 degC' "
                        "--density 735 --against MTBE --out own.substance.toml");
  for (const json& row : defined["against"]) {
    if (row["quantity"] == "Tc [K]") {
      EXPECT_NEAR(row["own"].get<double>() / row["other"].get<double>(), 1, 0.02);
    }
  }
  EXPECT_EQ(defined["given"].size(), 2u);
  EXPECT_EQ(defined["substances"][0]["formula"], "C5H12O");
  const std::string own = " --substance own.substance.toml ";
  const json boiling = test::json_answer(workplace, "saturation 'my ether'" + own + "--pressure '1 atm'");
  EXPECT_NEAR(boiling["points"][0]["T_K"], 328.35, 1e-6);
  EXPECT_EQ(boiling["notices"][0]["code"], "vapour-pressure-estimated");
  const json sheet = test::json_answer(workplace, "substance 'my ether'" + own);
  EXPECT_EQ(sheet["constants"]["Tc_K"]["source"], "estimated: Joback, Reid 1987");
  const json diagram =
      test::json_answer(workplace, "txy 'my ether' methanol" + own + "--liquid ideal --pressure '1 atm'");
  EXPECT_NEAR(diagram["curves"][0]["points"][100]["T_K"], 328.35, 1e-6);
  const json point =
      test::json_answer(workplace, "bubble methanol 'my ether'" + own +
                                       "--liquid ideal --composition 'my ether=0.4' --pressure '1 atm'");
  EXPECT_NEAR(point["points"][0]["x"][1], 0.4, 1e-12);
  workplace.write("p.pairs.toml",
                  "model = 'nrtl'\n[[pair]]\nbetween = ['my ether', 'methanol']\n"
                  "tau_12 = 0.7\ntau_21 = 0.6\nalpha = 0.3\n");
  test::json_answer(workplace,
                    "pxy 'my ether' methanol" + own + "--parameters p.pairs.toml --temperature '50 degC'");
  const test::Ran without = workplace.run("txy 'my ether' methanol --liquid ideal --pressure '1 atm'");
  EXPECT_EQ(without.status, 2);
}

TEST(Commands, SmilesShowsWhichAtomsWentWhere) {
  const test::Workplace workplace;
  const json defined = test::json_answer(
      workplace, "define own --smiles 'COC(C)(C)C' --boiling-point '55.2 degC' --out own.toml");
  EXPECT_EQ(defined["division"].size(), 6u);
  EXPECT_EQ(defined["division"][0]["atoms"][0]["position"], 1);
  EXPECT_EQ(defined["substances"][0]["formula"], "C5H12O");
  EXPECT_NE(workplace.read("own.toml").find("CH3"), std::string::npos);
  EXPECT_EQ(test::json_answer(workplace, "define own --smiles 'CC(=O)OC(C)=O'")["notices"][0]["code"],
            "division-not-unique");
}

TEST(Commands, RegressWritesWhatTxyReads) {
  const test::Workplace workplace;
  workplace.put_data();
  const json fitted =
      test::json_answer(workplace, "regress data.csv --out p.pairs.toml --figure r.svg --csv r.csv");
  const json& fit = fitted["fits"][0];
  EXPECT_EQ(fit["model"], "nrtl");
  EXPECT_EQ(fit["parameters"][0]["name"], "tau_12.inverse_T");
  EXPECT_GT(fit["parameters"][0]["std_error"], 0);
  EXPECT_TRUE(fit["parameters"][2]["held"]);
  EXPECT_EQ(fitted["residuals"].size(), 30u);
  for (const char* name : {"p.pairs.toml", "r.svg", "r.csv"}) EXPECT_TRUE(workplace.has(name)) << name;

  const json drawn = test::json_answer(workplace,
                                       "txy MTBE methanol --pressure '101.325 kPa' --parameters p.pairs.toml "
                                       "--measured data.csv --figure t.svg --csv t.csv");
  const json& curve = drawn["curves"][0];
  EXPECT_EQ(curve["points"].size(), 101u);
  EXPECT_EQ(curve["azeotropes"].size(), 1u);
  EXPECT_EQ(curve["azeotropes"][0]["extremum"], "minimum-boiling (pressure maximum)");
  EXPECT_NEAR(curve["azeotropes"][0]["x"][0], fit["azeotropes"][0]["x"][0], 1e-4);
  EXPECT_NEAR(drawn["measured"][0]["deviations"]["T_K"]["rms"], fit["rms"]["T_K"], 1e-6);
  EXPECT_TRUE(drawn["parameters"][0].contains("source"));
  EXPECT_TRUE(drawn["parameters"][0].contains("range_K"));
  EXPECT_NE(workplace.read("t.csv").find("T [degC],P [kPa],x(MTBE),y(MTBE)"), std::string::npos);
  const std::string svg = workplace.read("t.svg");
  for (const char* text :
       {"measured, liquid", "azeotrope x = ", "T-x-y of methyl tert-butyl ether and methanol"}) {
    EXPECT_NE(svg.find(text), std::string::npos) << text;
  }
}

TEST(Commands, ObjectivesAndForms) {
  const test::Workplace workplace;
  workplace.put_data();
  for (const char* objective : {"maximum-likelihood", "bubble-pressure", "bubble-temperature"}) {
    const json fit = test::json_answer(
        workplace, std::string("regress data.csv --release alpha --objective ") + objective)["fits"][0];
    EXPECT_EQ(fit["objective_kind"], objective);
    EXPECT_NEAR(fit["azeotropes"][0]["x"][0], 0.678, 0.005);
    EXPECT_EQ(fit["correlation"].size(), 3u);
  }
  const json constant =
      test::json_answer(workplace, "regress data.csv --form constant --hold alpha=0.47")["fits"][0];
  EXPECT_EQ(constant["parameters"][0]["name"], "tau_12.constant");
  EXPECT_EQ(constant["parameters"][2]["value"], 0.47);
}

TEST(Commands, DiagramsAtSeveralConditions) {
  const test::Workplace workplace;
  const json isobars =
      test::json_answer(workplace, "txy ethanol toluene --liquid ideal --pressure '0.5 to 2 by 0.5 bar'");
  ASSERT_EQ(isobars["curves"].size(), 4u);
  EXPECT_NEAR(isobars["curves"][3]["P_Pa"], 2e5, 1e-6);
  const json isotherms = test::json_answer(
      workplace, "pxy ethanol toluene --liquid ideal --temperature '60, 70 degC' --points 11");
  ASSERT_EQ(isotherms["curves"].size(), 2u);
  EXPECT_EQ(isotherms["curves"][0]["points"].size(), 11u);
  EXPECT_NEAR(isotherms["curves"][1]["T_K"], 343.15, 1e-9);
  const json turned =
      test::json_answer(workplace, "xy ethanol toluene --first toluene --liquid ideal --pressure '1 atm'");
  EXPECT_EQ(turned["substances"][0]["name"], "toluene");
}

TEST(Commands, PointsInMoleAndMass) {
  const test::Workplace workplace;
  const std::string mixture = "ethanol acetone toluene --liquid ideal ";
  const json mole = test::json_answer(
      workplace, "bubble " + mixture + "--composition 'ethanol=0.3, acetone=0.3' --pressure '1 bar'");
  const json& point = mole["points"][0];
  double sum = 0;
  for (const double y : point["y"]) sum += y;
  EXPECT_NEAR(sum, 1, 1e-12);
  // the same liquid given by mass
  const double w1 = point["w_liquid"][0], w2 = point["w_liquid"][1];
  const json mass = test::json_answer(
      workplace, "bubble " + mixture + "--basis mass --composition 'ethanol=" + std::to_string(w1) +
                     ", acetone=" + std::to_string(w2) + "' --pressure '1 bar'");
  EXPECT_NEAR(mass["points"][0]["T_K"], point["T_K"], 1e-4);
  const json dew = test::json_answer(
      workplace, "dew " + mixture + "--composition 'ethanol=0.3, acetone=0.3' --temperature '70 degC'");
  EXPECT_LT(dew["points"][0]["P_Pa"], 1e5);
}

TEST(Commands, UnitsAndBasisOfTheAnswer) {
  const test::Workplace workplace;
  const test::Ran ran =
      workplace.run("txy ethanol toluene --liquid ideal --pressure '1 atm' --units 'psi, degF' --basis mass");
  EXPECT_EQ(ran.status, 0);
  EXPECT_NE(ran.out.find("T [degF]  P [psi]  w(ethanol) liquid"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("no azeotrope"), std::string::npos);
}

TEST(Commands, WorkbooksHoldTablesAndSourcesAndAreTheSameEveryTime) {
  const test::Workplace workplace;
  const std::string request = "txy ethanol toluene --liquid ideal --pressure '1, 2 bar' --xlsx ";
  EXPECT_EQ(workplace.run(request + "a.xlsx").status, 0);
  EXPECT_EQ(workplace.run(request + "b.xlsx").status, 0);
  const std::string bytes = workplace.read("a.xlsx");
  EXPECT_TRUE(bytes.starts_with("PK"));
  EXPECT_TRUE(bytes == workplace.read("b.xlsx"));
  const std::string unzip =
      "cd '" + workplace.folder().string() + "' && python3 -m zipfile -e a.xlsx x > unzip.log 2>&1";
  if (std::system(unzip.c_str()) == 0) {  // python is not part of the set-up; where it is there, look inside
    const std::string book = workplace.read("x/xl/workbook.xml"),
                      words = workplace.read("x/xl/sharedStrings.xml");
    EXPECT_NE(book.find("Sources and notices"), std::string::npos);
    EXPECT_NE(book.find("ethanol and toluene at 1"), std::string::npos);
    EXPECT_NE(words.find("T [degC]"), std::string::npos);
    EXPECT_NE(words.find("vapour pressure"), std::string::npos);
  }
  const test::Ran ran = workplace.run(request + "no/such/a.xlsx");
  EXPECT_EQ(ran.status, 2);
  EXPECT_NE(ran.err.find("folder exist"), std::string::npos);
}

TEST(Commands, NoticesGoToStandardErrorAndIntoJson) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run(
      "bubble 1-hexene n-heptane --liquid ideal --composition 1-hexene=0.5 --pressure '10 bar' --json");
  EXPECT_EQ(ran.status, 0);
  EXPECT_NE(ran.err.find("notice (vapour-pressure-range)"), std::string::npos);
  EXPECT_EQ(json::parse(ran.out)["notices"][0]["code"], "vapour-pressure-range");
}

TEST(Commands, ALiquidThatSplitsIsDrawnWithItsThreePhaseLine) {
  const test::Workplace workplace;
  workplace.write("bw.pairs.toml",
                  "model = 'nrtl'\nsource = 'made up'\n[[pair]]\nbetween = ['1-butanol', 'water']\n"
                  "tau_12 = { inverse_T = 250 }\ntau_21 = { inverse_T = 1300 }\nalpha = 0.4\n");
  const json drawn = test::json_answer(
      workplace, "txy 1-butanol water --parameters bw.pairs.toml --pressure '1 atm' --figure b.svg");
  const json& curve = drawn["curves"][0];
  EXPECT_EQ(curve["azeotropes"][0]["kind"], "heterogeneous");
  EXPECT_EQ(curve["three_phase"].size(), 1u);
  const json warned =
      test::json_answer(workplace,
                        "bubble 1-butanol water --parameters bw.pairs.toml --composition 1-butanol=0.2 "
                        "--pressure '1 atm'");
  EXPECT_EQ(warned["notices"][0]["code"], "liquid-splits");
}

TEST(Commands, PropertiesOverARange) {
  const test::Workplace workplace;
  const json range = test::json_answer(
      workplace, "substance water --temperature '20 to 100 by 20 degC' --figure w.svg --csv w.csv");
  ASSERT_EQ(range["properties"].size(), 5u);
  EXPECT_TRUE(workplace.has("w.svg"));
  EXPECT_NE(workplace.read("w.csv").find("viscosity [mPa s]"), std::string::npos);
  // Beyond the critical point there is nothing at saturation: left out, and said.
  const json cut = test::json_answer(workplace, "substance propane --temperature '80 to 120 by 10 degC'");
  EXPECT_EQ(cut["properties"].size(), 2u);
  EXPECT_EQ(cut["notices"][0]["code"], "points-left-out");
  EXPECT_EQ(workplace.run("substance propane --temperature '100 to 120 by 10 degC'").status, 1);
  // Two ranges: all combinations, or in step.
  const std::string two = "substance ethanol --temperature '100 to 120 by 10 degC' --pressure '1, 2, 3 bar'";
  EXPECT_EQ(test::json_answer(workplace, two)["properties"].size(), 9u);
  const json together = test::json_answer(workplace, two + " --together");
  ASSERT_EQ(together["properties"].size(), 3u);
  EXPECT_NEAR(together["properties"][2]["P_Pa"].get<double>(), 3e5, 1e-6);
  EXPECT_EQ(
      workplace
          .run("substance ethanol --temperature '100 to 120 by 10 degC' --pressure '1, 2 bar' --together")
          .status,
      2);
  EXPECT_EQ(workplace.run("substance ethanol --figure e.svg").status, 2);
}

TEST(Commands, SubstanceShowsTheParametersOfOtherModels) {
  const test::Workplace workplace;
  const json methanol = test::json_answer(workplace, "substance methanol");
  EXPECT_EQ(methanol["mosced"]["alpha"], 17.43);
  EXPECT_EQ(methanol["pc_saft"]["association_scheme"], "2B");
  EXPECT_EQ(methanol["groups"]["unifac"], "CH3OH:1");
}

TEST(Commands, DefineFromPointsAndUseEverywhere) {
  const test::Workplace workplace;
  workplace.write("points.csv", "T [degC], P [kPa]\n40, 19.4\n60, 41\n80, 79\n");
  const json own = test::json_answer(
      workplace,
      "define own --smiles 'CCOCC(C)C' --vapour-pressure-points points.csv --specific-gravity "
      "'0.751 at 20/4 degC' --against 'diisopropyl ether' --figure o.svg --out own.substance.toml");
  EXPECT_EQ(own["vapour_pressure_points"].size(), 3u);
  EXPECT_FALSE(own["unifac_division"].empty());
  EXPECT_TRUE(workplace.has("o.svg"));
  const json listed = test::json_answer(
      workplace,
      "define own --smiles 'CCOCC(C)C' --vapour-pressure-points '40 degC=19.4 kPa, 60 degC = 41 "
      "kPa, 80 degC = 79 kPa'");
  EXPECT_EQ(own["vapour_pressure_points"], listed["vapour_pressure_points"]);
  const json boils =
      test::json_answer(workplace, "saturation own --pressure '41 kPa' --substance own.substance.toml");
  EXPECT_NEAR(boils["points"][0]["T_K"].get<double>(), 333.15, 0.2);
  test::json_answer(workplace,
                    "txy own methanol --substance own.substance.toml --liquid ideal --pressure '1 atm'");
  test::json_answer(
      workplace, "substance own --substance own.substance.toml --at '25 degC' --reference-enthalpy elements");
  EXPECT_EQ(test::json_answer(workplace, "find own --substance own.substance.toml")["matches"][0]["name"],
            "own");
  test::json_answer(workplace, "define third --smiles CCOCC --against own --substance own.substance.toml");
  workplace.write("bad.csv", "T [degC], P\n40, 19.4\n");
  for (const char* bad :
       {"--vapour-pressure-points bad.csv", "--vapour-pressure-points none.csv",
        "--vapour-pressure-points '40 degC'", "--vapour-pressure-points '40 degC = -3 kPa'",
        "--specific-gravity 0.75", "--density 0.75", "--vapour-pressure 'ln P = 3'", "--unifac-groups CH9=1",
        "--uniquac-r -1", "--density 750 --specific-gravity '0.75 at 20/4 degC'"}) {
    const test::Ran ran =
        workplace.run(std::string("define own2 --molar-mass 102 --boiling-point '80 degC' ") + bad);
    EXPECT_EQ(ran.status, 2) << bad << ran.out << ran.err;
    EXPECT_FALSE(ran.err.empty());
  }
}

TEST(Commands, PairsSaysWhatWouldBeUsedAndWhatIsMissing) {
  const test::Workplace workplace;
  const json look = test::json_answer(workplace, "pairs acetone methanol toluene --liquid wilson");
  ASSERT_EQ(look["pairs"].size(), 3u);
  EXPECT_FALSE(look["pairs"][0]["missing"]);
  EXPECT_EQ(look["pairs"][0]["grade"], "C");
  EXPECT_GE(look["pairs"][0]["alternatives"].size(), 1u);
  EXPECT_TRUE(look["pairs"][1]["missing"]);  // acetone and toluene
  EXPECT_TRUE(look["pairs"][1]["estimate"]["estimated"]);
  EXPECT_EQ(look["predictions"].size(), 4u);
  // What handbooks say, and the pairs fitted to it, which the commands take where nothing is published.
  const json known = test::json_answer(workplace, "pairs 2-methoxyethanol toluene --liquid nrtl");
  ASSERT_GE(known["facts"].size(), 2u);
  EXPECT_EQ(known["facts"][0]["kind"], "azeotrope");
  EXPECT_FALSE(known["pairs"][0]["missing"]);
  const std::string source = known["pairs"][0]["source"];
  EXPECT_TRUE(source.starts_with("fitted to handbook facts")) << source;
  const json drawn = test::json_answer(workplace, "txy 2-methoxyethanol toluene --pressure '1 atm'");
  EXPECT_EQ(drawn["parameters"][0]["values"], known["pairs"][0]["values"]);
  // How far the table of modified UNIFAC goes.
  EXPECT_NE(known["predictions"][2]["text"].get<std::string>().find("46 of 1,035 pairs of groups"),
            std::string::npos);
  // A set from print, converted and written as a file that is used at once.
  const json given = test::json_answer(
      workplace,
      "pairs acetone water --liquid wilson --given 'lambda_12=291.27 cal/mol, lambda_21=1448.01 "
      "cal/mol' --molar-volumes '74.05, 18.07' --out given.pairs.toml");
  EXPECT_NEAR(given["pairs"][0]["values"]["lambda_12"]["inverse_T"].get<double>(), 146.57, 0.01);
  const json own =
      test::json_answer(workplace, "txy acetone water --parameters given.pairs.toml --pressure '1 atm'");
  const json built_in = test::json_answer(workplace, "txy acetone water --liquid wilson --pressure '1 atm'");
  EXPECT_NEAR(own["curves"][0]["points"][50]["T_K"].get<double>(),
              built_in["curves"][0]["points"][50]["T_K"].get<double>(), 1e-6);
  for (const char* bad : {"--given 'lambda_12=1 cal/mol'", "--given 'lambda_12=1 cal/mol, lambda_21=2'",
                          "--given 'tau_12=1 K, tau_21=1 K'", "--show-in kcal",
                          "--given 'lambda_12=1 K, lambda_21=1 K' --molar-volumes 3"}) {
    EXPECT_EQ(workplace.run(std::string("pairs acetone water --liquid wilson ") + bad).status, 2) << bad;
  }
  EXPECT_EQ(workplace.run("pairs acetone water --liquid unifac").status, 2);
}

TEST(Commands, GammaSpellsOutSoluteAndSolvent) {
  const test::Workplace workplace;
  const json line = test::json_answer(
      workplace, "gamma ethanol water --liquid unifac --temperature '60 degC' --figure g.svg");
  ASSERT_EQ(line["points"].size(), 51u);
  EXPECT_NEAR(line["points"][50]["gamma"][0].get<double>(), 1, 1e-12);
  EXPECT_TRUE(workplace.has("g.svg"));
  const json limits = test::json_answer(
      workplace,
      "gamma ethanol water --liquid unifac --compare mosced --limiting --temperature '30, 60 degC'");
  ASSERT_EQ(limits["limiting"].size(), 8u);
  EXPECT_EQ(limits["limiting"][0]["solute"], "ethanol");
  EXPECT_EQ(limits["limiting"][0]["solvent"], "water");
  EXPECT_NEAR(limits["limiting"][2]["gamma"].get<double>(), line["points"][0]["gamma"][0].get<double>(),
              1e-9);
  EXPECT_EQ(limits["limiting"][1]["model"], "mosced");
  const json mosced = test::json_answer(
      workplace, "gamma ethanol toluene --liquid mosced --limiting --temperature '60 degC'");
  EXPECT_EQ(mosced["limiting"].size(), 2u);
  const json three =
      test::json_answer(workplace,
                        "gamma ethanol acetone water --liquid unifac --temperature '60 degC' --composition "
                        "'ethanol=0.2, acetone=0.3' --working");
  EXPECT_GT(three["working"].size(), 20u);
  EXPECT_EQ(workplace.run("gamma ethanol water --liquid mosced --temperature '60 degC'").status, 2);
  EXPECT_EQ(workplace.run("gamma ethanol acetone water --liquid unifac --temperature '60 degC'").status, 2);
  EXPECT_EQ(workplace.run("gamma ethanol water --liquid unifac").status, 2);
  EXPECT_EQ(workplace.run("gamma ethanol sulfolane --liquid unifac --temperature '60 degC'").status, 1);
}

TEST(Commands, EstimateWritesAMarkedFile) {
  const test::Workplace workplace;
  const json made = test::json_answer(
      workplace, "estimate ethanol toluene --temperature '60 to 110 degC' --out e.pairs.toml");
  EXPECT_TRUE(made["parameters"][0]["estimated"]);
  EXPECT_EQ(made["notices"][0]["code"], "estimated-pair");
  EXPECT_NE(workplace.read("e.pairs.toml").find("estimated = true"), std::string::npos);
  test::json_answer(workplace, "txy ethanol toluene --parameters e.pairs.toml --pressure '1 atm'");
  const json exact =
      test::json_answer(workplace,
                        "estimate ethanol water --limits 'ethanol in water = 4.5, water in ethanol = 2.6' "
                        "--temperature '60 degC' --out l.pairs.toml");
  const json check = test::json_answer(
      workplace, "gamma ethanol water --parameters l.pairs.toml --limiting --temperature '60 degC'");
  EXPECT_NEAR(check["limiting"][0]["gamma"].get<double>(), 4.5, 1e-5);
  EXPECT_EQ(workplace.run("estimate ethanol water --limits 'ethanol in water = 4.5' --temperature '60 degC'")
                .status,
            2);
  EXPECT_EQ(workplace
                .run("estimate ethanol water --limits 'ethanol in toluene = 4.5, water in ethanol = 2' "
                     "--temperature '60 degC'")
                .status,
            2);
  EXPECT_EQ(workplace.run("estimate ethanol sulfolane").status, 1);
}

TEST(Commands, ModelsAreComparedSideBySide) {
  const test::Workplace workplace;
  workplace.put_data();
  const json compared =
      test::json_answer(workplace,
                        "txy MTBE methanol --liquid unifac --compare 'ideal' --pressure '1 atm' --measured "
                        "data.csv --figure c.svg --csv c.csv");
  ASSERT_EQ(compared["curves"].size(), 2u);
  EXPECT_EQ(compared["curves"][1]["liquid"], "ideal");
  EXPECT_EQ(compared["measured"].size(), 2u);
  EXPECT_GT(compared["measured"][1]["deviations"]["T_K"]["rms"].get<double>(),
            compared["measured"][0]["deviations"]["T_K"]["rms"].get<double>());
  EXPECT_NE(workplace.read("c.csv").find("Models side by side"), std::string::npos);
  EXPECT_NE(workplace.read("c.svg").find("unifac"), std::string::npos);
  bool warned = false;
  for (const json& notice : compared["notices"]) warned = warned || notice["code"] == "not-ideal";
  EXPECT_TRUE(warned);
  EXPECT_EQ(workplace.run("txy MTBE methanol --liquid unifac --compare idael --pressure '1 atm'").status, 2);
}

TEST(Commands, APairThatIsMissingIsRefusedUnlessAskedFor) {
  const test::Workplace workplace;
  EXPECT_EQ(workplace.run("txy acetone n-decane --liquid nrtl --pressure '1 atm'").status, 1);
  const json estimated = test::json_answer(
      workplace, "txy acetone n-decane --liquid nrtl --pressure '1 atm' --missing-pairs estimate");
  EXPECT_EQ(estimated["notices"][0]["code"], "estimated-pair");
  EXPECT_TRUE(estimated["parameters"][0]["estimated"]);
  test::json_answer(workplace, "txy acetone n-decane --liquid nrtl --pressure '1 atm' --missing-pairs ideal");
  EXPECT_EQ(
      workplace.run("txy acetone n-decane --liquid nrtl --pressure '1 atm' --missing-pairs guess").status, 2);
}

TEST(Commands, AnyTwoColumnsAndAnyWindow) {
  const test::Workplace workplace;
  EXPECT_EQ(workplace.run("txy ethanol water --pressure '1 atm' --overview --figure o.svg").status, 0);
  EXPECT_EQ(workplace
                .run("txy ethanol water --pressure '1 atm' --plot 'relative volatility against x(ethanol)' "
                     "--figure p.svg")
                .status,
            0);
  EXPECT_NE(workplace.read("p.svg").find("relative volatility"), std::string::npos);
  EXPECT_EQ(
      workplace.run("txy ethanol water --pressure '1 atm' --window 'x=0.8 to 1, y=78 to 79' --figure w.svg")
          .status,
      0);
  for (const char* bad :
       {"--plot 'T against z' --figure p.svg", "--plot T --figure p.svg",
        "--window 'x=1 to 0' --figure p.svg", "--window 'z=0 to 1' --figure p.svg", "--window 'x=0 to 1'"}) {
    EXPECT_EQ(workplace.run(std::string("txy ethanol water --pressure '1 atm' ") + bad).status, 2) << bad;
  }
}

TEST(Commands, BubblePointsFromAFileInATriangle) {
  const test::Workplace workplace;
  workplace.write("c.csv", "x1,x2\n0.1,0.1\n0.1,0.5\n0.5,0.1\n");
  const json points = test::json_answer(
      workplace,
      "bubble acetone methanol water --composition c.csv --pressure '1 atm' --compare unifac "
      "--figure t.svg --working");
  EXPECT_EQ(points["points"].size(), 6u);
  EXPECT_TRUE(workplace.has("t.svg"));
  const json slice = test::json_answer(
      workplace,
      "bubble acetone methanol water --slice water=0.2 --points 5 --pressure '1 atm' --figure s.svg");
  ASSERT_EQ(slice["points"].size(), 5u);
  EXPECT_NEAR(slice["points"][2]["x"][2].get<double>(), 0.2, 1e-12);
  // Made-up vapours laid over: the deviations are those that were put in.
  std::string text = "# substances: acetone, methanol, water\nT [K], P [Pa], x1, x2, x3, y1, y2, y3\n";
  for (const json& point : points["points"]) {
    if (point["liquid"] == "unifac") continue;
    text += fmt::format("{}, {}", point["T_K"].get<double>() + 0.5, point["P_Pa"].get<double>());
    for (const char* phase : {"x", "y"}) {
      for (const json& value : point[phase]) text += fmt::format(", {:.10f}", value.get<double>());
    }
    text += "\n";
  }
  workplace.write("m.csv", text);
  const json laid =
      test::json_answer(workplace, "bubble acetone methanol water --measured m.csv --figure m.svg");
  ASSERT_EQ(laid["points"].size(), 3u);
  EXPECT_NEAR(laid["measured"][0]["deviations"]["T_K"]["mean"].get<double>(), -0.5, 1e-6);
  EXPECT_NEAR(laid["measured"][0]["deviations"]["y"]["rms"].get<double>(), 0, 1e-6);
  for (const char* bad : {"x1\n0.1\n", "x1,x2\n0.8,0.5\n", "x1,x2\n-1,0.5\n", "x1,x2\na,0.5\n"}) {
    workplace.write("bad.csv", bad);
    EXPECT_EQ(workplace.run("bubble acetone methanol water --composition bad.csv --pressure '1 atm'").status,
              2)
        << bad;
  }
  EXPECT_EQ(workplace.run("bubble acetone methanol water --slice gold=0.2 --pressure '1 atm'").status, 2);
}

TEST(Commands, OwnMoscedParameters) {
  const test::Workplace workplace;
  // Those of 1-butanol under another name must behave as 1-butanol.
  test::json_answer(
      workplace,
      "define own --molar-mass 74.12 --mosced 'v=92, lambda=15.82, tau=1.86, q=1, alpha=8.44, beta=11.01' "
      "--out own.substance.toml");
  const json own = test::json_answer(
      workplace,
      "gamma own toluene --substance own.substance.toml --liquid mosced --limiting --temperature '60 degC'");
  const json known = test::json_answer(
      workplace, "gamma 1-butanol toluene --liquid mosced --limiting --temperature '60 degC'");
  EXPECT_NEAR(own["limiting"][0]["gamma"].get<double>(), known["limiting"][0]["gamma"].get<double>(), 1e-9);
  EXPECT_EQ(workplace.run("define own --molar-mass 74 --mosced 'v=92'").status, 2);
  EXPECT_EQ(
      workplace.run("define own --molar-mass 74 --mosced 'v=-92, lambda=1, tau=1, q=1, alpha=1, beta=1'")
          .status,
      2);
}

// Long work shows how far it is on a terminal, and only there.
TEST(Commands, ProgressOnATerminal) {
  test::Workplace place;
  place.put_data();
  const test::Ran plain = place.run("regress data.csv --starts 2");
  EXPECT_EQ(plain.err.find("descents done"), std::string::npos);
  const std::string terminal =
      "cd '" + place.folder().string() +
      "' && script -qec \"'" JAMPOT_TOOL
      "' regress data.csv --model wilson,nrtl,uniquac --starts 1200\" log >/dev/null";
  ASSERT_EQ(std::system(terminal.c_str()), 0);
  const std::string log = place.read("log");
  EXPECT_NE(log.find("fitting, descents done: "), std::string::npos);
  EXPECT_NE(log.find("\r\033[K"), std::string::npos);  // and it is taken away again
}

TEST(Commands, AFitAsAPage) {
  const test::Workplace workplace;
  workplace.put_data();
  const json ranked = test::json_answer(
      workplace, "regress data.csv --model wilson,nrtl,uniquac --report fit.html --out fit.pairs.toml");
  ASSERT_EQ(ranked["fits"].size(), 3u);
  EXPECT_LE(ranked["fits"][0]["aicc"].get<double>(), ranked["fits"][1]["aicc"].get<double>());
  const std::string page = workplace.read("fit.html");
  for (const char* part : {"<svg", "Consistency of the data", "Other models", "95 % interval", "Residuals"}) {
    EXPECT_NE(page.find(part), std::string::npos) << part;
  }
  EXPECT_EQ(page.find(" src="), std::string::npos);  // nothing is fetched
  EXPECT_EQ(workplace.run("regress data.csv --report fit.md").status, 0);
  EXPECT_TRUE(workplace.has("fit-1.svg"));
  EXPECT_NE(workplace.read("fit.md").find("](fit-1.svg)"), std::string::npos);
  EXPECT_EQ(workplace.run("regress data.csv --report fit.docx").status, 2);
  const json band = test::json_answer(
      workplace,
      "txy MTBE methanol --parameters fit.pairs.toml --pressure '1 atm' --uncertainty --figure b.svg");
  EXPECT_EQ(band["curves"][0]["uncertainty"].size(), band["curves"][0]["points"].size());
  EXPECT_GT(band["curves"][0]["azeotropes"][0]["u_x"].get<double>(), 0);
  EXPECT_EQ(workplace.run("txy acetone methanol --liquid wilson --pressure '1 atm' --uncertainty").status,
            1);  // a published set has no covariance
}

TEST(Commands, ConsistencyOfTheDemoData) {
  const test::Workplace workplace;
  workplace.put_data();
  const json tests = test::json_answer(workplace, "consistency data.csv --figure c.svg");
  ASSERT_EQ(tests["tests"].size(), 6u);
  EXPECT_GT(tests["quality"][0]["value"], 0.9);
  EXPECT_EQ(workplace.run("consistency data.csv --vapour virial").status, 0);
  for (const json& test : tests["tests"]) {
    EXPECT_NE(test["verdict"], "failed") << test["name"];
    EXPECT_FALSE(test["meaning"].get<std::string>().empty());
  }
  EXPECT_EQ(workplace.run("regress data.csv --exclude '12:probe fell out'").status, 0);
  for (const char* bad : {"--exclude 12", "--exclude '9999:no such line'",
                          "--model wilson,nrtl --hold alpha=0.3", "--model wilson,nope", "--folds 1"}) {
    EXPECT_EQ(workplace.run(std::string("regress data.csv ") + bad).status, 2) << bad;
  }
}

TEST(Commands, MoscedParametersFromLimits) {
  const test::Workplace workplace;
  workplace.write("limits.csv",
                  "solute, solvent, T [degC], gamma\nown, n-hexane, 50, 20\nown, toluene, 50, 6\nown, "
                  "acetone, 50, 2.2\nown, methanol, 50, 1.2\n"
                  "acetone, own, 50, 2.5\ntoluene, own, 50, 3.2\nn-hexane, own, 50, 4.4\n");
  const json found = test::json_answer(workplace, "estimate own --mosced-from limits.csv --molar-volume 92");
  EXPECT_EQ(found["fits"][0]["parameters"].size(), 6u);
  EXPECT_LT(found["fits"][0]["rms_ln_gamma"].get<double>(), 0.5);
  EXPECT_EQ(workplace.run("estimate own --mosced-from limits.csv").status, 2);
  EXPECT_EQ(workplace.run("estimate other --mosced-from limits.csv --molar-volume 92").status, 2);
}

}  // namespace
}  // namespace jampot
