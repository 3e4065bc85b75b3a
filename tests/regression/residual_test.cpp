#include <gtest/gtest.h>

#include "regression/vle_residual.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

// Every Jacobian of a cost function against central differences.
void expect_exact_jacobians(const ceres::CostFunction& cost, std::vector<std::vector<double>> blocks) {
  const auto rows = static_cast<std::size_t>(cost.num_residuals());
  std::vector<const double*> pointers;
  std::vector<std::vector<double>> jacobians;
  std::vector<double*> jacobian_pointers;
  for (const auto& block : blocks) jacobians.emplace_back(rows * block.size());
  for (std::size_t b = 0; b < blocks.size(); ++b) {
    pointers.push_back(blocks[b].data());
    jacobian_pointers.push_back(jacobians[b].data());
  }
  std::vector<double> residuals(rows);
  ASSERT_TRUE(cost.Evaluate(pointers.data(), residuals.data(), jacobian_pointers.data()));
  for (std::size_t b = 0; b < blocks.size(); ++b) {
    for (std::size_t c = 0; c < blocks[b].size(); ++c) {
      const double before = blocks[b][c];
      for (std::size_t r = 0; r < rows; ++r) {
        const auto along = [&](double value) {
          blocks[b][c] = value;
          EXPECT_TRUE(cost.Evaluate(pointers.data(), residuals.data(), nullptr));
          return residuals[r];
        };
        const double numerical = test::derivative(along, before, 1e-3);
        EXPECT_NEAR(jacobians[b][r * blocks[b].size() + c], numerical, 1e-6 * (1 + std::abs(numerical)));
        blocks[b][c] = before;
      }
    }
  }
}

TEST(Residuals, JacobiansAreExact) {
  const DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 5, 3);
  FitContext context(test::mtbe_methanol(), {{0, Coefficient::inverse_T, 330},
                                             {1, Coefficient::inverse_T, 330},
                                             {1, Coefficient::constant, 1},
                                             {2, Coefficient::constant, 1}});
  for (const DataPoint& point : data.points) {
    expect_exact_jacobians(AdjustedPointResidual(context, point), {{0.7, 0.6, 0.1, 0.32}, {0.4, -0.8}});
    expect_exact_jacobians(BubblePointResidual(context, point, Sought::pressure), {{0.7, 0.6, 0.1, 0.32}});
    expect_exact_jacobians(BubblePointResidual(context, point, Sought::temperature), {{0.7, 0.6, 0.1, 0.32}});
  }
}

// The parts that the linear solver sees are the rows of the whole, at whatever place was asked before.
TEST(Residuals, PartsAreTheWhole) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 4, 3);
  data.points[1].y.clear();  // P alone: its last row is empty
  const std::vector<FreeParameter> free{{0, Coefficient::inverse_T, 330}, {1, Coefficient::constant, 1}};
  FitContext context(test::mtbe_methanol(), free);
  for (const DataPoint& point : data.points) {
    const AdjustedPointResidual remembering(context, point);
    const AdjustmentRows above(2);
    const EquilibriumRows below(remembering);
    expect_exact_jacobians(above, {{0.4, -0.8}});
    expect_exact_jacobians(below, {{0.7, 0.1}, {0.4, -0.8}});
    const std::size_t rows = point.y.empty() ? 3 : 4;
    for (const std::vector<double>& parameters : {std::vector{0.7, 0.1}, {0.6, 0.1}, {0.7, 0.1}}) {
      for (const std::vector<double>& adjustments :
           {std::vector{0.4, -0.8}, {0.4, 0.8}, {-1000.0, 0.0}, {-1000.0, 0.0}, {0.4, 0.8}}) {
        const AdjustedPointResidual fresh(context, point);
        const double* blocks[] = {parameters.data(), adjustments.data()};
        std::vector<double> whole(4), parts(4), J(8), J_parts(8);
        double* jacobians[] = {J.data(), nullptr};
        double* jacobians_below[] = {J_parts.data() + 4, nullptr};
        const bool inside = fresh.Evaluate(blocks, whole.data(), jacobians);
        EXPECT_TRUE(above.Evaluate(&blocks[1], parts.data(), nullptr));
        EXPECT_EQ(below.Evaluate(blocks, &parts[2], nullptr), inside);
        EXPECT_EQ(below.Evaluate(blocks, &parts[2], jacobians_below), inside);
        EXPECT_EQ(inside, adjustments[0] > -1000);
        if (!inside) continue;
        EXPECT_EQ(parts, whole);
        EXPECT_EQ(std::vector(J_parts.begin(), J_parts.begin() + 2 * static_cast<long>(rows)),
                  std::vector(J.begin(), J.begin() + 2 * static_cast<long>(rows)));
      }
    }
  }
}

TEST(Residuals, TernaryJacobiansAreExact) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("ethanol", "acetone", 100, 50, 0.3));
  parameters.add(test::nrtl_pair("ethanol", "toluene", 200, 350, 0.4));
  parameters.add(test::nrtl_pair("acetone", "toluene", 120, 80, 0.3));
  Mixture mixture(substances_named({"ethanol", "acetone", "toluene"}), "nrtl", parameters);
  const VlePoint exact = bubble_temperature(mixture, 101325, std::vector<double>{0.3, 0.2, 0.5});
  const DataPoint point{exact.T_K, exact.P_Pa, exact.x, exact.y, 0.1, 100, 0.003, 0.005};
  FitContext context(mixture, {{3, Coefficient::inverse_T, 330}, {7, Coefficient::inverse_T, 330}});
  expect_exact_jacobians(AdjustedPointResidual(context, point), {{0.5, 0.3}, {0.4, -0.8, 0.3}});
}

TEST(Residuals, OutsideTheTriangleIsNotEvaluated) {
  const DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 5, 3);
  FitContext context(test::mtbe_methanol(), {{0, Coefficient::inverse_T, 330}});
  const AdjustedPointResidual residual(context, data.points[0]);
  const std::vector<double> parameters{0.7}, adjustments{-1000, 0};
  const double* blocks[] = {parameters.data(), adjustments.data()};
  std::vector<double> values(4);
  EXPECT_FALSE(residual.Evaluate(blocks, values.data(), nullptr));
}

}  // namespace
}  // namespace jampot
