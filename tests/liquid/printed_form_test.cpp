// Terms as print states them, and back.
#include "jampot/liquid/printed_form.hpp"

#include <gtest/gtest.h>

#include <random>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

TEST(PrintedForm, IsReadBackToTheLastPrintedDigit) {
  std::mt19937_64 generator(4);
  std::normal_distribution<double> normal;
  for (const char* name : {"K", "J/mol", "cal/mol", "1"}) {
    const EnergyUnit unit = parse_energy_unit(name);
    for (int k = 0; k < 200; ++k) {
      TemperatureFunction term{3 * normal(generator), 900 * normal(generator), 0.5 * normal(generator),
                               0.01 * normal(generator)};
      if (k % 2 == 0) term.log_T = 0;
      if (k % 3 == 0) term.linear_T = 0;
      if (k % 5 == 0) term.constant = 0;
      const std::string text = printed_formula(term, unit);
      const TemperatureFunction back = parse_formula(text, unit);
      for (const Coefficient coefficient : all_coefficients)
        EXPECT_NEAR(back[coefficient], term[coefficient], 1e-9 * std::abs(term[coefficient])) << text;
    }
  }
}

TEST(PrintedForm, HasTheBasisOfItsUnit) {
  const TemperatureFunction term{-1.2, 550, 0.3, 0.01};
  EXPECT_EQ(printed_formula(term, EnergyUnit::dimensionless), "-1.2 + 0.01 T + 0.3 ln T + 550/T");
  EXPECT_EQ(printed_formula(term, EnergyUnit::kelvin), "550 - 1.2 T + 0.01 T^2 + 0.3 T ln T");
  EXPECT_EQ(printed_formula({0, 100, 0, 0}, EnergyUnit::joule_mol), "831.4462618");
  EXPECT_EQ(printed_formula({}, EnergyUnit::joule_mol), "0");
  for (const double T : {280.0, 400.0}) {
    const double energy = 550 - 1.2 * T + 0.01 * T * T + 0.3 * T * std::log(T);
    EXPECT_NEAR(energy / T, term.value(T), 1e-12);
  }
}

TEST(PrintedForm, WhatIsNoFormulaIsRefused) {
  for (const char* text : {"", "abc", "1 + ", "1 2", "3 T^3", "1/T/T", "+", "nan T"}) {
    EXPECT_THROW(parse_formula(text, EnergyUnit::dimensionless), RequestError) << text;
    EXPECT_THROW(parse_formula(text, EnergyUnit::joule_mol), RequestError) << text;
  }
  EXPECT_THROW(parse_formula("1/T", EnergyUnit::joule_mol), RequestError);
  EXPECT_THROW(parse_formula("1 T ln T", EnergyUnit::dimensionless), RequestError);
}

}  // namespace
}  // namespace jampot
