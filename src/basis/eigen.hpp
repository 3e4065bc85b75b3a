#pragma once
// Between our matrices and those of the linear algebra.
#include <Eigen/Core>

#include "jampot/basis/matrix.hpp"

namespace jampot {

inline Eigen::MatrixXd to_eigen(const Matrix& matrix) {
  using Rows = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
  return Eigen::Map<const Rows>(matrix.data(), static_cast<Eigen::Index>(matrix.rows()),
                                static_cast<Eigen::Index>(matrix.columns()));
}

inline Matrix from_eigen(const Eigen::MatrixXd& from) {
  Matrix matrix(static_cast<std::size_t>(from.rows()), static_cast<std::size_t>(from.cols()));
  for (std::size_t i = 0; i < matrix.rows(); ++i) {
    for (std::size_t j = 0; j < matrix.columns(); ++j)
      matrix(i, j) = from(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
  }
  return matrix;
}

inline Eigen::Map<const Eigen::MatrixXd> to_eigen(const MatrixView& view) {
  return {view.data, static_cast<Eigen::Index>(view.rows), static_cast<Eigen::Index>(view.columns)};
}

}  // namespace jampot
