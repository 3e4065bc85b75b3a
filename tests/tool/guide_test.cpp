// The commands of the guide run as they stand.
#include <sstream>

#include "run_tool.hpp"

namespace jampot {
namespace {

TEST(Guide, EveryCommandRuns) {
  const test::Workplace workplace;
  ASSERT_EQ(workplace.run("demo").status, 0);
  int commands = 0;
  for (const auto& entry : std::filesystem::directory_iterator(JAMPOT_SOURCE_DIR "/docs/guide")) {
    if (entry.path().filename() == "tour.md") continue;  // tests/tool/readme_test.cpp runs it
    std::istringstream lines(read_file(entry.path()));
    for (std::string line; std::getline(lines, line);) {
      line.erase(0, line.find_first_not_of(' '));
      if (!line.starts_with("jampot ")) continue;
      ++commands;
      const test::Ran ran = workplace.run(line.substr(7));
      EXPECT_EQ(ran.status, 0) << entry.path().filename() << ": " << line << "\n" << ran.err;
      EXPECT_FALSE(ran.out.empty()) << line;
    }
  }
  EXPECT_EQ(commands, 34);
}

}  // namespace
}  // namespace jampot
