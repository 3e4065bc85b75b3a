#include "jampot/basis/quantity.hpp"

#include <gtest/gtest.h>

#include <tuple>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

TEST(Quantity, ReadsWhatEngineersWrite) {
  EXPECT_DOUBLE_EQ(parse_quantity("1 atm", Dimension::pressure), 101325);
  EXPECT_DOUBLE_EQ(parse_quantity("1.3bar", Dimension::pressure), 130000);
  EXPECT_NEAR(parse_quantity("760 mmHg", Dimension::pressure), 101325, 0.1);
  EXPECT_NEAR(parse_quantity("760 torr", Dimension::pressure), 101325, 0.1);
  EXPECT_NEAR(parse_quantity("15 psi", Dimension::pressure), 103421.4, 0.1);
  EXPECT_NEAR(parse_quantity("15 psig", Dimension::pressure), 103421.4 + 101325, 0.1);
  EXPECT_DOUBLE_EQ(parse_quantity("2 barg", Dimension::pressure), 301325);
  EXPECT_DOUBLE_EQ(parse_quantity("60 degC", Dimension::temperature), 333.15);
  EXPECT_NEAR(parse_quantity("140 degF", Dimension::temperature), 333.15, 1e-9);
  EXPECT_DOUBLE_EQ(parse_quantity("-20 °C", Dimension::temperature), 253.15);
  EXPECT_DOUBLE_EQ(parse_quantity("30%", Dimension::fraction), 0.3);
  EXPECT_DOUBLE_EQ(parse_quantity("30 mol%", Dimension::fraction), 0.3);
}

// The units that are converted without the unit library, against longer names that it alone knows.
TEST(Quantity, EverydayUnitsConvertAsTheUnitLibraryDoes) {
  using enum Dimension;
  const std::tuple<const char*, const char*, Dimension> pairs[]{{"K", "kelvin", temperature},
                                                                {"degC", "celsius", temperature},
                                                                {"Pa", "pascal", pressure},
                                                                {"kPa", "kilopascal", pressure},
                                                                {"bar", "bars", pressure},
                                                                {"atm", "standard_atmosphere", pressure},
                                                                {"J/mol", "joule/mole", molar_energy},
                                                                {"kJ/mol", "kilojoule/mole", molar_energy},
                                                                {"kg/m3", "kilogram m-3", density},
                                                                {"mol", "mole", amount},
                                                                {"kmol", "kilomole", amount},
                                                                {"kg", "kilogram", mass}};
  for (const auto& [everyday, of_the_library, dimension] : pairs) {
    for (const double value : {0.0, 1.0, 37.125, 1e-6}) {
      EXPECT_EQ(to_si(value, everyday, dimension), to_si(value, of_the_library, dimension)) << everyday;
      EXPECT_EQ(from_si(value, everyday, dimension), from_si(value, of_the_library, dimension)) << everyday;
    }
  }
}

TEST(Quantity, UncertaintyInCelsiusIsADifference) {
  EXPECT_DOUBLE_EQ(parse_difference("0.05 degC", Dimension::temperature), 0.05);
  EXPECT_NEAR(parse_difference("0.9 degF", Dimension::temperature), 0.5, 1e-12);
  EXPECT_DOUBLE_EQ(parse_difference("0.1 barg", Dimension::pressure), 1e4);
}

TEST(Quantity, ListsAndRanges) {
  EXPECT_EQ(parse_quantities("1, 2, 4 bar", Dimension::pressure), (std::vector<double>{1e5, 2e5, 4e5}));
  const auto steps = parse_quantities("20 to 80 by 5 degC", Dimension::temperature);
  ASSERT_EQ(steps.size(), 13u);
  EXPECT_DOUBLE_EQ(steps.front(), 293.15);
  EXPECT_NEAR(steps.back(), 353.15, 1e-9);
  EXPECT_EQ(parse_quantities("20 to 80 in 13 degC", Dimension::temperature).size(), 13u);
  const auto down = parse_quantities("80 to 20 by 20 degC", Dimension::temperature);
  ASSERT_EQ(down.size(), 4u);
  EXPECT_NEAR(down.back(), 293.15, 1e-9);
  const auto mixed = parse_quantities("20 degC to 350 K in 2", Dimension::temperature);
  EXPECT_NEAR(mixed[0], 293.15, 1e-9);
  EXPECT_NEAR(mixed[1], 350, 1e-9);
  EXPECT_EQ(parse_quantities("0.1 to 20 by 0.5 bar", Dimension::pressure).size(), 40u);
}

std::string message_of(const std::string& text, Dimension dimension) {
  try {
    parse_quantities(text, dimension);
  } catch (const RequestError& error) {
    return error.what();
  }
  return "no error";
}

TEST(Quantity, RefusesWithTheNearestRightThing) {
  EXPECT_NE(message_of("60 degX", Dimension::temperature).find("Did you mean degC"), std::string::npos);
  EXPECT_NE(message_of("1 baar", Dimension::pressure).find("bar"), std::string::npos);
  EXPECT_NE(message_of("60", Dimension::temperature).find("a number and a unit"), std::string::npos);
  EXPECT_NE(message_of("1 bar", Dimension::temperature).find("not a unit of temperature"), std::string::npos);
  EXPECT_NE(message_of("-300 degC", Dimension::temperature).find("absolute zero"), std::string::npos);
  EXPECT_NE(message_of("0 bar", Dimension::pressure).find("positive"), std::string::npos);
  EXPECT_NE(message_of("nan bar", Dimension::pressure).find("expected a number"), std::string::npos);
  EXPECT_NE(message_of("20 to 80 degC", Dimension::temperature).find("by 5 degC"), std::string::npos);
  EXPECT_NE(message_of("20 to 80 by 0 degC", Dimension::temperature).find("zero"), std::string::npos);
  EXPECT_NE(message_of("20 to 80 in 1.5 degC", Dimension::temperature).find("whole number"),
            std::string::npos);
}

TEST(Quantity, DisplayUnits) {
  const DisplayUnits units = parse_display_units("bar, K");
  EXPECT_EQ(units.pressure, "bar");
  EXPECT_EQ(units.temperature, "K");
  EXPECT_DOUBLE_EQ(from_si(2e5, units.pressure, Dimension::pressure), 2);
  EXPECT_THROW(parse_display_units("parsec"), RequestError);
}

// A unit that the unit library takes for a temperature, and whose conversion is no number.
TEST(Quantity, AUnitWithoutAConversionIsRefused) {
  for (const char* text : {"0 t/t/y\xE2\x84\x83", "5 t/t/y\xE2\x84\x83", "1e300 Tbar", "1e300 GK"}) {
    for (const Dimension dimension : {Dimension::temperature, Dimension::pressure}) {
      EXPECT_THROW(parse_quantity(text, dimension), RequestError) << text;
      EXPECT_THROW(parse_quantities(text, dimension), RequestError) << text;
    }
  }
}

}  // namespace
}  // namespace jampot
