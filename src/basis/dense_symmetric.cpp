#include <Eigen/Eigenvalues>

#include "dense.hpp"

namespace jampot {

SymmetricEigen symmetric_eigen(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(A);
  return {eigen.eigenvalues(), eigen.eigenvectors()};
}

void DownhillStep::take(const Eigen::MatrixXd& hessian, double least, Eigen::VectorXd& step) {
  cholesky_.compute(hessian);
  if (cholesky_.info() == Eigen::Success) {
    solved_ = cholesky_.solve(step);
    step.swap(solved_);
    return;
  }
  const SymmetricEigen eigen = symmetric_eigen(hessian);
  const Eigen::VectorXd size = eigen.values.cwiseAbs().cwiseMax(least);
  step = eigen.vectors * ((eigen.vectors.transpose() * step).array() / size.array()).matrix();
}

}  // namespace jampot
