// Requests that ask for too much, and figures of what there is nothing to draw: one message, soon.
#include <sys/stat.h>

#include <chrono>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

struct Timed : Ran {
  double seconds = 0;
};

Timed timed(const Workplace& workplace, const std::string& arguments) {
  const auto begin = std::chrono::steady_clock::now();
  Timed ran{workplace.run(arguments, "timeout 60"), 0};
  ran.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
  return ran;
}

TEST(Figures, OfWhatThereIsNothingToDrawSayWhatTheyNeed) {
  const Workplace workplace;
  expect_refused(
      workplace,
      {{"azeotropes ethanol water --liquid unifac --pressure '1 atm' --figure f.svg",
        "give several pressures"},
       {"azeotropes ethanol benzene water cyclohexane --liquid unifac --pressure '1 atm' --figure f.svg",
        "give several pressures"},
       {"azeotropes benzene toluene --liquid unifac --pressure '1, 2 atm' --figure f.svg",
        "no azeotrope to draw"}});
  EXPECT_FALSE(workplace.has("f.svg"));
  EXPECT_EQ(
      workplace.run("azeotropes ethanol benzene water --liquid unifac --pressure '1 atm' --figure t.svg")
          .status,
      0);
  EXPECT_NE(workplace.read("t.svg").find("Azeotropes of ethanol, benzene and water"), std::string::npos);
  EXPECT_EQ(
      workplace
          .run(
              "flash ethanol benzene water --liquid unifac --pressure '1 atm' --temperature '66 degC' --feed "
              "'ethanol=0.3, benzene=0.4, water=0.3' --basis mass --figure p.svg")
          .status,
      0);
  EXPECT_NE(workplace.read("p.svg").find("of the whole"), std::string::npos);
}

// As a step of a job such a figure is a fault of that step alone.
TEST(Figures, AsAStepOfAJobTheOthersGoOn) {
  const Workplace workplace;
  workplace.write("a.job.toml",
                  "[mixture]\nsubstances = ['ethanol', 'water']\nliquid = 'unifac'\n"
                  "[[step]]\ncommand = 'azeotropes'\npressure = '1 atm'\nfigure = 'a.svg'\n"
                  "[[step]]\ncommand = 'txy'\npressure = '1 atm'\npoints = 11\ncsv = 't.csv'\n");
  const Ran ran = workplace.run("job a.job.toml");
  EXPECT_EQ(ran.status, 2);
  EXPECT_TRUE(workplace.has("t.csv"));
  EXPECT_NE(ran.err.find("step 'azeotropes': --figure"), std::string::npos) << ran.err;
}

TEST(Limits, SizesAndDepthsOfFiles) {
  const Workplace workplace;
  std::string keys = "a";
  for (int k = 0; k < 40000; ++k) keys += ".a";
  workplace.write("deep.pairs.toml", keys + " = 1\n");
  workplace.write("header.pairs.toml", "[" + keys + "]\n");
  workplace.write("quoted.job.toml",
                  "title = '" + std::string(60, '.') + "'\n[[step]]\ncommand = 'find'\nabout = 'x'\n");
  std::filesystem::resize_file(
      [&] {
        workplace.write("large.csv", "");
        return workplace / "large.csv";
      }(),
      std::size_t{65} << 20);
  expect_refused(workplace,
                 {{"txy MTBE methanol --pressure '1 atm' --parameters deep.pairs.toml", "at most 30 parts"},
                  {"txy MTBE methanol --pressure '1 atm' --parameters header.pairs.toml", "at most 30 parts"},
                  {"data large.csv", "more than 64 MB"},
                  {"data /dev/zero", "more than 64 MB"}});
  EXPECT_EQ(workplace.run("job --check quoted.job.toml").status, 0);
}

TEST(Limits, APipeThatSaysNothingIsGivenUp) {
  const Workplace workplace;
  ASSERT_EQ(mkfifo((workplace / "pipe").c_str(), 0600), 0);
  const std::string holds =
      "cd '" + workplace.folder().string() + "' && (sleep 14 > pipe &) ; '" JAMPOT_TOOL "' data pipe 2> err";
  const int status = std::system(holds.c_str());
  EXPECT_EQ(WEXITSTATUS(status), 2);
  EXPECT_NE(workplace.read("err").find("nothing came for 10 seconds"), std::string::npos);
  workplace.put_data();
  const std::string takes = "cd '" + workplace.folder().string() +
                            "' && (cat data.csv > pipe &) ; sleep 0.2; '" JAMPOT_TOOL "' data pipe > out";
  EXPECT_EQ(WEXITSTATUS(std::system(takes.c_str())), 0);
}

TEST(Limits, LongTextsAreRefusedAtOnceAndNotRepeated) {
  const Workplace workplace;
  for (const char* before : {"find ", "txy ethanol ", "gamma ethanol water --temperature ",
                             "bubble ethanol water --liquid ideal --pressure '1 atm' --composition ",
                             "define own --smiles ", "split water ethanol --temperature '25 degC' --feed "}) {
    const Timed ran = timed(workplace, before + std::string(100000, 'a'));
    EXPECT_EQ(ran.status, 2) << before;
    EXPECT_LT(ran.err.size(), 500u) << ran.err;
    EXPECT_LT(ran.seconds, 2) << before;
    const Timed shorter = timed(workplace, before + std::string(3900, 'a'));
    EXPECT_NE(shorter.status, 0) << before;
    EXPECT_LT(shorter.err.size(), 4000u);
    EXPECT_LT(shorter.seconds, 2) << before;
  }
}

TEST(Limits, ManyStatesThreadsAndSubstances) {
  const Workplace workplace;
  std::string all;
  const nlohmann::json found = json_answer(workplace, "find e");
  for (const nlohmann::json& match : found["matches"]) all += "'" + match["name"].get<std::string>() + "' ";
  for (const std::string& arguments :
       {std::string("saturation water --temperature '1 to 300 in 20000 degC' --pressure '1 bar'"),
        std::string("flash ethanol water --liquid unifac --feed 'ethanol=0.5, water=0.5' --temperature '60 "
                    "to 90 in 9000 "
                    "degC' --pressure '1 to 2 in 9000 bar'"),
        std::string("job --threads 100000 x.job.toml"), "pairs " + all}) {
    const Timed ran = timed(workplace, arguments);
    EXPECT_NE(ran.status, 0) << arguments;
    EXPECT_LE(ran.status, 2) << arguments;
    EXPECT_LT(ran.seconds, 5) << arguments;
  }
}

TEST(Limits, SearchesEnd) {
  const Workplace workplace;
  const Timed five =
      timed(workplace,
            "azeotropes water 1-butanol toluene n-hexane acetonitrile --liquid unifac --pressure '10 bar'");
  EXPECT_EQ(five.status, 0) << five.err;
  EXPECT_LT(five.seconds, 20);
  const Timed map =
      timed(workplace,
            "residue acetone 'diethyl ether' methanol --liquid unifac --vapour pc-saft --pressure '1 atm'");
  EXPECT_EQ(map.status, 0) << map.err;
  EXPECT_LT(map.seconds, 20);
}

TEST(Limits, SubstancesThatAreAlikeAreNamed) {
  const Workplace workplace;
  for (const char* name : {"one", "two", "three"}) {
    ASSERT_EQ(
        workplace
            .run(std::string("define ") + name +
                 " --groups 'CH3=2, CH2=4' --unifac-groups 'CH3=2, CH2=4' --boiling-point '69 degC' --out " +
                 name + ".substance.toml")
            .status,
        0);
  }
  const std::string own =
      " --substance one.substance.toml --substance two.substance.toml --substance "
      "three.substance.toml --liquid unifac --pressure '1 atm'";
  for (const char* command :
       {"azeotropes one two three", "residue one two three", "azeotropes one two ethanol"}) {
    const Timed ran = timed(workplace, command + own);
    EXPECT_EQ(ran.status, 1) << command << ran.out;
    EXPECT_NE(ran.err.find("one and two behave identically"), std::string::npos) << ran.err;
  }
}

// Nothing is taken for non-volatile that is not said to be.
TEST(VapourPressures, AreEstimatedOrAskedFor) {
  const Workplace workplace;
  for (const char* name :
       {"cyclopentyl methyl ether", "diacetone alcohol", "diethylene glycol dimethyl ether",
        "isopentyl acetate", "propylene carbonate", "sulfolane"}) {
    const nlohmann::json answer =
        json_answer(workplace, std::string("bubble '") + name +
                                   "' toluene --liquid ideal --pressure '1 atm' --composition "
                                   "'toluene=0.5'");
    EXPECT_GT(answer["points"][0]["y"][0].get<double>(), 1e-4) << name;
    EXPECT_NE(answer["notices"].dump().find("vapour-pressure-estimated"), std::string::npos) << name;
  }
  ASSERT_EQ(workplace.run("define sugar --molar-mass 342.3 --out s.substance.toml").status, 0);
  const std::string bubble =
      "bubble water sugar --substance s.substance.toml --liquid ideal --pressure '1 atm' "
      "--composition 'sugar=0.05'";
  const Ran refused = workplace.run(bubble);
  EXPECT_EQ(refused.status, 1);
  EXPECT_NE(refused.err.find("sugar has no vapour pressure"), std::string::npos) << refused.err;
  const nlohmann::json said = json_answer(workplace, bubble + " --non-volatile sugar");
  EXPECT_EQ(said["points"][0]["y"][1], 0);
  ASSERT_EQ(workplace.run("define sugar --molar-mass 342.3 --non-volatile --out s.substance.toml").status, 0);
  EXPECT_EQ(json_answer(workplace, bubble)["points"][0]["y"][1], 0);
}

// By one equation of state two liquids boil together where a flash finds them.
TEST(OneEquation, TwoLiquidsBoilTogether) {
  const Workplace workplace;
  const std::string mixture = " water n-octane --liquid eos --vapour pr --pressure '932542 Pa' ";
  const nlohmann::json point =
      json_answer(workplace, "bubble" + mixture + "--composition water=0.5")["points"][0];
  const double T_K = point["T_K"];
  const auto phases_at = [&](double T) {
    const nlohmann::json flash =
        json_answer(workplace, "flash" + mixture + "--feed 'water=0.5, n-octane=0.5' --temperature '" +
                                   std::to_string(T) + " K'");
    return flash["vapour_fraction"].get<double>();
  };
  EXPECT_EQ(phases_at(T_K - 0.01), 0);
  EXPECT_GT(phases_at(T_K + 0.01), 0.1);
  const nlohmann::json curve = json_answer(workplace, "txy" + mixture)["curves"][0];
  EXPECT_NEAR(curve["three_phase"][0]["T_K"].get<double>(), T_K, 1e-6);
  EXPECT_EQ(curve["azeotropes"][0]["kind"], "heterogeneous");
  const nlohmann::json found = json_answer(workplace, "azeotropes" + mixture)["azeotropes"][0];
  EXPECT_NEAR(found["T_K"].get<double>(), T_K, 1e-6);
  EXPECT_NEAR(found["x"][0].get<double>(), point["y"][0].get<double>(), 1e-6);
}

}  // namespace
}  // namespace jampot::test
