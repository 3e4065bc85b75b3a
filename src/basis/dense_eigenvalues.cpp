#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>

#include "dense.hpp"

namespace jampot {

// From the Hessenberg form on, without the vectors: what makes those is much code.
std::vector<double> real_eigenvalues(const Eigen::MatrixXd& A) {
  const Eigen::Index n = A.rows();
  const double scale = n == 0 ? 0 : A.cwiseAbs().maxCoeff();
  if (scale == 0) return std::vector<double>(static_cast<std::size_t>(n));
  const Eigen::HessenbergDecomposition<Eigen::MatrixXd> hessenberg(A / scale);
  Eigen::RealSchur<Eigen::MatrixXd> schur(n);
  schur.computeFromHessenberg(hessenberg.matrixH(), Eigen::MatrixXd(), false);
  const Eigen::MatrixXd T = scale * schur.matrixT();
  std::vector<double> list;
  for (Eigen::Index i = 0; i < n;) {
    const bool alone = i + 1 == n || T(i + 1, i) == 0;
    if (!alone) {  // two complex ones
      const double real = T(i + 1, i + 1) + 0.5 * (T(i, i) - T(i + 1, i + 1));
      list.insert(list.end(), {real, real});
      i += 2;
    } else {
      list.push_back(T(i, i));
      ++i;
    }
  }
  return list;
}

RealEigen eigen_of_two(const Eigen::Matrix2d& A) {
  // A rotation makes the matrix triangular.
  const double half = 0.5 * (A(0, 0) - A(1, 1)), square = half * half + A(1, 0) * A(0, 1);
  const double root = std::sqrt(std::max(0.0, square));  // below zero by rounding alone
  Eigen::JacobiRotation<double> turn;
  Eigen::Matrix2d T = A, U = Eigen::Matrix2d::Identity();
  if (A(1, 0) != 0) {
    turn.makeGivens(half >= 0 ? half + root : half - root, A(1, 0));
    T.applyOnTheLeft(0, 1, turn.adjoint());
    T.applyOnTheRight(0, 1, turn);
    U.applyOnTheRight(0, 1, turn);
  }
  Eigen::Vector2d second(T(0, 0) == T(1, 1) ? 0 : -T(0, 1) / (T(0, 0) - T(1, 1)), 1);
  second = U * second;
  RealEigen eigen{{T(0, 0), T(1, 1)}, U};
  eigen.vectors.col(1) = second.normalized();
  return eigen;
}

}  // namespace jampot
