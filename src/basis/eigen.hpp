#pragma once
// Between our matrices and those of the linear algebra.
#include <Eigen/Core>

#include "jampot/basis/matrix.hpp"

namespace jampot {

Eigen::MatrixXd to_eigen(const Matrix& matrix);
Matrix from_eigen(const Eigen::MatrixXd& from);

inline Eigen::Map<const Eigen::MatrixXd> to_eigen(const MatrixView& view) {
  return {view.data, static_cast<Eigen::Index>(view.rows), static_cast<Eigen::Index>(view.columns)};
}

}  // namespace jampot
