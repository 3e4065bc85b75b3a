// The commands of the README and of the pages beside it run as they stand, in the order in which they stand.
#include <filesystem>

#include "pasted.hpp"

namespace jampot {
namespace {

class Page : public testing::TestWithParam<std::pair<const char*, int>> {};

TEST_P(Page, EveryCommandRunsAsItStands) {
  const auto& [page, least] = GetParam();
  const test::Workplace workplace;
  ASSERT_NO_FATAL_FAILURE(test::prepare_for_pages(workplace));
  const test::Pasted all = test::pasted(page);
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
