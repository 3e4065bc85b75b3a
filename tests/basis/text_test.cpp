#include "jampot/basis/text.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <optional>
#include <stdexcept>
#include <utility>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/notice.hpp"

namespace jampot {
namespace {

TEST(Text, EditDistanceCountsSwapsOnce) {
  EXPECT_EQ(edit_distance("toluene", "toluene"), 0u);
  EXPECT_EQ(edit_distance("tolune", "toluene"), 1u);
  EXPECT_EQ(edit_distance("ethnaol", "ethanol"), 1u);
  EXPECT_EQ(edit_distance("", "abc"), 3u);
  // Up to a limit it is the same, and beyond it no more than that.
  const std::vector<std::string> words{"ethanol", "ethnaol", "methanol", "1-propanol", "ab",
                                       "ba",      "",        "abcdef",   "badcfe"};
  for (const std::string& one : words) {
    for (const std::string& other : words) {
      const std::size_t whole = edit_distance(one, other);
      for (std::size_t most = 0; most < 8; ++most)
        EXPECT_EQ(edit_distance(one, other, most), std::min(whole, most + 1))
            << one << ' ' << other << ' ' << most;
    }
  }
}

TEST(Text, NumbersAreWholeAndFinite) {
  EXPECT_EQ(parse_number(" +1.5e2 "), 150.0);
  for (const char* text : {"", "1,5", "12abc", "nan", "inf", "0x10", "--1"})
    EXPECT_FALSE(parse_number(text)) << text;
}

TEST(Text, KeysAreWrittenAsTheCallerCallsThem) {
  EXPECT_EQ(with_keys_as("--", "give `missing-pairs` or `model`."), "give --missing-pairs or --model.");
  EXPECT_EQ(with_keys_as("--", "`a``b`"), "--a--b");
  for (const char* text : {"", "no key", "a ` alone", "`Two Words`", "``", "`-x`", "`a", "`1`"})
    EXPECT_EQ(with_keys_as("--", text), text);
}

TEST(Text, SuggestionsAreNearOrNone) {
  EXPECT_EQ(did_you_mean("presure", {"pressure", "temperature"}), " Did you mean pressure?");
  EXPECT_EQ(did_you_mean("xyz", {"pressure", "temperature"}), "");
}

TEST(Csv, TakesQuotesMarksAndWindowsLineEndsInStride) {
  const CsvTable table("\xEF\xBB\xBF# note: x\r\na,\"b, c\"\r\n\r\n1,\"say \"\"hi\"\"\"\r\n", "t.csv");
  EXPECT_EQ(table.header(), (std::vector<std::string>{"a", "b, c"}));
  EXPECT_EQ(table.comments().at(0).text, "note: x");
  EXPECT_EQ(table.number(0, 0), 1);
  EXPECT_EQ(table.text(0, 1), "say \"hi\"");
  EXPECT_EQ(table.place(0, 0).line, 4);
}

TEST(Csv, AQuotedFieldIsTheSameHoweverItIsRead) {
  const CsvTable table("a,b,c\n\"x, y\",\"\",\"z\"\n\"x, y\" , \"\" ,\"z\"\n\"x, y\",,\"\"\"z\"\n", "t.csv");
  for (const std::size_t row : {0u, 1u, 2u}) {
    EXPECT_EQ(table.text(row, 0), "x, y");
    EXPECT_EQ(table.text(row, 1), "");
  }
  EXPECT_EQ(table.text(0, 2), "z");
  EXPECT_EQ(table.text(1, 2), "z");
  EXPECT_EQ(table.text(2, 2), "\"z");
}

TEST(Csv, ATableAndItsCopiesKeepTheirText) {
  std::optional<CsvTable> table;
  {
    std::string text = "name,note\nwater,\"a, b\"\nethanol,plain\n";
    table.emplace(text, "t.csv");
    std::fill(text.begin(), text.end(), '#');
  }
  const CsvTable copy = *table;
  const CsvTable moved = *std::exchange(table, std::nullopt);
  for (const CsvTable* one : {&copy, &moved}) {
    EXPECT_EQ(one->text(0, 1), "a, b");
    EXPECT_EQ(one->text(1, 0), "ethanol");
    EXPECT_EQ(one->header().at(1), "note");
    EXPECT_THROW(static_cast<void>(one->text(2, 0)), std::out_of_range);
    EXPECT_THROW(static_cast<void>(one->text(0, 2)), std::out_of_range);
  }
}

TEST(Csv, NamesThePlaceOfAFault) {
  const auto message = [](const char* text) -> std::string {
    try {
      const CsvTable table(text, "t.csv");
      table.number(0, 1);
    } catch (const RequestError& error) {
      return error.what();
    }
    return "";
  };
  EXPECT_EQ(message("a,b\n1,x\n"), "t.csv, line 2, column b: expected a number, found 'x'");
  EXPECT_EQ(message("a,b\n1\n"), "t.csv, line 2: 1 field, but the header has 2 columns (a, b)");
  EXPECT_NE(message("a,b\n1,\"2\n").find("line 2: the double quotes"), std::string::npos);
  EXPECT_NE(message("").find("holds no table"), std::string::npos);
}

// The same doubt at several temperatures is one notice; what differs in more, or in a name, is not.
TEST(Notices, ThatDifferInOneNumberAreOne) {
  Notices notices;
  notices.add("range", "the pressure of 1-butanol is used at 60.0 degC, continued");
  notices.add("range", "the pressure of 1-butanol is used at 70.0 degC, continued");
  notices.add("range", "the pressure of 1-butanol is used at 60.0 degC, continued");
  notices.add("range", "the pressure of 2-butanol is used at 60.0 degC, continued");
  Notices others;
  others.add("range", "the pressure of 1-butanol is used at 80.0 degC, continued");
  others.add("other", "the pressure of 1-butanol is used at 80.0 degC, continued");
  others.add("two", "between 1 and 2");
  others.add("two", "between 3 and 4");
  notices.add(others);
  std::vector<std::string> texts;
  for (const Notice& notice : notices) texts.push_back(notice.text);
  EXPECT_EQ(texts, (std::vector<std::string>{
                       "the pressure of 1-butanol is used at 60.0, 70.0 and 80.0 degC, continued",
                       "the pressure of 2-butanol is used at 60.0 degC, continued",
                       "the pressure of 1-butanol is used at 80.0 degC, continued", "between 1 and 2",
                       "between 3 and 4"}));
  for (const int T : {90, 100, 110})
    notices.add("range", "the pressure of 1-butanol is used at " + std::to_string(T) + " degC, continued");
  EXPECT_EQ(notices.begin()->text,
            "the pressure of 1-butanol is used at 60.0 to 110 (6 times) degC, continued");
}

TEST(Lists, AreJoinedAndRounded) {
  const std::vector<std::string> names{"water", "1-butanol", "ethanol"};
  const std::vector<std::string_view> views(names.begin(), names.end());
  EXPECT_EQ(joined(names, ", "), "water, 1-butanol, ethanol");
  EXPECT_EQ(joined(std::span(views).first(2), " and "), "water and 1-butanol");
  EXPECT_EQ(joined(std::vector<std::string>{}, ", "), "");
  const std::vector<double> x{0.12345, 0.5, 1e-5};
  EXPECT_EQ(numbers_text(x, 4), "0.1235, 0.5000, 0.0000");
  EXPECT_EQ(numbers_text(std::span(x).first(1), 2), "0.12");
}

TEST(Counts, ReadAsTheyAreSpoken) {
  EXPECT_EQ(counted(0, "point"), "0 points");
  EXPECT_EQ(counted(1, "point"), "1 point");
  EXPECT_EQ(counted(12, "point"), "12 points");
  EXPECT_EQ(counted(1, "quantity", "quantities"), "1 quantity");
  EXPECT_EQ(counted(2, "quantity", "quantities"), "2 quantities");
  EXPECT_EQ(times_text(1), "once");
  EXPECT_EQ(times_text(2), "twice");
  EXPECT_EQ(times_text(16), "16 times");
}

}  // namespace
}  // namespace jampot
