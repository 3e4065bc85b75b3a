// Quantities that nobody means, through every command that takes them: an answer without NaN, or one message
// that says why. Never a crash, never silence.
#include <algorithm>
#include <cctype>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

bool says_not_a_number(const std::string& text) {
  std::string lower = text;
  std::transform(lower.begin(), lower.end(), lower.begin(),
                 [](char c) { return static_cast<char>(std::tolower(static_cast<unsigned char>(c))); });
  for (const char* word : {"nan", "inf"}) {
    for (std::size_t at = 0; (at = lower.find(word, at)) != std::string::npos; at += 3) {
      const auto part_of_word = [&](std::size_t k) {
        return k < lower.size() && std::isalpha(static_cast<unsigned char>(lower[k])) != 0;
      };
      if (!(at > 0 && part_of_word(at - 1)) && !part_of_word(at + 3)) return true;
    }
  }
  return false;
}

// Runs it and says what of it was not as it must be; how it ended by kind.
void expect_sound(const Workplace& workplace, const std::string& arguments, int& done, int& refused) {
  const Ran ran = workplace.run(arguments, "timeout 20");
  SCOPED_TRACE(arguments);
  EXPECT_TRUE(ran.status >= 0 && ran.status <= 2) << ran.status << ran.err;
  if (ran.status == 0) {
    ++done;
    EXPECT_FALSE(says_not_a_number(ran.out)) << ran.out;
    EXPECT_NE(ran.out, "");
  } else {
    ++refused;
    EXPECT_EQ(ran.out, "");
    EXPECT_NE(ran.err.find("jampot: "), std::string::npos) << ran.err;
    EXPECT_EQ(ran.err.find("unexpected"), std::string::npos) << ran.err;
    // The message repeats what was asked for.
    EXPECT_TRUE(says_not_a_number(arguments) || !says_not_a_number(ran.err)) << ran.err;
  }
}

const std::vector<std::string> temperatures{"0.001 K", "1 K",      "-300 degC", "-100 degC", "0 K",
                                            "1e9 K",   "900 degC", "1e400 K",   "nan K",     "25 kPa"};
const std::vector<std::string> pressures{"1e-9 Pa", "0 bar",   "-1 bar", "1e12 bar",
                                         "200 bar", "inf bar", "1 K"};

TEST(HardUse, ImpossibleTemperatures) {
  const Workplace workplace;
  int done = 0, refused = 0;
  for (const std::string& T : temperatures) {
    for (const char* command :
         {"saturation acetone --temperature", "substance acetone --at",
          "gamma acetone water --liquid unifac --temperature",
          "pxy acetone methanol --liquid unifac --temperature",
          "solubility 1-butanol water --liquid unifac-lle --temperature",
          "ternary water ethanol 'ethyl acetate' --liquid unifac-lle --temperature",
          "bubble acetone methanol --liquid unifac --composition 'acetone=0.3' --temperature",
          "flash acetone methanol --liquid unifac --feed 'acetone=0.3, methanol=0.7' --pressure '1 atm' "
          "--temperature",
          "split water 1-butanol --liquid unifac-lle --feed 'water=0.5, 1-butanol=0.5' --temperature",
          "fugacity methane propane --vapour pr --composition 'methane=0.3' --pressure '1 bar' "
          "--temperature"})
      expect_sound(workplace, std::string(command) + " '" + T + "'", done, refused);
  }
  EXPECT_GT(done, 10);
  EXPECT_GT(refused, 40);
}

TEST(HardUse, ImpossiblePressures) {
  const Workplace workplace;
  int done = 0, refused = 0;
  for (const std::string& P : pressures) {
    for (const char* command :
         {"saturation acetone --pressure", "txy acetone methanol --liquid unifac --pressure",
          "txy acetone methanol --liquid unifac --vapour virial --pressure",
          "txy methane propane --liquid eos --vapour pr --pressure",
          "azeotropes ethanol benzene water --liquid unifac --pressure",
          "residue ethanol benzene water --liquid unifac --pressure",
          "dew acetone methanol --liquid unifac --composition 'acetone=0.3' --pressure",
          "flash methane propane --liquid eos --vapour pc-saft --feed 'methane=0.3, propane=0.7' "
          "--temperature '280 K' --pressure",
          "fugacity methane propane --vapour srk --composition 'methane=0.3' --temperature '280 K' "
          "--pressure"})
      expect_sound(workplace, std::string(command) + " '" + P + "'", done, refused);
  }
  EXPECT_GT(done, 5);
  EXPECT_GT(refused, 25);
}

TEST(HardUse, CompositionsAtTheEdge) {
  const Workplace workplace;
  int done = 0, refused = 0;
  for (const char* x :
       {"acetone=0", "acetone=1", "acetone=1e-300", "acetone=1e-12", "acetone=-1e-9", "acetone=1.0000001",
        "acetone=0.5, water=0.5", "water=1", "acetone=1e400", "acetone=nan", "acetone=", "=0.5", ""}) {
    for (const char* command :
         {"gamma acetone methanol water --liquid unifac --temperature '25 degC' --composition",
          "bubble acetone methanol water --liquid unifac --pressure '1 atm' --composition",
          "dew acetone methanol water --liquid unifac --pressure '1 atm' --composition",
          "flash acetone methanol water --liquid unifac --temperature '60 degC' --pressure '1 atm' --feed",
          "split acetone methanol water --liquid unifac-lle --temperature '25 degC' --feed",
          "residue acetone methanol water --liquid unifac --pressure '1 atm' --feed"})
      expect_sound(workplace, std::string(command) + " '" + x + ", methanol=0'", done, refused);
  }
  EXPECT_GT(done, 5);
  EXPECT_GT(refused, 20);
}

TEST(HardUse, NumbersOfPointsThatNobodyMeans) {
  const Workplace workplace;
  int done = 0, refused = 0;
  for (const char* arguments :
       {"txy acetone methanol --liquid unifac --pressure '1 atm' --points 0",
        "txy acetone methanol --liquid unifac --pressure '1 atm' --points -3",
        "txy acetone methanol --liquid unifac --pressure '1 atm' --points 20001",
        "saturation acetone --temperature '0 to 100 by 1e-9 degC'",
        "saturation acetone --temperature '0 to 100 by 0 degC'",
        "saturation acetone --temperature '100 to 0 by 1 degC'",
        "saturation acetone --temperature '0 to 100 in 1 degC'",
        "saturation acetone --temperature '0 to 100 in 1e12 degC'",
        "ternary water ethanol 'ethyl acetate' --liquid unifac-lle --temperature '25 degC' --tie-lines 0",
        "ternary water ethanol 'ethyl acetate' --liquid unifac-lle --temperature '25 degC' --tie-lines 5000",
        "residue ethanol benzene water --liquid unifac --pressure '1 atm' --curves -1",
        "residue ethanol benzene water --liquid unifac --pressure '1 atm' --curves 2000"})
    expect_sound(workplace, arguments, done, refused);
  EXPECT_GT(refused, 4);
}

// Files that are no files: empty, binary, a folder, one very long line.
TEST(HardUse, FilesThatAreNone) {
  const Workplace workplace;
  workplace.write("empty", "");
  workplace.write("zeros", std::string(5000, '\0'));
  workplace.write("long", "# substances: " + std::string(200000, 'x') + "\n");
  workplace.write("deep", std::string(100000, '['));
  workplace.write("deep.xml", [] {
    std::string text;
    for (int k = 0; k < 50000; ++k) text += "<a>";
    return text;
  }());
  std::filesystem::create_directory(workplace / "folder");
  int done = 0, refused = 0;
  for (const char* file : {"empty", "zeros", "long", "deep", "deep.xml", "folder", "nowhere", "/dev/null"}) {
    for (const char* command :
         {"data", "consistency", "regress", "job --check",
          "txy acetone methanol --pressure '1 atm' --parameters", "find etyl --substance",
          "txy acetone methanol --liquid unifac --pressure '1 atm' --measured",
          "bubble acetone methanol --liquid unifac --pressure '1 atm' --composition"})
      expect_sound(workplace, std::string(command) + " " + file, done, refused);
  }
  EXPECT_EQ(done, 0);
}

}  // namespace
}  // namespace jampot::test
