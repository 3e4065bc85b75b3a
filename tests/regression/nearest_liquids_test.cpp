// Fits of two liquids against the nearest tie line, exactly.
#include <gtest/gtest.h>

#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/fit.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// Mutual solubilities that no NRTL with one constant form follows: the fit is many uncertainties off.
DataSet far_off() {
  DataSet data;
  data.name = "far off";
  data.kind = DataKind::lle;
  data.substances = substances_named({"1-butanol", "water"});
  for (const auto& [T, alpha, beta] : {std::tuple(298.15, 0.019, 0.49),
                                       {313.15, 0.0165, 0.46},
                                       {333.15, 0.0162, 0.41},
                                       {353.15, 0.0172, 0.355},
                                       {373.15, 0.0215, 0.28}}) {
    DataPoint point{T, 0, {alpha, 1 - alpha}, {beta, 1 - beta}, 0.1, 0, 2e-4, 2e-3, 1};
    data.points.push_back(point);
  }
  return data;
}

// The squared distance from a point to the equilibria of a model, by search over the temperature alone.
double squared_distance(ActivityModel& model, const DataPoint& point) {
  double least = HUGE_VAL;
  for (int k = -4000; k <= 4000; ++k) {
    const double T = point.T_K + 0.002 * k;
    const auto splits = binary_splits(model, T);
    if (splits.empty()) continue;
    const auto square = [](double value) { return value * value; };
    least = std::min(least, square((splits[0].x1_alpha - point.x[0]) / point.u_x) +
                                square((splits[0].x1_beta - point.y[0]) / point.u_y) +
                                square((T - point.T_K) / point.u_T_K));
  }
  return least;
}

TEST(NearestLiquids, TheDistanceIsTheTrueOneAndTheSumIsTheLeast) {
  const DataSet data = far_off();
  const Fit result = fit({data});
  Mixture mixture = result.mixture();
  double sum = 0;
  for (const LiquidRow& row : result.liquid_residuals) {
    const double squared = squared_distance(mixture.activity(), row.measured);
    EXPECT_NEAR(row.distance(), std::sqrt(squared), 2e-3 * std::sqrt(squared));
    sum += squared;
    // The model beside it is the pair at that distance.
    const double shown = std::hypot((row.alpha[0] - row.measured.x[0]) / row.measured.u_x,
                                    (row.beta[0] - row.measured.y[0]) / row.measured.u_y);
    EXPECT_LE(shown, row.distance() * (1 + 1e-9));
    EXPECT_GT(shown, 0.5 * row.distance());
  }
  EXPECT_GT(sum, 500);  // far off indeed
  EXPECT_NEAR(result.objective / sum, 1, 1e-3);
  // No step of a parameter makes it smaller.
  for (const char* term : {"tau_12", "tau_21"}) {
    for (const double step : {-2.0, 2.0}) {
      ParameterCollection moved;
      PairParameters pair = result.pairs().front();
      pair.terms[term].inverse_T += step;
      moved.add(pair);
      const auto model = make_activity_model("nrtl", data.substances, moved);
      double other = 0;
      for (const DataPoint& point : data.points) other += squared_distance(*model, point);
      EXPECT_GT(other, sum * (1 - 1e-6)) << term << ' ' << step;
    }
  }
  ASSERT_TRUE(result.rms_liquids());
  EXPECT_GT(*result.rms_liquids(), 0.003);
}

}  // namespace
}  // namespace jampot
