#include "jampot/basis/text.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/csv_table.hpp"

namespace jampot {
namespace {

TEST(Text, EditDistanceCountsSwapsOnce) {
  EXPECT_EQ(edit_distance("toluene", "toluene"), 0u);
  EXPECT_EQ(edit_distance("tolune", "toluene"), 1u);
  EXPECT_EQ(edit_distance("ethnaol", "ethanol"), 1u);
  EXPECT_EQ(edit_distance("", "abc"), 3u);
}

TEST(Text, NumbersAreWholeAndFinite) {
  EXPECT_EQ(parse_number(" +1.5e2 "), 150.0);
  for (const char* text : {"", "1,5", "12abc", "nan", "inf", "0x10", "--1"})
    EXPECT_FALSE(parse_number(text)) << text;
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
  EXPECT_EQ(message("a,b\n1\n"), "t.csv, line 2: 1 fields, but the header has 2 columns (a, b)");
  EXPECT_NE(message("a,b\n1,\"2\n").find("line 2: the double quotes"), std::string::npos);
  EXPECT_NE(message("").find("holds no table"), std::string::npos);
}

}  // namespace
}  // namespace jampot
