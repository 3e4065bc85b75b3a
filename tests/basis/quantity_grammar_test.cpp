// What is typed is what is calculated: one number and one unit, or a reason.
#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <regex>

#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

std::string refusal(const std::string& text, Dimension dimension) {
  try {
    parse_quantities(text, dimension);
  } catch (const RequestError& error) {
    return error.what();
  }
  return "";
}

TEST(QuantityGrammar, TwoNumbersInARowAreRefusedWithWhatMayBeMeant) {
  for (const auto& [text, dimension, meant] :
       {std::tuple("1 500 kg/h", Dimension::mass_flow, "\"1500 kg/h\""),
        std::tuple("12 300 kg/h", Dimension::mass_flow, "\"12300 kg/h\""),
        std::tuple("1 2 bar", Dimension::pressure, "\"1, 2 bar\""),
        std::tuple("1..3 bar", Dimension::pressure, "\"1 to 3 by 0.5\""),
        std::tuple("20 30 degC", Dimension::temperature, "\"20, 30 degC\""),
        std::tuple("7 60 mmHg", Dimension::pressure, "a list"),
        std::tuple("1,013 mbar", Dimension::pressure, "\"1.013 mbar\", \"1013 mbar\""),
        std::tuple("1,2,4 bar", Dimension::pressure, "\"1, 2, 4 bar\""),
        std::tuple("20 to 3 0 by 5 degC", Dimension::temperature, "a list"),
        std::tuple("2 3", Dimension::number, "a list")})
    EXPECT_NE(refusal(text, dimension).find(meant), std::string::npos)
        << text << ": " << refusal(text, dimension);
}

TEST(QuantityGrammar, WhatPeopleTypeAndMeanIsTaken) {
  for (const char* text : {"60 C", "60 degC",
                           "60\xC2\xB0"
                           "C",
                           "60 \xC2\xB0"
                           "C",
                           "60C", "140 F", "140 degF", "333.15K", "333.15 k", "60 deg C", "60 \xE2\x84\x83"})
    EXPECT_NEAR(parse_quantity(text, Dimension::temperature), 333.15, 1e-9) << text;
  for (const char* text : {"1atm", "1 atm", "101325 Pa", "101.325kPa", "1.01325 bar", "1.01325bara",
                           "1.01325 bar(a)", "0 barg", "1013.25 mbar"})
    EXPECT_NEAR(parse_quantity(text, Dimension::pressure), 101325, 1e-6) << text;
  EXPECT_NEAR(parse_quantity("10 bara", Dimension::pressure), 1e6, 1e-6);
  EXPECT_NEAR(parse_quantity("760 mmHg", Dimension::pressure), 101325, 0.1);
  EXPECT_NEAR(parse_quantity("1 kg m-3", Dimension::density), 1, 1e-12);
  EXPECT_NEAR(parse_quantity("1e3 kg/h", Dimension::mass_flow), 1e3 / 3600, 1e-12);
  EXPECT_THROW(parse_quantity("60 C", Dimension::energy), RequestError);  // no coulomb, no energy
}

TEST(QuantityGrammar, AnswersTakeTheUnitOfTheQuestion) {
  EXPECT_EQ(unit_in("290 K", Dimension::temperature), "K");
  EXPECT_EQ(unit_in("60 C", Dimension::temperature), "degC");
  EXPECT_EQ(unit_in("0.5 to 2 by 0.5 bar", Dimension::pressure), "bar");
  EXPECT_EQ(unit_in("20 to 80 in 13 degF", Dimension::temperature), "degF");
  EXPECT_EQ(unit_in("1,4-dioxane=3 lb/h, water=600 kg/h", Dimension::mass_flow), "kg/h");
  EXPECT_EQ(unit_in("0.3", Dimension::mass_flow), std::nullopt);
}

// 100,000 random texts: what is taken is one number and one unit by another reading of the grammar, and means
// the number times the unit.
TEST(QuantityGrammar, NothingElseIsTaken) {
  std::mt19937 random(11);
  const std::vector<std::string> parts{"1",  "2",  "0.5",  "13",  "7e2", ".",   ",",   " ",    " ",  "-",
                                       "+",  "e",  "^",    "**",  "*",   "/",   "bar", "kPa",  "m",  "s",
                                       "kg", "h",  "degC", "K",   "@",   "to",  "(",   ")",    "%",  "atm",
                                       "C",  "lb", "J",    "mol", "in",  "2 3", "1e",  "from", "Pa", "mmHg"};
  // Not read by the code that is tested.
  const std::regex grammar(
      R"(\s*[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?\s*(-|[A-Za-z%]+((\^|\*\*)?[+-]?\d)?(\s*[/*.]?\s*[A-Za-z%]+((\^|\*\*)?[+-]?\d)?)*)?\s*)");
  std::uniform_int_distribution<std::size_t> which(0, parts.size() - 1), length(1, 6);
  int taken = 0;
  for (int k = 0; k < 100000; ++k) {
    std::string text;
    for (std::size_t n = length(random); n > 0; --n) text += parts[which(random)];
    for (const Dimension dimension : {Dimension::pressure, Dimension::temperature, Dimension::mass_flow,
                                      Dimension::fraction, Dimension::molar_energy}) {
      double value = 0;
      try {
        value = parse_quantity(text, dimension);
      } catch (const RequestError&) {
        continue;
      }
      ++taken;
      ASSERT_TRUE(std::regex_match(text, grammar)) << text;
      std::size_t used = 0;
      const double number = std::stod(text, &used);
      const std::string unit(trimmed(text.substr(used)));
      ASSERT_NEAR(value, to_si(number, unit, dimension), 1e-9 * std::abs(value)) << text;
    }
  }
  EXPECT_GT(taken, 1000);
}

TEST(NamedValues, NamesKeepTheirCommas) {
  const auto list = named_values("1,4-dioxane=0.2, N,N-dimethylformamide = 3 kg/h, water");
  ASSERT_EQ(list.size(), 3u);
  EXPECT_EQ(list[0].name, "1,4-dioxane");
  EXPECT_EQ(list[0].value, "0.2");
  EXPECT_EQ(list[1].name, "N,N-dimethylformamide");
  EXPECT_EQ(list[1].value, "3 kg/h");
  EXPECT_FALSE(list[2].has_value);
}

}  // namespace
}  // namespace jampot
