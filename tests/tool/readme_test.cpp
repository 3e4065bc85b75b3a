// The commands of the README and of the pages beside it run as they stand, in the order in which they stand.
#include <sstream>

#include "run_tool.hpp"

namespace jampot {
namespace {

// The commands of a page, long ones continued after a backslash. `find . | xargs jampot` and the like are not
// among them.
std::vector<std::string> commands_of(const std::string& page) {
  std::vector<std::string> commands;
  std::istringstream lines(read_file(std::string(JAMPOT_SOURCE_DIR "/") + page));
  bool code = false, continued = false;
  for (std::string line; std::getline(lines, line);) {
    if (line.starts_with("```")) code = !code && line == "```";
    if (!code) continue;
    line.erase(0, line.find_first_not_of(' '));
    if (!continued && !line.starts_with("jampot ")) continue;
    const bool more = line.ends_with('\\');
    if (more) line.pop_back();
    if (const std::size_t remark = line.find("  # "); remark != std::string::npos) line.resize(remark);
    if (continued) {
      commands.back() += line;
    } else {
      commands.push_back(line.substr(7));
    }
    continued = more;
  }
  return commands;
}

class Page : public testing::TestWithParam<std::pair<const char*, int>> {};

TEST_P(Page, EveryCommandRunsAsItStands) {
  const auto& [page, least] = GetParam();
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo").status, 0);
  // The file of compositions that the README makes by printf.
  workplace.write("liquids.csv", "x1,x2\n0.1,0.1\n0.1,0.5\n0.5,0.1\n0.33,0.33\n0.7,0.2\n");
  const std::vector<std::string> commands = commands_of(page);
  EXPECT_GE(static_cast<int>(commands.size()), least);
  for (const std::string& command : commands) {
    const test::Ran ran = workplace.run(command);
    EXPECT_EQ(ran.status, 0) << page << ": " << command << "\n" << ran.err;
    EXPECT_FALSE(ran.out.empty()) << command;
  }
}

INSTANTIATE_TEST_SUITE_P(All, Page,
                         testing::Values(std::pair("README.md", 40), std::pair("docs/many-systems.md", 1)),
                         [](const auto& tested) {
                           return std::string(tested.param.first) == "README.md" ? "Readme" : "ManySystems";
                         });

}  // namespace
}  // namespace jampot
