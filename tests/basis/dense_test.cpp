// Factorisations of small dense matrices, held against what defines them.
#include "basis/dense.hpp"

#include <gtest/gtest.h>

#include <random>

namespace jampot {
namespace {

class Dense : public ::testing::Test {
 protected:
  Eigen::MatrixXd random(Eigen::Index rows, Eigen::Index columns) {
    std::normal_distribution<double> normal;
    return Eigen::MatrixXd::NullaryExpr(rows, columns, [&] { return normal(random_); });
  }
  Eigen::MatrixXd symmetric(Eigen::Index n) {
    const Eigen::MatrixXd A = random(n, n);
    return A + A.transpose();
  }

  std::mt19937_64 random_{20261201};
};

double largest(const Eigen::MatrixXd& A) {
  return A.size() == 0 ? 0 : A.cwiseAbs().maxCoeff();
}

// A v = lambda v with vectors at right angles of length one, values in rising order.
void expect_eigen(const Eigen::MatrixXd& A) {
  const Eigen::Index n = A.rows();
  const SymmetricEigen eigen = symmetric_eigen(A);
  ASSERT_EQ(eigen.values.size(), n);
  ASSERT_EQ(eigen.vectors.rows(), n);
  ASSERT_EQ(eigen.vectors.cols(), n);
  const double scale = std::max(largest(A), 1e-300);
  const Eigen::MatrixXd unit = eigen.vectors.transpose() * eigen.vectors;
  EXPECT_LT(largest(unit - Eigen::MatrixXd::Identity(n, n)), 1e-13) << A;
  EXPECT_LT(largest((A / scale) * eigen.vectors - eigen.vectors * (eigen.values / scale).asDiagonal()), 2e-13)
      << A;
  for (Eigen::Index k = 0; k + 1 < n; ++k) EXPECT_LE(eigen.values[k], eigen.values[k + 1]);
  EXPECT_NEAR((eigen.values / scale).sum(), (A / scale).trace(), 1e-12);
}

TEST_F(Dense, SymmetricMatricesOfAnySizeHaveTheirEigenvectors) {
  for (Eigen::Index n = 0; n <= 14; ++n) {
    for (int k = 0; k < 20; ++k) expect_eigen(symmetric(n));
  }
}

TEST_F(Dense, EigenvectorsOfMatricesWithZerosEqualValuesAndExtremeSizes) {
  expect_eigen(Eigen::MatrixXd::Zero(4, 4));
  expect_eigen(Eigen::MatrixXd::Identity(5, 5));
  expect_eigen(Eigen::Vector3d(3, -1, 2).asDiagonal());
  expect_eigen(Eigen::MatrixXd::Ones(6, 6));
  Eigen::MatrixXd apart = symmetric(5);
  apart.row(1).setZero();
  apart.col(1).setZero();
  expect_eigen(apart);
  for (const double size : {1e-200, 1e200}) expect_eigen(size * symmetric(4));
  // Scales that differ within one matrix, as those of a fit do.
  const Eigen::Vector4d scales(1, 1e-3, 1e4, 1e-6);
  expect_eigen(scales.asDiagonal() * symmetric(4) * scales.asDiagonal());
}

TEST_F(Dense, EigenvaluesAreThoseOfTheGeneralSolver) {
  for (Eigen::Index n = 1; n <= 8; ++n) {
    const Eigen::MatrixXd A = symmetric(n);
    std::vector<double> general = real_eigenvalues(A);
    std::sort(general.begin(), general.end());
    const Eigen::VectorXd values = symmetric_eigen(A).values;
    for (Eigen::Index k = 0; k < n; ++k)
      EXPECT_NEAR(values[k], general[static_cast<std::size_t>(k)], 1e-12 * (1 + largest(A)));
  }
}

TEST_F(Dense, AllSolversSolve) {
  for (Eigen::Index n = 1; n <= 8; ++n) {
    const Eigen::MatrixXd A = random(n, n) + 3 * Eigen::MatrixXd::Identity(n, n), B = random(n, 3);
    const Eigen::MatrixXd by_pivots = solved_carefully(A, B);
    EXPECT_LT(largest(A * by_pivots - B), 1e-11);
    LuSolver lu(n);
    lu.factor(A);
    Eigen::MatrixXd by_lu;
    lu.solve(B, by_lu);
    EXPECT_LT(largest(by_lu - by_pivots), 1e-10);
    for (Eigen::Index k = 0; k < B.cols(); ++k) {
      const Eigen::VectorXd b = B.col(k);
      EXPECT_EQ(solved_carefully(A, b), Eigen::VectorXd(by_pivots.col(k)));
      EXPECT_LT(largest(least_squares(A, b) - by_pivots.col(k)), 1e-10);
    }
    EXPECT_LT(largest(product(A, inverse_of(A)) - Eigen::MatrixXd::Identity(n, n)), 1e-11);
    const Eigen::MatrixXd square = product(A, A.transpose());
    EXPECT_LT(largest(square * solved_symmetric(square, B) - B), 1e-8);
    EXPECT_NEAR(determinant_of(square) / std::pow(determinant_of(A), 2), 1, 1e-9);
  }
}

// The smallest of all x is not asked for, but one that solves.
TEST_F(Dense, CompletePivotingSolvesWhatIsSingularButConsistent) {
  Eigen::MatrixXd A = random(4, 4);
  A.row(3) = A.row(0) + A.row(1);
  A.col(2) = 2 * A.col(1);
  const Eigen::VectorXd b = A * random(4, 1);
  EXPECT_LT(largest(A * solved_carefully(A, b) - b), 1e-12);
}

TEST_F(Dense, WeightedSquaresAreTheProductsTheyStandFor) {
  const Eigen::MatrixXd A = random(3, 5);
  const Eigen::VectorXd w = random(5, 1).cwiseAbs(), v = random(3, 1);
  const Eigen::MatrixXd square = weighted_square(A, w);
  EXPECT_LT(largest(square - A * Eigen::MatrixXd(w.asDiagonal()) * A.transpose()), 1e-14);
  EXPECT_NEAR(quadratic_form(v, square), (A.transpose() * v).cwiseAbs2().dot(w), 1e-12);
}

}  // namespace
}  // namespace jampot
