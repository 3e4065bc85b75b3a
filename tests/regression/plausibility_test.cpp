// Data that cannot be right as they are stated, and what is said of them.
#include "jampot/regression/plausibility.hpp"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/regression/fit.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

Mixture by_unifac(const std::vector<std::string>& names) {
  return {substances_named(names), "unifac", {}};
}

std::string said_of(const DataSet& set) {
  const Notices notices = implausible(set);
  return notices.empty() ? "" : notices.begin()->text;
}

// Every mistake, in data with and without a vapour, at constant pressure and constant temperature.
TEST(Plausibility, TheMistakeIsNamed) {
  struct Mistake {
    const char* said;
    std::function<void(DataPoint&, const std::vector<Substance>&)> make;
    bool needs_vapour = false;
  };
  const auto in_mass = [](std::vector<double>& x, const std::vector<Substance>& of) {
    if (!x.empty()) x = mass_fractions(x, of);
  };
  const std::vector<Mistake> mistakes{
      {"degrees Celsius stated as kelvins", [](DataPoint& p, const auto&) { p.T_K -= celsius_zero; }},
      {"kelvins stated as degrees Celsius", [](DataPoint& p, const auto&) { p.T_K += celsius_zero; }},
      {"Fahrenheit stated as degrees Celsius",
       [](DataPoint& p, const auto&) { p.T_K = (p.T_K - celsius_zero) * 1.8 + 32 + celsius_zero; }},
      {"mmHg stated as kPa", [](DataPoint& p, const auto&) { p.P_Pa *= 7.500617; }},
      {"kPa stated as mmHg", [](DataPoint& p, const auto&) { p.P_Pa /= 7.500617; }},
      {"kPa stated as bar", [](DataPoint& p, const auto&) { p.P_Pa *= 100; }},
      {"components are exchanged",
       [](DataPoint& p, const auto&) {
         std::reverse(p.x.begin(), p.x.end());
         std::reverse(p.y.begin(), p.y.end());
       }},
      {"liquid and vapour are exchanged", [](DataPoint& p, const auto&) { std::swap(p.x, p.y); }, true},
      {"mass fractions stated as mole fractions",
       [&](DataPoint& p, const std::vector<Substance>& of) {
         in_mass(p.x, of);
         in_mass(p.y, of);
       },
       true}};
  for (const auto& names : {std::vector<std::string>{"methanol", "water"}, {"ethanol", "n-heptane"}}) {
    for (const DataKind kind : {DataKind::txy, DataKind::pxy, DataKind::tx}) {
      const DataSet right = test::synthetic(by_unifac(names), kind, 15, 3);
      EXPECT_EQ(said_of(right), "") << names[1];
      for (const Mistake& mistake : mistakes) {
        if (mistake.needs_vapour && !has_vapour(kind)) continue;
        if (names[1] != "water" && std::string(mistake.said).starts_with("mass")) continue;
        // Nearly the same boiling points and an azeotrope in the middle: without a vapour both ways are
        // possible.
        if (names[1] != "water" && kind == DataKind::tx && std::string(mistake.said).starts_with("comp"))
          continue;
        DataSet wrong = right;
        for (DataPoint& point : wrong.points) mistake.make(point, wrong.substances);
        EXPECT_NE(said_of(wrong).find(mistake.said), std::string::npos)
            << names[1] << ' ' << name_of(kind) << ", " << mistake.said << ": " << said_of(wrong);
      }
    }
  }
}

// Gauge pressures that vary.
TEST(Plausibility, GaugePressuresAreNamed) {
  DataSet set = test::synthetic(by_unifac({"methanol", "water"}), DataKind::pxy, 15, 3);
  for (DataPoint& point : set.points) {
    Mixture mixture = by_unifac({"methanol", "water"});
    point.T_K = 400;
    point.P_Pa = bubble_pressure(mixture, 400, point.x).P_Pa - standard_atmosphere;
    point.y = bubble_pressure(mixture, 400, point.x).y;
  }
  EXPECT_NE(said_of(set).find("gauge pressures stated as absolute"), std::string::npos) << said_of(set);
}

// Liquids of all kinds, with noise: strong deviations of both signs, azeotropes, almost immiscible, acids.
TEST(Plausibility, RightDataAreLeftInPeace) {
  for (const auto& names : {std::vector<std::string>{"acetone", "chloroform"},
                            {"ethanol", "water"},
                            {"n-hexane", "toluene"},
                            {"methanol", "n-hexane"},
                            {"1-butanol", "water"},
                            {"acetic acid", "water"},
                            {"acetonitrile", "water"},
                            {"2-butanone", "water"},
                            {"water", "1,2-ethanediol"},
                            {"n-pentane", "methanol"}}) {
    for (const DataKind kind : {DataKind::txy, DataKind::pxy, DataKind::px}) {
      for (unsigned seed = 1; seed < 4; ++seed)
        EXPECT_EQ(said_of(test::synthetic(by_unifac(names), kind, 13, seed, 2)), "")
            << names[0] << ' ' << names[1];
    }
  }
}

// It comes first, and what else is odd about such a fit does not drown it.
TEST(Plausibility, AFitSaysItFirstAndAlone) {
  DataSet wrong = test::synthetic(by_unifac({"methanol", "water"}), DataKind::txy, 15, 3);
  for (DataPoint& point : wrong.points) std::reverse(point.x.begin(), point.x.end());
  for (DataPoint& point : wrong.points) std::reverse(point.y.begin(), point.y.end());
  try {
    const Fit result = fit({wrong});
    EXPECT_EQ(result.notices.begin()->code, "data-implausible");
    EXPECT_EQ(std::distance(result.notices.begin(), result.notices.end()), 1);
  } catch (const std::runtime_error& error) {
    EXPECT_NE(std::string(error.what()).find("exchanged"), std::string::npos) << error.what();
  }
}

}  // namespace
}  // namespace jampot
