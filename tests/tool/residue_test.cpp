// Residue curve maps by the built tool.
#include <nlohmann/json.hpp>

#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

TEST(Residue, TheMapAsNumbers) {
  const test::Workplace workplace;
  const json map = test::json_answer(
      workplace,
      "residue ethanol benzene water --liquid unifac --pressure '1 atm' --curves 10 "
      "--through 'ethanol=0.3, benzene=0.3' --tie-line 'ethanol=0.2, benzene=0.4' "
      "--feed 'ethanol=40 kmol/h, benzene=10 kmol/h, water=50 kmol/h' --decanter '25 degC'");
  EXPECT_EQ(map["singular_points"].size(), 7u);
  EXPECT_TRUE(map["index_balance"]["balanced"].get<bool>());
  EXPECT_EQ(map["curves"].size(), 10u);
  EXPECT_EQ(map["through"].size(), 1u);
  EXPECT_EQ(map["boundaries"].size(), 3u);
  EXPECT_EQ(map["regions"].size(), 3u);
  EXPECT_EQ(map["two_liquid_region"].size(), 1u);
  EXPECT_EQ(map["through_tie_lines"].size(), 1u);
  for (const json& curve : map["curves"]) {
    EXPECT_EQ(map["singular_points"][curve["begin"].get<std::size_t>()]["stability"], "unstable node");
    EXPECT_EQ(map["singular_points"][curve["end"].get<std::size_t>()]["stability"], "stable node");
    EXPECT_LT(curve["T_K"].front(), curve["T_K"].back());
  }
  const json& feed = map["feeds"][0];
  EXPECT_NEAR(feed["z"][0].get<double>(), 0.4, 1e-12);
  EXPECT_TRUE(feed["overhead_decanter"]["crosses_boundary"].get<bool>());
  EXPECT_NEAR(feed["overhead_decanter"]["T_K"].get<double>(), 298.15, 1e-9);
  const json& split = feed["direct_split"];
  const double D = split["distillate_share"];
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_NEAR(D * split["distillate"][i].get<double>() + (1 - D) * split["bottoms"][i].get<double>(),
                feed["z"][i].get<double>(), 1e-9);
  }
}

TEST(Residue, SentencesFiguresAndFiles) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run(
      "residue acetone chloroform methanol --liquid unifac --pressure '1 atm' --feed 'acetone=0.3, "
      "chloroform=0.4, methanol=0.3' --isotherms '55 to 64 by 1 degC' --mark 'A: acetone=0.5, methanol=0.2' "
      "--mark 'B: "
      "methanol=0.5, acetone=0.1' --balance-line 'A, B' --label 'chloroform=CF' --corners 'methanol, "
      "acetone, "
      "chloroform' --hide arrows --figure map.svg --csv map.csv");
  EXPECT_EQ(ran.status, 0) << ran.err;
  EXPECT_NE(ran.out.find("distillation region 1 of 4"), std::string::npos);
  EXPECT_NE(ran.out.find("feed, direct split: overhead CF + methanol"), std::string::npos);
  EXPECT_NE(ran.out.find("total reflux"), std::string::npos);
  const std::string csv = workplace.read("map.csv");
  EXPECT_NE(csv.find("separatrix 4"), std::string::npos);
  EXPECT_NE(csv.find("curve 25"), std::string::npos);
  const std::string svg = workplace.read("map.svg");
  for (const char* text : {"distillation boundary", "57.7", "CF, 61.2", "unstable node"})
    EXPECT_NE(svg.find(text), std::string::npos) << text;
}

TEST(Residue, WhatItRefuses) {
  const test::Workplace workplace;
  const std::string map = "residue ethanol benzene water --liquid unifac --pressure '1 atm' ";
  test::expect_refused(workplace,
                       {{"residue ethanol water --liquid unifac --pressure '1 atm'", "three"},
                        {"residue ethanol benzene water --liquid unifac", "--pressure"},
                        {map + "--curves -3", "0 to 500"},
                        {map + "--decanter '25 degC'", "--feed"},
                        {map + "--hide arrow", "arrows"},
                        {map + "--mark 'A: ethanol=0.5, water=0.5' --balance-line 'A, C'", "not a mark"},
                        {map + "--label 'ethanol'", "substance=label"},
                        {map + "--through 'ethanol=2, water=0'", "ethanol"}});
}

}  // namespace
}  // namespace jampot
