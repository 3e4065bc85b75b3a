// Files appear whole or not at all, whatever stops the tool.
#include <sys/stat.h>

#include <fstream>
#include <set>
#include <thread>

#include "jampot/basis/error.hpp"
#include "run_tool.hpp"

namespace jampot::test {
namespace {

namespace fs = std::filesystem;

std::set<std::string> names_in(const fs::path& folder) {
  std::set<std::string> names;
  for (const auto& entry : fs::directory_iterator(folder)) names.insert(entry.path().filename().string());
  return names;
}

// A job is interrupted at many moments; afterwards every file that is there is whole and nothing else is.
TEST(WholeFiles, AnInterruptionLeavesNothingHalfWritten) {
  const Workplace workplace;
  workplace.put_data();
  workplace.write(
      "long.job.toml",
      "report = 'page.html'\n[mixture]\nsubstances = ['MTBE', 'methanol']\nparameters = 'f.pairs.toml'\n"
      "[[step]]\ncommand = 'regress'\ndata = 'data.csv'\nout = 'f.pairs.toml'\nfigure = 'r.svg'\n"
      "[[step]]\ncommand = 'txy'\npressure = '1, 2, 3 atm'\nfigure = 't.svg'\ncsv = 't.csv'\nxlsx = "
      "'t.xlsx'\n");
  ASSERT_EQ(workplace.run("job long.job.toml").status, 0);
  const std::set<std::string> all = names_in(workplace.folder());
  std::vector<std::pair<std::string, std::string>> whole;
  for (const char* name : {"f.pairs.toml", "r.svg", "t.svg", "t.csv", "t.xlsx", "page.html"})
    whole.emplace_back(name, workplace.read(name));
  int interrupted = 0;
  for (int k = 1; k <= 16; ++k) {
    for (const auto& [name, text] : whole) fs::remove(workplace / name);
    const std::string command = "cd '" + workplace.folder().string() + "' && timeout -s INT " +
                                std::to_string(0.02 * k) +
                                " '" JAMPOT_TOOL "' job long.job.toml >/dev/null 2>&1";
    interrupted += std::system(command.c_str()) != 0;
    for (const std::string& name : names_in(workplace.folder())) EXPECT_TRUE(all.contains(name)) << name;
    for (const auto& [name, text] : whole) {
      if (!workplace.has(name)) continue;
      EXPECT_TRUE(workplace.read(name) == text) << name << " after " << 0.02 * k << " s";
    }
  }
  EXPECT_GT(interrupted, 2);
}

TEST(WholeFiles, AFileThatCannotBeWrittenStaysAsItWas) {
  const Workplace workplace;
  workplace.put_data();
  fs::create_directory(workplace / "folder.csv");
  const std::string before = workplace.read("data.csv");
  expect_refused(workplace, {{"find etyl --csv folder.csv", "this is a folder"},
                             {"find etyl --csv nowhere/t.csv", "cannot be written"},
                             {"find etyl --xlsx nowhere/t.xlsx", "cannot be written"},
                             {"txy MTBE methanol --liquid unifac --pressure '1 atm' --figure nowhere/t.svg",
                              "cannot be written"}});
  EXPECT_EQ(names_in(workplace.folder()), (std::set<std::string>{"data.csv", "folder.csv"}));
  EXPECT_EQ(workplace.read("data.csv"), before);
}

TEST(WholeFiles, LinksAndPipesAreWrittenThrough) {
  const Workplace workplace;
  workplace.write("kept.csv", "old");
  fs::create_symlink("kept.csv", workplace / "link.csv");
  EXPECT_EQ(workplace.run("find etyl --csv link.csv").status, 0);
  EXPECT_TRUE(fs::is_symlink(workplace / "link.csv"));
  EXPECT_NE(workplace.read("kept.csv").find("ethyl"), std::string::npos);
  const Ran ran = workplace.run("find etyl --json --csv /dev/stderr");
  EXPECT_EQ(ran.status, 0);
  EXPECT_NE(ran.err.find("ethyl"), std::string::npos);
}

// Many writers of one file: always one of the texts, whole.
TEST(WholeFiles, ManyWritersOfOneFile) {
  const Workplace workplace;
  std::vector<std::string> texts;
  for (char c = 'a'; c < 'e'; ++c) texts.emplace_back(200000, c);
  std::vector<std::thread> writers;
  for (const std::string& text : texts) {
    writers.emplace_back([&] {
      for (int k = 0; k < 25; ++k) write_file(workplace / "shared", text);
    });
  }
  for (int k = 0; k < 50; ++k) {
    if (!workplace.has("shared")) continue;
    const std::string read = workplace.read("shared");
    EXPECT_TRUE(std::find(texts.begin(), texts.end(), read) != texts.end()) << read.size();
  }
  for (std::thread& writer : writers) writer.join();
  EXPECT_EQ(names_in(workplace.folder()), std::set<std::string>{"shared"});
}

// The tables and where their numbers come from, in the form that the ending names.
TEST(Documents, TablesInEveryForm) {
  const test::Workplace workplace;
  const std::string asked = "azeotropes ethanol water --pressure '1, 2 atm' --table ";
  const std::vector<std::pair<std::string, std::string>> forms{
      {"t.md", "| ethanol + water | 1.00000 |"},
      {"t.tex", "ethanol + water & 1.00000 &"},
      {"t.html", "<td>ethanol + water</td><td class=\"number\">1.00000</td>"},
      {"t.csv", "ethanol + water,1,"}};
  for (const auto& [name, row] : forms) {
    ASSERT_EQ(workplace.run(asked + name).status, 0) << name;
    const std::string text = workplace.read(name);
    EXPECT_NE(text.find(row), std::string::npos) << text;
    EXPECT_NE(text.find("Sources and notices"), std::string::npos) << name;
    EXPECT_NE(text.find("fitted to handbook facts"), std::string::npos) << name;
  }
  ASSERT_EQ(workplace.run(asked + "t.xlsx").status, 0);
  EXPECT_TRUE(workplace.read("t.xlsx").starts_with("PK"));
  const test::Ran other = workplace.run(asked + "t.doc");
  EXPECT_EQ(other.status, 2);
  EXPECT_NE(other.err.find("--table 't.doc': the ending must be .md, .html, .tex, .csv or .xlsx"),
            std::string::npos);
  EXPECT_FALSE(std::filesystem::exists(workplace / "t.doc"));
}

// Every command writes a page of what it says; a figure may be a page of its own.
TEST(Documents, PagesOfEverything) {
  const test::Workplace workplace;
  ASSERT_EQ(
      workplace.run("txy ethanol water --pressure '1 atm' --report all.html --figure figure.html").status, 0);
  for (const char* page : {"all.html", "figure.html"}) {
    const std::string text = workplace.read(page);
    EXPECT_NE(text.find("<svg"), std::string::npos) << page;
    EXPECT_NE(text.find("<script type=\"application/json\">"), std::string::npos) << page;
  }
  EXPECT_NE(workplace.read("all.html").find("minimum-boiling"), std::string::npos);
  EXPECT_NE(workplace.read("all.html").find("notice (pair-from-facts)"), std::string::npos);
  EXPECT_EQ(workplace.read("figure.html").find("<table>"), std::string::npos);
  ASSERT_EQ(
      workplace.run("gamma ethanol water --liquid unifac --limiting --temperature '30 degC' --report g.md")
          .status,
      0);
  EXPECT_NE(workplace.read("g.md").find("| "), std::string::npos);
  EXPECT_EQ(workplace.run("gamma ethanol water --limiting --temperature '30 degC' --report g.txt").status, 2);
}

}  // namespace
}  // namespace jampot::test
