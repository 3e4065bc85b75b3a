#include <Eigen/QR>

#include "dense.hpp"

namespace jampot {

Eigen::VectorXd least_squares(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.colPivHouseholderQr().solve(b);
}

}  // namespace jampot
