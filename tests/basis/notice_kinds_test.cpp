// The registry of notices: complete, in order, and each one met by a test or an example.
#include "jampot/basis/notice_kinds.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <regex>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {
namespace {

std::string all_text(const std::string& folder, const std::string& without = "") {
  std::string text;
  for (const auto& entry :
       std::filesystem::recursive_directory_iterator(std::string(JAMPOT_SOURCE_DIR) + "/" + folder)) {
    const std::string name = entry.path().filename().string();
    if (entry.path().extension() == ".cpp" && (without.empty() || name != without))
      text += read_file(entry.path());
  }
  return text;
}

TEST(NoticeKinds, AreInOrderAndSayWhatTheyMean) {
  const auto& kinds = notice_kinds();
  EXPECT_TRUE(std::is_sorted(kinds.begin(), kinds.end(),
                             [](const NoticeKind& a, const NoticeKind& b) { return a.code < b.code; }));
  for (const NoticeKind& kind : kinds) {
    EXPECT_FALSE(kind.meaning.empty() || kind.subject.empty()) << kind.code;
    EXPECT_NE(kind.meaning.back(), '.') << kind.code;
    EXPECT_EQ(notice_kind(kind.code), &kind);
  }
  EXPECT_EQ(notice_kind("no-such-thing"), nullptr);
}

// Every code that stands in the sources is in the registry, and every one of the registry in the sources.
TEST(NoticeKinds, AreThoseOfTheSources) {
  const std::string sources = all_text("src", "notice_kinds.cpp");
  const std::regex added(R"re((?:add|note)\(\s*"([a-z]+(?:-[a-z]+)*)",\s)re");
  std::set<std::string> found;
  for (std::sregex_iterator match(sources.begin(), sources.end(), added), none; match != none; ++match)
    found.insert(match->str(1));
  for (const NoticeKind& kind : notice_kinds())
    EXPECT_NE(sources.find("\"" + std::string(kind.code) + "\""), std::string::npos) << kind.code;
  int unknown = 0;
  for (const std::string& code : found) {
    // Other things are added under a word too; a notice has a hyphen, or is one of two.
    if (code.find('-') != std::string::npos && notice_kind(code) == nullptr) {
      ++unknown;
      ADD_FAILURE() << code << " is not in the registry";
    }
  }
  EXPECT_EQ(unknown, 0);
  EXPECT_GT(found.size(), 50u);
}

TEST(NoticeKinds, EachIsMetByATest) {
  // What no made-up request has brought about yet.
  const std::set<std::string_view> not_met{"heat-of-mixing", "search-budget", "unstable-liquid"};
  const std::string tests = all_text("tests", "notice_kinds_test.cpp");
  for (const NoticeKind& kind : notice_kinds()) {
    if (not_met.contains(kind.code)) continue;
    EXPECT_NE(tests.find("\"" + std::string(kind.code) + "\""), std::string::npos)
        << kind.code << ": no test meets it";
  }
}

TEST(NoticeKinds, AreThePageOfTheDocumentation) {
  const std::string page = read_file(std::string(JAMPOT_SOURCE_DIR) + "/docs/notices.md");
  for (const NoticeKind& kind : notice_kinds())
    EXPECT_NE(page.find("| `" + std::string(kind.code) + "` | " + std::string(name_of(kind.severity)) +
                        " | " + std::string(kind.subject) + " | " + std::string(kind.meaning) + " |"),
              std::string::npos)
        << kind.code << ": 'jampot help notices > docs/notices.md' writes the page anew";
}

TEST(Errors, CarryWhatAProgramCanActOn) {
  try {
    substances_named({"etanol"});
    FAIL();
  } catch (const UnknownSubstance& error) {
    EXPECT_EQ(error.asked(), "etanol");
    EXPECT_EQ(error.nearest().front(), "ethanol");
  }
  try {
    make_activity_model("uniquac", substances_named({"ethanol", "toluene", "acetone"}), {});
    FAIL();
  } catch (const MissingPair& error) {
    EXPECT_EQ(error.model(), "uniquac");
    EXPECT_EQ(error.pairs().size(), 3u);
    EXPECT_EQ(error.pairs().front(), (std::array<std::string, 2>{"ethanol", "toluene"}));
  }
  const RequestError in_a_file(Place{"data.csv", 12, "x1"}, "is not a number");
  EXPECT_EQ(in_a_file.place().line, 12);
  EXPECT_EQ(in_a_file.place().column, "x1");
}

}  // namespace
}  // namespace jampot
