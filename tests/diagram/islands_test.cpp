// Regions of two liquids that touch no side of the triangle, at one temperature and boiling, against a test
// of single compositions.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/constants.hpp"
#include "jampot/diagram/boiling_region.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// Two that like each other and a third that likes neither: no pair parts, but what lies between may.
Mixture with_island(double attraction, double first, double second) {
  const auto substances = substances_named({"ethyl acetate", "ethanol", "acetonitrile"});
  ParameterCollection parameters;
  const auto add = [&](std::size_t i, std::size_t j, double A) {
    PairParameters pair;
    pair.model = "margules";
    pair.between = {substances[i].name, substances[j].name};
    pair.terms["A_12"].constant = pair.terms["A_21"].constant = A;
    parameters.add(pair);
  };
  add(0, 1, attraction);
  add(0, 2, first);
  add(1, 2, second);
  return Mixture(substances, "margules", parameters);
}

double widest(const auto& region) {
  double length = 0;
  for (const auto& line : region.tie_lines) length = std::max(length, line.length());
  return length;
}

TEST(Islands, AreFoundWhateverTheirSizeAndOnce) {
  std::mt19937_64 generator(17);
  std::uniform_real_distribution<double> attraction(-4, -1.5), above(-0.02, 0.12), skew(-0.3, 0.3);
  constexpr double T_K = 340;
  int islands = 0, small = 0, parted = 0;
  for (int k = 0; k < 60; ++k) {
    const double a = attraction(generator), c = 2 + a / 4 + above(generator), d = skew(generator);
    Mixture mixture = with_island(a, c + d, c - d);
    const TernaryDiagram diagram = ternary_diagram(mixture.activity(), T_K);
    const BoilingRegions boiling = boiling_regions(mixture, standard_atmosphere);
    EXPECT_EQ(diagram.regions.size(), boiling.regions.size());  // Margules: the same at every temperature
    EXPECT_LE(boiling.regions.size(), 1u);
    EXPECT_TRUE(boiling.notices.empty());
    islands += boiling.regions.size() == 1;
    if (boiling.regions.size() == 1) small += widest(boiling.regions[0]) < 1.0 / 12;
    BoilingLiquid liquid(mixture, standard_atmosphere, boiling);
    LiquidSplitter splitter(mixture.activity(), T_K);
    for (int n = 0; n < 40; ++n) {
      const auto z = test::random_composition(generator, 3);
      double distance = 0;
      const bool parts = splitter.more_stable(z, distance).has_value();
      if (std::abs(distance) < 1e-4 && distance != 0) continue;  // at the rim, drawn as a polygon
      parted += parts;
      EXPECT_EQ(diagram.liquids_at({z[0], z[1], z[2]}) > 1, parts) << k;
      liquid.at({z[0], z[1], z[2]});
      EXPECT_EQ(liquid.liquids() > 1, parts) << k << ": " << z[0] << ", " << z[1];
    }
  }
  EXPECT_GT(islands, 20);
  EXPECT_LT(islands, 60);
  EXPECT_GT(small, 0);
  EXPECT_GT(parted, 50);
}

// Just above the critical strength of the repulsion the island is smaller than the lattice of the search.
TEST(Islands, SmallerThanTheLatticeAreFound) {
  for (const double attraction : {-4.0, -3.0, -2.0}) {
    double none = 0.8, some = 1.95;
    while (some - none > 1e-4) {
      const double middle = (none + some) / 2;
      Mixture mixture = with_island(attraction, middle, middle);
      (boiling_regions(mixture, standard_atmosphere).regions.empty() ? none : some) = middle;
    }
    // On the line x1 = x2 = (1 - z)/2: d2(g/RT)/dz2 = 1/z + 1/(1-z) + attraction/2 - 2 repulsion, zero at z =
    // 1/2.
    EXPECT_NEAR(some, 2 + attraction / 4, 1e-3) << attraction;
  }
}

// A model of one's own that has no answer somewhere: what could not be searched is said.
class Patchy final : public ActivityModel {
 public:
  std::string_view name() const override { return "patchy"; }
  std::size_t size() const override { return 3; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Patchy>(*this); }
  void set_temperature(double) override {}
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    const double off = std::hypot(x[0] - 1.0 / 3, x[1] - 1.0 / 3);
    for (double& value : ln_gamma) value = off < 0.1 ? NAN : 0;
    for (double& value : dT) value = 0;
    for (double& value : dn) value = 0;
  }
};

TEST(Islands, ASearchWithHolesSaysSo) {
  Mixture mixture(substances_named({"ethyl acetate", "ethanol", "acetonitrile"}), std::make_unique<Patchy>(),
                  {});
  const BoilingRegions found = boiling_regions(mixture, standard_atmosphere);
  EXPECT_TRUE(found.regions.empty());
  EXPECT_TRUE(found.notices.has("search-coarse"));
}

}  // namespace
}  // namespace jampot
