#include <Eigen/Eigenvalues>

#include "dense.hpp"

namespace jampot {

std::vector<double> real_eigenvalues(const Eigen::MatrixXd& A) {
  const Eigen::EigenSolver<Eigen::MatrixXd> eigen(A, false);
  std::vector<double> list;
  for (Eigen::Index i = 0; i < eigen.eigenvalues().size(); ++i) list.push_back(eigen.eigenvalues()[i].real());
  return list;
}

void real_eigenvectors(const Eigen::MatrixXd& A, Eigen::VectorXd& values, Eigen::MatrixXd& vectors) {
  const Eigen::EigenSolver<Eigen::MatrixXd> eigen(A);
  values = eigen.eigenvalues().real();
  vectors = eigen.eigenvectors().real();
}

SymmetricEigen symmetric_eigen(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(A);
  return {eigen.eigenvalues(), eigen.eigenvectors()};
}

}  // namespace jampot
