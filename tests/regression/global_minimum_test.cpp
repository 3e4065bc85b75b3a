// The best of all minima, what is set aside, priors and constraints.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/regression/fit.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

const std::vector<std::vector<std::string>> pairs{{"methanol", "water"},      {"ethanol", "water"},
                                                  {"acetone", "methanol"},    {"ethanol", "toluene"},
                                                  {"2-propanol", "water"},    {"methanol", "ethyl acetate"},
                                                  {"acetone", "cyclohexane"}, {"1-propanol", "water"}};

// A random liquid of one phase, strongly non-ideal or hardly.
DataSet random_set(unsigned seed, int points) {
  std::mt19937_64 generator(seed);
  std::uniform_real_distribution<double> unit;
  const auto& names = pairs[generator() % pairs.size()];
  while (true) {
    PairParameters pair = test::nrtl_pair(names[0], names[1], 0, 0, 0.15 + 0.4 * unit(generator));
    pair.terms["tau_12"].constant = -1 + 2.5 * unit(generator);
    pair.terms["tau_21"].constant = -1 + 2.5 * unit(generator);
    ParameterCollection parameters;
    parameters.add(pair);
    Mixture mixture(substances_named(names), "nrtl", parameters);
    if (!binary_splits(mixture.activity(), 320).empty() || !binary_splits(mixture.activity(), 390).empty())
      continue;
    const DataKind kind = generator() % 2 == 0 ? DataKind::pxy : DataKind::txy;
    return test::synthetic(mixture, kind, points, seed);
  }
}

FitOptions with_alpha() {
  FitOptions options;
  options.release = {"alpha"};
  return options;
}

// The lowest possible minimum that a search from very many places finds.
double brute_force(const DataSet& set, FitOptions options, int starts) {
  options.starts = starts;
  return fit({set}, options).objective;
}

TEST(GlobalMinimum, IsFoundWithAlphaFree) {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    const DataSet set = random_set(seed, 15);
    const Fit found = fit({set}, with_alpha());
    const double best = brute_force(set, with_alpha(), 400);
    EXPECT_LE(found.objective, best + 1e-4 * (1 + best))
        << "seed " << seed << ", " << found.search.starts << " starts";
    EXPECT_TRUE(found.search.settled() || found.notices.has("search-unsettled"));
  }
}

TEST(SlowGlobalMinimum, IsFoundInAHundredRandomSets) {
  int found_it = 0;
  for (unsigned seed = 1001; seed <= 1100; ++seed) {
    FitOptions options;
    options.model = std::array{"nrtl", "wilson", "uniquac"}[seed % 3];
    if (options.model == "nrtl") options.release = {"alpha"};
    const DataSet set = random_set(seed, 12 + static_cast<int>(seed % 20));
    const Fit found = fit({set}, options);
    const double best = brute_force(set, options, 2000);
    const bool same = found.objective <= best + 1e-4 * (1 + best);
    found_it += same;
    EXPECT_TRUE(same) << "seed " << seed << ": " << found.objective << " instead of " << best;
  }
  EXPECT_EQ(found_it, 100);
}

// A lower minimum bends around single points.
TEST(GlobalMinimum, WhatCannotBeIsSetAsideAndSaid) {
  const DataSet set = random_set(1065, 17);
  const Fit found = fit({set}, with_alpha());
  ASSERT_GE(found.minima.size(), 2u);
  EXPECT_TRUE(found.minima.front().set_aside.empty());
  EXPECT_FALSE(found.minima.back().set_aside.empty());
  EXPECT_LT(found.minima.back().objective, found.objective);
  EXPECT_TRUE(found.notices.has("minimum-set-aside"));
  Mixture mixture = found.mixture();
  for (const double T : found.T_range_K) EXPECT_TRUE(binary_splits(mixture.activity(), T).empty());
}

// So little is measured that hardly two descents end in one place.
TEST(Search, ThatDoesNotSettleSaysSo) {
  const Fit found = fit({random_set(1089, 21)}, with_alpha());
  EXPECT_EQ(found.search.settled(), !found.notices.has("search-unsettled"));
  EXPECT_TRUE(found.notices.has("search-unsettled"));
}

TEST(GlobalMinimum, ManyPointsAreThinnedForTheSearchOnly) {
  Mixture mixture = test::mtbe_methanol();
  const Fit all = fit({test::synthetic(mixture, DataKind::txy, 400, 3)}, with_alpha());
  EXPECT_EQ(all.points, 400);
  EXPECT_NEAR(all.objective / all.degrees_of_freedom, 1, 0.15);
}

TEST(Search, SoManyStartsAsWereAskedFor) {
  FitOptions options;
  options.starts = 5;
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 20, 3);
  EXPECT_EQ(fit({set}, options).search.starts, 5);
  const Fit found = fit({set});
  EXPECT_GE(found.search.starts, 16);
  EXPECT_TRUE(found.search.settled());
}

// Two points at either end leave a model free to bend as it likes between them.
TEST(Constraints, OneLiquidWhereAskedFor) {
  const DataSet set = parse_measured(
      "# substances: 1-butanol, water\n# u(T): 0.05 K\n# u(P): 0.1 kPa\n# u(x): 0.001\n# u(y): 0.003\n"
      "T [degC], P [kPa], x1, y1\n95.8, 101.3, 0.012, 0.167\n94.2, 101.3, 0.017, 0.221\n97.5, 101.3, 0.55, "
      "0.31\n"
      "101.1, 101.3, 0.73, 0.42\n108.8, 101.3, 0.90, 0.65\n",
      "butanol.csv");
  FitOptions options;
  options.no_split = true;
  const Fit one = fit({set}, options);
  Mixture mixture = one.mixture();
  for (const double T : {one.T_range_K[0], one.T_range_K[1]})
    EXPECT_TRUE(binary_splits(mixture.activity(), T).empty()) << T;
  EXPECT_GT(one.objective, fit({set}).objective);
  options.model = "wilson";  // which has no split to exclude
  const Fit without = fit({set}, options);
  FitOptions plain;
  plain.model = "wilson";
  EXPECT_NEAR(without.objective, fit({set}, plain).objective, 1e-6 * without.objective);
}

TEST(Priors, AreWeighedLikeOneMoreValue) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::pxy, 8, 4);
  FitOptions options = with_alpha();
  const Fit free = fit({set}, options);
  const auto alpha = [](const Fit& result) { return *result.free().back(); };
  ASSERT_EQ(alpha(free).name, "alpha");
  options.priors = {{"alpha", 0.3, 0.01}};
  const Fit held = fit({set}, options);
  EXPECT_NEAR(alpha(held).value, 0.3, 0.02);
  EXPECT_LT(alpha(held).std_error, 0.0101);
  EXPECT_EQ(held.comparisons, free.comparisons + 1);
  options.priors = {{"alpha", 0.3, 1e4}};  // nothing is known
  const Fit vague = fit({set}, options);
  EXPECT_NEAR(vague.objective, free.objective, 1e-4);
  EXPECT_NEAR(alpha(vague).std_error, alpha(free).std_error, 1e-3 * alpha(free).std_error);
  options.priors = {{"tau_13", 0.3, 0.1}};
  EXPECT_THROW(fit({set}, options), RequestError);
  options.priors = {{"alpha", 0.3, 0}};
  EXPECT_THROW(fit({set}, options), RequestError);
}

TEST(ErrorsByScatter, GrowWithTheMisfitAndNeverShrink) {
  FitOptions options;
  options.errors = Errors::scatter;
  for (const double scale : {0.3, 3.0}) {
    const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 30, 4, scale);
    const Fit stated = fit({set}), scattered = fit({set}, options);
    const double factor = std::sqrt(std::max(1.0, stated.objective / stated.degrees_of_freedom));
    EXPECT_NEAR(scattered.free()[0]->std_error, factor * stated.free()[0]->std_error,
                1e-4 * scattered.free()[0]->std_error);
    if (scale > 1) {
      EXPECT_GT(factor, 2);
    }
  }
}

}  // namespace
}  // namespace jampot
