// Mutual solubilities and critical solution temperatures, where they have closed forms.
#include "jampot/diagram/solubility.hpp"

#include <gtest/gtest.h>

#include "jampot/diagram/liquid_comparison.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// ln gamma_1 = A x2^2 with A = 2 + depth - ((T - 330)/width)^2: two liquids where A > 2, critical at x = 1/2.
class Loop final : public ActivityModel {
 public:
  Loop(double depth, double width) : depth_(depth), width_(width) {}
  std::string_view name() const override { return "loop"; }
  std::size_t size() const override { return 2; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Loop>(*this); }
  void set_temperature(double T_K) override {
    const double t = (T_K - 330) / width_;
    model_ = test::Margules(2 + depth_ - t * t);
  }
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    model_.evaluate(x, ln_gamma, dT, dn);
  }

 private:
  double depth_, width_;
  test::Margules model_{2};
};

TEST(Solubility, AClosedLoopHasBothCriticalEnds) {
  Loop model(0.36, 40);  // A = 2 at 330 +- 24 K
  const SolubilityCurve curve = solubility(model, {290, 310, 330, 350, 370});
  ASSERT_EQ(curve.critical.size(), 2u);
  EXPECT_NEAR(curve.critical[0].T_K, 306, 1e-6);
  EXPECT_NEAR(curve.critical[1].T_K, 354, 1e-6);
  EXPECT_FALSE(curve.critical[0].upper);
  EXPECT_TRUE(curve.critical[1].upper);
  for (const CriticalSolution& critical : curve.critical) {
    EXPECT_NEAR(critical.x1, 0.5, 1e-5);
    EXPECT_NEAR(critical.curvature, 0, 1e-9);
  }
  EXPECT_TRUE(curve.points[0].splits.empty());
  ASSERT_EQ(curve.points[2].splits.size(), 1u);
  const double x = curve.points[2].splits[0].x1_alpha;  // ln((1-x)/x) = A (1 - 2x)
  EXPECT_NEAR(std::log((1 - x) / x), 2.36 * (1 - 2 * x), 1e-10);
  EXPECT_NE(curve.description().find("closed loop"), std::string::npos);
}

// Narrower than the steps of the search: found by the minimum of the stability function.
TEST(Solubility, ALoopBetweenTwoStepsIsFound) {
  Loop model(0.01, 10);  // A = 2 at 330 +- 1 K
  const SolubilityCurve curve = solubility(model, {275, 390});
  ASSERT_EQ(curve.critical.size(), 2u);
  EXPECT_NEAR(curve.critical[0].T_K, 329, 1e-6);
  EXPECT_NEAR(curve.critical[1].T_K, 331, 1e-6);
}

TEST(Solubility, NothingWhereNothingParts) {
  Loop model(-0.01, 10);
  const SolubilityCurve curve = solubility(model, {280, 330, 380});
  EXPECT_TRUE(curve.critical.empty());
  EXPECT_EQ(curve.description(), "one liquid throughout this range");
}

TEST(LiquidComparison, ExactPairsHaveNoDeviationWhicheverIsNamedFirst) {
  Loop model(0.36, 40);
  DataSet data;
  data.kind = DataKind::lle;
  data.substances = substances_named({"water", "toluene"});  // the model does not ask which
  for (const double T : {315.0, 330.0}) {
    const BinarySplit split = binary_splits(model, T).at(0);
    DataPoint point;
    point.T_K = T;
    point.x = {split.x1_beta, 1 - split.x1_beta};
    point.y = {split.x1_alpha, 1 - split.x1_alpha};
    data.points.push_back(point);
  }
  data.points.push_back(data.points.front());
  data.points.back().T_K = 280;  // one liquid there
  const LiquidComparison comparison = compare_liquids(model, data);
  EXPECT_EQ(comparison.without, 1);
  EXPECT_EQ(comparison.distance.count, 2);
  EXPECT_NEAR(comparison.distance.largest, 0, 1e-12);
}

}  // namespace
}  // namespace jampot
