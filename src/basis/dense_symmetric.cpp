#include "dense.hpp"

namespace jampot {

CholeskyFactor::CholeskyFactor(const Eigen::MatrixXd& A) : factor_(A) {}

Eigen::VectorXd CholeskyFactor::solve(const Eigen::VectorXd& b) const {
  return factor_.solve(b);
}

Eigen::VectorXd CholeskyFactor::solve_lower(const Eigen::VectorXd& b) const {
  return factor_.matrixL().solve(b);
}

Eigen::MatrixXd CholeskyFactor::inverse_of_lower() const {
  return factor_.matrixL().solve(Eigen::MatrixXd::Identity(factor_.rows(), factor_.cols()));
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
