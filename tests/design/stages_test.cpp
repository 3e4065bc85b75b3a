// A column as a study: which substance goes over the top, the state of the feed, what is said.
#include "jampot/study/stages.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/report/stages.hpp"
#include "support.hpp"

namespace jampot {
namespace {

StagesRequest column(const std::vector<std::string>& names, const std::string& liquid, double feed,
                     double top, double bottom) {
  StagesRequest request;
  request.mixture = mixture_of(names, liquid);
  request.feed = feed_of_moles({feed, 1 - feed});
  request.top = {top, 1 - top};
  request.bottom = {bottom, 1 - bottom};
  return request;
}

// Named in either order the column is the same.
TEST(Stages, TheOrderOfTheSubstancesDoesNotMatter) {
  const StagesStudy one = study(column({"methanol", "water"}, "unifac", 0.4, 0.97, 0.02));
  const StagesStudy other = study(column({"water", "methanol"}, "unifac", 0.6, 0.03, 0.98));
  EXPECT_EQ(one.light, 0u);
  EXPECT_EQ(other.light, 1u);
  EXPECT_NEAR(one.least.ratio, other.least.ratio, 1e-6);
  EXPECT_NEAR(one.stages.count, other.stages.count, 1e-5);
  EXPECT_NEAR(one.exact->count, other.exact->count, 1e-5);
  EXPECT_NEAR(one.exact->reboiler_J_mol, other.exact->reboiler_J_mol, 1e-2);
  EXPECT_NEAR(one.total.count, other.total.count, 1e-6);
}

// Benzene and toluene nearly have one relative volatility and one latent heat.
TEST(Stages, BenzeneAndTolueneAreNearlyClosedForms) {
  StagesRequest request = column({"benzene", "toluene"}, "ideal", 0.44, 0.974, 0.0235);
  request.reflux = 3.5;
  const StagesStudy found = study(request);
  EXPECT_LT(std::abs(found.exact->count / found.stages.count - 1), 0.05);
  const double alpha = std::sqrt(found.volatility[0] * found.volatility[1]);
  const double fenske = std::log(0.974 / 0.026 * 0.9765 / 0.0235) / std::log(alpha);
  EXPECT_NEAR(found.total.count, fenske, 0.25);
  // A colder feed condenses vapour: more liquid than there is feed, and a smaller least reflux.
  request.feed_T_K = 293.15;
  const StagesStudy cold = study(request);
  EXPECT_GT(cold.task.feed_liquid, 1.2);
  EXPECT_LT(cold.task.feed_liquid, 1.5);
  EXPECT_LT(cold.least.ratio, found.least.ratio);
  // Heat in is heat out: the feed at its own temperature.
  EXPECT_GT(cold.exact->reboiler_J_mol, found.exact->reboiler_J_mol);
  request.feed_T_K = 400;
  EXPECT_THROW(study(request), RequestError);
}

// The worked example on benzene and toluene in W. L. McCabe, J. C. Smith, P. Harriott, Unit Operations of
// Chemical Engineering, chapter on distillation: 40 per cent of benzene by mass in the feed, 97 at the top
// and 2 at the bottom. Least refluxes printed for three states of the feed; those of the colder and of the
// partly evaporated one were read off the drawing.
TEST(Stages, LeastRefluxesAreThoseOfAWorkedExampleInPrint) {
  StagesRequest request = column({"benzene", "toluene"}, "ideal", 0.44, 0.974, 0.0235);
  request.reflux = 3.5;
  constexpr double q[] = {1, 1.37, 1.0 / 3}, printed[] = {1.45, 1.17, 2.16};
  for (std::size_t k = 0; k < 3; ++k) {
    request.feed_liquid = q[k];
    const StagesStudy found = study(request);
    EXPECT_NEAR(found.least.ratio, printed[k], 0.04 * printed[k]) << q[k];
  }
}

TEST(Stages, WhatMustBeKnownIsSaid) {
  EXPECT_TRUE(study(column({"acetone", "water"}, "unifac", 0.5, 0.94, 0.02)).notices.has("tangent-pinch"));
  EXPECT_TRUE(
      study(column({"methanol", "water"}, "unifac", 0.4, 0.97, 0.02)).notices.has("overflow-not-constant"));
  EXPECT_THROW(study(column({"ethanol", "water"}, "unifac", 0.4, 0.96, 0.02)), CalculationError);
  // Beyond the azeotrope ethanol leaves at the bottom.
  const StagesStudy beyond = study(column({"ethanol", "water"}, "unifac", 0.95, 0.91, 0.995));
  EXPECT_EQ(beyond.light, 1u);
  EXPECT_GT(beyond.stages.count, 1);
  StagesRequest little = column({"methanol", "water"}, "unifac", 0.4, 0.97, 0.02);
  little.reflux = 0.3;
  EXPECT_THROW(study(little), CalculationError);
  little.reflux.reset();
  little.reflux_factor = 1;
  EXPECT_THROW(study(little), RequestError);
  const StagesStudy fluid = study(column({"propane", "n-butane"}, "pr", 0.5, 0.95, 0.05));
  EXPECT_FALSE(fluid.exact);
  EXPECT_TRUE(fluid.notices.has("no-exact-stages"));
}

// The heat of the reboiler is that of the condenser, the products and the feed, whatever goes on between.
TEST(Stages, AnEfficiencyTakesMoreStagesAndTheSameHeat) {
  StagesRequest request = column({"methanol", "water"}, "unifac", 0.4, 0.97, 0.02);
  request.reflux = 1.5;
  request.simple = true;
  const StagesStudy whole = study(request);
  request.efficiency = 0.6;
  const StagesStudy part = study(request);
  EXPECT_GT(part.stages.count, 1.3 * whole.stages.count);
  ASSERT_TRUE(part.exact && whole.exact) << part.no_exact;
  EXPECT_GT(part.exact->count, 1.3 * whole.exact->count);
  EXPECT_NEAR(part.exact->reboiler_J_mol, whole.exact->reboiler_J_mol, 1e-6);
  ASSERT_TRUE(whole.simple);
  EXPECT_NEAR(whole.simple->left * 0.02 + (1 - whole.simple->left) * whole.simple->distillate, 0.4, 1e-9);
  const Answer told = answer(whole);
  ASSERT_TRUE(told.figure);
  EXPECT_EQ(told.tables.back().rows.size(), whole.stages.stages.size());
}

}  // namespace
}  // namespace jampot
