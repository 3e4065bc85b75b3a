#include <Eigen/Eigenvalues>

#include "dense.hpp"

// In searches, and much code: by itself it is one of the slowest files to compile.
namespace jampot {

SymmetricEigen symmetric_eigen(const Eigen::MatrixXd& A) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(A);
  return {eigen.eigenvalues(), eigen.eigenvectors()};
}

}  // namespace jampot
