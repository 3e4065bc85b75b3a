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

}  // namespace
}  // namespace jampot::test
