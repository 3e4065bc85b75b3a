#include "jampot/basis/readable.hpp"

#include <gtest/gtest.h>

#include <random>

namespace jampot {
namespace {

TEST(Readable, TextIsUtf8WithoutControlCharacters) {
  for (const char* text : {"", "plain",
                           "\xC2\xB0"
                           "C, \xCE\xB1 and \xE2\x82\xAC",
                           "two\nlines\twith tab\r\n", "\xF0\x9D\x94\x81"})
    EXPECT_EQ(unreadable(text, Lines::several), "") << text;
  EXPECT_NE(unreadable("two\nlines", Lines::one), "");
  int line = 0;
  EXPECT_NE(unreadable("a\nb\nc\x1B[31m", Lines::several, &line).find("U+001B"), std::string::npos);
  EXPECT_EQ(line, 3);
  EXPECT_NE(unreadable("M\xFCller", Lines::several).find("Latin-1"), std::string::npos);
  EXPECT_NE(unreadable(std::string_view("\xFF\xFE"
                                        "a\0",
                                        4),
                       Lines::several)
                .find("UTF-16"),
            std::string::npos);
  EXPECT_NE(unreadable(std::string_view("PK\0\1", 4), Lines::several).find("binary"), std::string::npos);
  // Overlong, a surrogate, past the last code point, cut short, no character, turned writing, a C1 control.
  for (const char* text : {"\xC0\xAF", "\xED\xA0\x80", "\xF4\x90\x80\x80", "\xE2\x82", "\xEF\xBF\xBF",
                           "\xE2\x80\xAE", "\xC2\x9B", "\x7F"})
    EXPECT_NE(unreadable(text, Lines::several), "") << text;
}

TEST(Readable, WhatIsShownIsReadable) {
  std::mt19937 random(7);
  std::uniform_int_distribution<int> byte(0, 255), length(0, 30);
  for (int k = 0; k < 20000; ++k) {
    std::string text;
    for (int n = length(random); n > 0; --n) text += static_cast<char>(byte(random));
    for (const Lines lines : {Lines::one, Lines::several}) {
      const std::string shown = readable(text, lines);
      EXPECT_EQ(unreadable(shown, lines), "");
      EXPECT_EQ(unreadable(text, lines).empty(), shown == text);
    }
  }
}

TEST(Readable, ShortTextsEndWithWholeCharacters) {
  EXPECT_EQ(shortened("short"), "short");
  const std::string degrees = "\xC2\xB0\xC2\xB0\xC2\xB0";
  EXPECT_EQ(shortened(degrees, 3), "\xC2\xB0...");
}

}  // namespace
}  // namespace jampot
