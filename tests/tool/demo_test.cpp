// The demo against the hidden truth that only the generator and this test know.
#include <nlohmann/json.hpp>

#include "hidden_truth.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

TEST(Demo, FindsWhatIsHiddenWithinThreeStandardErrors) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run("demo --out out --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const json demo = json::parse(ran.out);

  ParameterCollection hidden;
  hidden.add(hidden_truth::pair());
  Mixture truth(substances_named({"methyl tert-butyl ether", "methanol"}), "nrtl", hidden);
  const json& first = demo["fits"][0];
  const Azeotrope azeotrope = txy(truth, first["azeotropes"][0]["P_Pa"]).azeotropes.at(0);
  const auto within = [](const json& value, const json& error, double hidden_value) {
    ASSERT_GT(error.get<double>(), 0);
    EXPECT_LT(std::abs(value.get<double>() - hidden_value), 3 * error.get<double>());
  };
  const auto& terms = hidden_truth::pair().terms;
  within(first["parameters"][0]["value"], first["parameters"][0]["std_error"], terms.at("tau_12").inverse_T);
  within(first["parameters"][1]["value"], first["parameters"][1]["std_error"], terms.at("tau_21").inverse_T);
  within(first["parameters"][2]["value"], first["parameters"][2]["std_error"], terms.at("alpha").constant);
  for (const int fit : {0, 1}) {
    const json& found = demo["fits"][fit]["azeotropes"][0];
    within(found["x"][0], found["u_x"], azeotrope.x1);
    within(found["T_K"], found["u_T_K"], azeotrope.T_K);
    EXPECT_GT(demo["fits"][fit]["chi_square_probability"], 0.01);
  }
  for (const int parameter : {0, 1}) {
    const json& kept = demo["fits"][1]["parameters"][parameter];
    within(kept["value"], kept["std_error"], terms.at(parameter == 0 ? "tau_12" : "tau_21").inverse_T);
  }

  const json& misfit = demo["fits"][2];
  EXPECT_LT(misfit["chi_square_probability"], 1e-6);
  EXPECT_LT(misfit["runs"]["boiling"]["probability"], 0.01);
  std::string codes;
  for (const json& notice : demo["notices"]) codes += notice["code"].get<std::string>() + " ";
  EXPECT_NE(codes.find("misfit"), std::string::npos);
  EXPECT_NE(codes.find("systematic-residuals"), std::string::npos);

  for (const json& path : demo["files"]) EXPECT_TRUE(workplace.has(path.get<std::string>())) << path;
}

TEST(Demo, SaysWhatItFoundAndWhereItWrote) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run("demo --out out");
  ASSERT_EQ(ran.status, 0);
  for (const char* text : {"tau_12.inverse_T", "standard error", "Azeotropes of the fit", "u(x)",
                           "notice (misfit)", "out/mtbe-methanol.txy.svg", "out/mtbe-methanol.pairs.toml"}) {
    EXPECT_NE(ran.out.find(text), std::string::npos) << text;
  }
}

TEST(Demo, TwoRunsWriteTheSameBytes) {
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo --out a").status, 0);
  ASSERT_EQ(workplace.run("demo --out b").status, 0);
  for (const auto& file : std::filesystem::directory_iterator(workplace / "a")) {
    EXPECT_TRUE(read_file(file.path()) == read_file(workplace / ("b/" + file.path().filename().string())))
        << file.path();
  }
}

TEST(Demo, TheCommittedDataComeFromTheCommittedGenerator) {
  const test::Workplace workplace;
  ASSERT_EQ(std::system(("'" JAMPOT_MAKE_MEASURED "' '" + workplace.folder().string() + "'").c_str()), 0);
  for (const char* name : {"mtbe-methanol.csv", "mtbe-methanol-second-still.csv"}) {
    EXPECT_EQ(workplace.read(name), read_file(std::string(JAMPOT_SOURCE_DIR "/demo/measured/") + name))
        << name;
    EXPECT_TRUE(workplace.read(name).starts_with("# made-up data")) << name;
  }
}

}  // namespace
}  // namespace jampot
