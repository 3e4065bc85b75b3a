// The commands of the README and of the pages beside it run as they stand, in the order in which they stand.
#include <filesystem>
#include <sstream>

#include "run_tool.hpp"

namespace jampot {
namespace {

// A page as a reader pastes it: files written with cat, and commands, long ones continued after a backslash.
// `find . | xargs jampot` and the like are not among them.
struct Pasted {
  std::vector<std::pair<std::string, std::string>> files;  ///< name and text
  std::vector<std::string> commands;
};

Pasted pasted(const std::string& page) {
  Pasted all;
  std::istringstream lines(read_file(std::string(JAMPOT_SOURCE_DIR "/") + page));
  bool fenced = false, code = false, continued = false;  // code of another language is not pasted
  const std::string cat = "cat > ", end = " <<'END'";
  for (std::string line; std::getline(lines, line);) {
    if (line.starts_with("```")) {
      fenced = !fenced;
      code = fenced && line == "```";
    }
    if (!code) continue;
    if (line.starts_with(cat) && line.ends_with(end)) {
      all.files.emplace_back(line.substr(cat.size(), line.size() - cat.size() - end.size()), "");
      while (std::getline(lines, line) && line != "END") all.files.back().second += line + "\n";
      continue;
    }
    line.erase(0, line.find_first_not_of(' '));
    if (!continued && !line.starts_with("jampot ")) continue;
    const bool more = line.ends_with('\\');
    if (more) line.pop_back();
    if (const std::size_t remark = line.find("  # "); remark != std::string::npos) line.resize(remark);
    if (continued) {
      all.commands.back() += line;
    } else {
      all.commands.push_back(line.substr(7));
    }
    continued = more;
  }
  return all;
}

class Page : public testing::TestWithParam<std::pair<const char*, int>> {};

TEST_P(Page, EveryCommandRunsAsItStands) {
  const auto& [page, least] = GetParam();
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo").status, 0);
  // The file of compositions that the tour makes by printf.
  workplace.write("liquids.csv", "x1,x2\n0.1,0.1\n0.1,0.5\n0.5,0.1\n0.33,0.33\n0.7,0.2\n");
  const Pasted all = pasted(page);
  EXPECT_GE(static_cast<int>(all.commands.size()), least);
  for (const auto& [name, text] : all.files) workplace.write(name, text);
  for (const std::string& command : all.commands) {
    const test::Ran ran = workplace.run(command);
    EXPECT_EQ(ran.status, 0) << page << ": " << command << "\n" << ran.err;
    EXPECT_FALSE(ran.out.empty()) << command;
  }
}

INSTANTIATE_TEST_SUITE_P(All, Page,
                         testing::Values(std::pair("README.md", 4), std::pair("docs/guide/tour.md", 40),
                                         std::pair("docs/many-systems.md", 1)),
                         [](const auto& tested) {
                           std::string name = tested.param.first;
                           std::erase_if(name, [](char c) { return std::isalnum(c) == 0; });
                           return name;
                         });

// Every picture of docs/screenshots is linked, and every link of the README leads somewhere.
TEST(Readme, LinksLeadSomewhereAndPicturesAreLinked) {
  const std::string text = read_file(JAMPOT_SOURCE_DIR "/README.md");
  int links = 0;
  for (std::size_t at = text.find("]("); at != std::string::npos; at = text.find("](", at + 1)) {
    const std::string target = text.substr(at + 2, text.find(')', at) - at - 2);
    EXPECT_TRUE(std::filesystem::exists(JAMPOT_SOURCE_DIR "/" + target)) << target;
    ++links;
  }
  EXPECT_GT(links, 30);
  for (const auto& picture : std::filesystem::directory_iterator(JAMPOT_SOURCE_DIR "/docs/screenshots"))
    EXPECT_NE(text.find(picture.path().filename().string()), std::string::npos) << picture.path();
}

}  // namespace
}  // namespace jampot
