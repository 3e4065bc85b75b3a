#include <Eigen/Eigenvalues>

#include "dense.hpp"

namespace jampot {

std::vector<double> real_eigenvalues(const Eigen::MatrixXd& A) {
  const Eigen::VectorXcd found = A.eigenvalues();
  std::vector<double> list;
  for (Eigen::Index i = 0; i < found.size(); ++i) list.push_back(found[i].real());
  return list;
}

void real_eigenvectors(const Eigen::MatrixXd& A, Eigen::VectorXd& values, Eigen::MatrixXd& vectors) {
  const Eigen::EigenSolver<Eigen::MatrixXd> eigen(A);
  values = eigen.eigenvalues().real();
  vectors = eigen.eigenvectors().real();
}

}  // namespace jampot
