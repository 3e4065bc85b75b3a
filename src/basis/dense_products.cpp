#include <algorithm>
#include <cmath>

#include "dense.hpp"
#include "eigen.hpp"

namespace jampot {

Eigen::MatrixXd product(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  return A * B;
}

Eigen::VectorXd transposed_times(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.transpose() * b;
}

Eigen::MatrixXd weighted_square(const Eigen::MatrixXd& A, const Eigen::VectorXd& w) {
  return product(A * w.asDiagonal(), A.transpose());
}

double quadratic_form(const Eigen::VectorXd& v, const Eigen::MatrixXd& A) {
  return v.dot(A * v);
}

double deviation(const Eigen::VectorXd& slope, const Eigen::MatrixXd& covariance) {
  return std::sqrt(std::max(0.0, quadratic_form(slope, covariance)));
}

Eigen::MatrixXd scaled_both_sides(const Eigen::MatrixXd& A, const Eigen::VectorXd& s) {
  return s.asDiagonal() * A * s.asDiagonal();
}

Eigen::MatrixXd to_eigen(const Matrix& matrix) {
  using Rows = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  return Eigen::Map<const Rows>(matrix.data(), static_cast<Eigen::Index>(matrix.rows()),
                                static_cast<Eigen::Index>(matrix.columns()));
}

Matrix from_eigen(const Eigen::MatrixXd& from) {
  Matrix matrix(static_cast<std::size_t>(from.rows()), static_cast<std::size_t>(from.cols()));
  for (std::size_t i = 0; i < matrix.rows(); ++i) {
    for (std::size_t j = 0; j < matrix.columns(); ++j)
      matrix(i, j) = from(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
  }
  return matrix;
}

}  // namespace jampot
