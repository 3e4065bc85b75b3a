// examples/commands: a library user gets what the tool prints, in a program of fifteen lines.
#include <algorithm>
#include <filesystem>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

struct Command {
  const char *name, *arguments;
};

const std::vector<Command>& commands() {
  static const std::vector<Command> list{
      {"azeotropes", "acetone chloroform methanol --liquid unifac --pressure '101325 Pa'"},
      {"bubble",
       "ethanol acetone toluene --liquid ideal --pressure '1, 2 bar' --composition 'ethanol=0.3, "
       "acetone=0.3'"},
      {"collect", ". --out mine.collection --models nrtl"},
      {"consistency", "data.csv"},
      {"data", "data.csv"},
      {"define", "try --groups 'CH3=4, C=1, O=1' --boiling-point '328.35 K' --against MTBE"},
      {"dew",
       "ethanol acetone toluene --liquid ideal --pressure '1, 2 bar' --composition 'ethanol=0.3, "
       "acetone=0.3'"},
      {"estimate", "ethanol toluene --model wilson --temperature '333.15 to 383.15 K'"},
      {"extract",
       "'acetic acid' water 'ethyl acetate' --feed 'acetic acid=0.2, water=0.8' --basis mass --raffinate "
       "0.02"},
      {"find", "etyl"},
      {"flash",
       "methane propane n-hexane --liquid pr --feed 'methane=1 mol/s, propane=2 mol/s, n-hexane=3 mol/s' "
       "--feed-temperature '333.15 K' --feed-pressure '40 bar' --pressure '10 bar' --adiabatic"},
      {"fugacity",
       "propane n-hexane --composition propane=0.4 --temperature '353.15 K' --pressure '5, 10 bar' "
       "--compare pc-saft"},
      {"gamma", "ethanol water --liquid unifac --compare mosced --limiting --temperature '303.15, 333.15 K'"},
      {"known", "ethanol water"},
      {"next", "data.csv"},
      {"pairs", "acetone methanol water"},
      {"pxy", "ethanol toluene --liquid ideal --temperature '333.15, 343.15 K'"},
      {"regress", "data.csv"},
      {"residue", "acetone chloroform methanol --liquid unifac --pressure '101325 Pa'"},
      {"saturation", "water --pressure '1, 2, 5 bar'"},
      {"route",
       "ethanol water benzene --liquid unifac --pressure '101325 Pa' --feed 'ethanol=0.85, water=0.15' "
       "--decanter '298.15 K'"},
      {"screen", "'acetic acid' water --families esters"},
      {"solubility", "1-butanol water --temperature '283.15, 303.15, 323.15 K'"},
      {"split",
       "'ethyl acetate' ethanol water --feed 'ethyl acetate=0.3, ethanol=0.05, water=0.65' --temperature "
       "'298.15 K'"},
      {"stages",
       "methanol water --feed 'methanol=0.4, water=0.6' --top methanol=0.98 --bottom methanol=0.02"},
      {"substance", "MTBE --at '298.15, 328.15 K'"},
      {"swing", "tetrahydrofuran water --feed 'tetrahydrofuran=0.5, water=0.5' --pressure '1, 8 bar'"},
      {"ternary", "water ethanol 'ethyl acetate' --temperature '298.15 K'"},
      {"txy", "ethanol toluene --liquid ideal --pressure '1, 2 bar'"},
      {"xy", "ethanol toluene --liquid ideal --pressure '101325 Pa'"}};
  return list;
}

std::string example_of(const Command& command) {
  return std::string(JAMPOT_EXAMPLES) + "/commands/" + command.name;
}

class EachCommand : public testing::TestWithParam<Command> {};

TEST_P(EachCommand, IsFifteenLinesOfCode) {
  const std::string text =
      read_file(std::string(JAMPOT_SOURCE_DIR) + "/examples/commands/" + GetParam().name + ".cpp");
  EXPECT_LE(std::count(text.begin(), text.end(), '\n'), 15);
}

TEST_P(EachCommand, GivesALibraryUserTheSameJson) {
  const Workplace place;
  place.put_data();
  const Ran tool = place.run(std::string(GetParam().name) + " " + GetParam().arguments + " --json");
  ASSERT_EQ(tool.status, 0) << tool.err;
  std::filesystem::remove_all(place / "mine.collection");  // done already, it would not be done again
  const Ran library = place.run_program(example_of(GetParam()));
  ASSERT_EQ(library.status, 0) << library.err;
  EXPECT_EQ(library.out, tool.out);
}

// Every key of an answer, but names of substances, files and models, stands in docs/files.md.
void expect_keys_listed(const nlohmann::json& value, const std::string& listed) {
  if (!value.is_structured()) return;
  for (const auto& [key, part] : value.items()) {
    const bool known = value.is_array() || listed.find("`" + key + "`") != std::string::npos;
    EXPECT_TRUE(known) << "`" << key << "` is not listed";
    expect_keys_listed(part, listed);
  }
}

TEST_P(EachCommand, HasEveryKeyOfItsAnswerInTheListOfThem) {
  const Workplace place;
  place.put_data();
  const Ran tool = place.run(std::string(GetParam().name) + " " + GetParam().arguments + " --json");
  ASSERT_EQ(tool.status, 0) << tool.err;
  std::string listed = place.read(JAMPOT_SOURCE_DIR "/docs/files.md");
  // "`points[]`" lists `points`.
  for (auto list = listed.find("[]`"); list != std::string::npos; list = listed.find("[]`", list))
    listed.erase(list, 2);
  expect_keys_listed(nlohmann::json::parse(tool.out), listed);
}

// The course: each runs to its end and says what it must, in this order.
struct Page {
  const char *name, *argument;
  std::vector<std::string> said;
};

const std::vector<Page>& pages() {
  static const std::string source = JAMPOT_SOURCE_DIR;
  static const std::string azeotropes = source + "/docs/unifac-azeotropes.csv",
                           hetero = source + "/docs/heteroazeotropes.csv",
                           solubilities = source + "/docs/unifac-solubilities.csv";
  static const std::vector<Page> list{
      {"bubble_point", "", {"bubble point 34"}},
      {"fit_and_diagram", "data.csv", {"minimum-boiling", "azeotrope at x1 = 0.67"}},
      {"two_liquids", "", {"2 liquids", "plait point"}},
      {"residue_curves", "", {"index balance met", "2 distillation regions"}},
      {"own_model", "", {"A = 0.5: azeotrope", "of two liquids"}},
      {"many_threads", "", {"200 kPa: azeotrope"}},
      {"full_job", "data.csv", {"best: nrtl", "azeotrope", "wrote"}},
      {"check_bank", "data.csv", {"MOSCED volume"}},
      {"unifac_azeotropes", azeotropes.c_str(), {"within 1.5 K"}},
      {"heterogeneous_azeotropes", hetero.c_str(), {"19 of 20 within 1.5 K"}},
      {"unifac_solubilities", solubilities.c_str(), {"7 of 12 predicted pairs within a factor of two"}}};
  return list;
}

class Course : public testing::TestWithParam<Page> {};

TEST_P(Course, RunsAndSaysWhatItMust) {
  const Workplace place;
  place.put_data();
  const Ran ran = place.run_program(std::string(JAMPOT_EXAMPLES) + "/example_" + GetParam().name,
                                    std::string("'") + GetParam().argument + "'");
  ASSERT_EQ(ran.status, 0) << ran.err;
  std::size_t from = 0;
  for (const std::string& said : GetParam().said) {
    from = ran.out.find(said, from);
    ASSERT_NE(from, std::string::npos) << said << " is missing in\n" << ran.out;
  }
}

INSTANTIATE_TEST_SUITE_P(Examples, Course, testing::ValuesIn(pages()),
                         [](const auto& one) { return std::string(one.param.name); });

INSTANTIATE_TEST_SUITE_P(Examples, EachCommand, testing::ValuesIn(commands()),
                         [](const auto& one) { return std::string(one.param.name); });

}  // namespace
}  // namespace jampot::test
