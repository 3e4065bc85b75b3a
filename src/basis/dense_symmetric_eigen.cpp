#include <Eigen/Eigenvalues>

#include "dense.hpp"

namespace jampot {

// As Eigen's own solver does it, but the vectors of the tridiagonal form are turned back by one reflection
// after the other: turning many at a time is much code, and by itself was one of the slowest files to
// compile.
SymmetricEigen symmetric_eigen(const Eigen::MatrixXd& A) {
  const Eigen::Index n = A.rows();
  const double largest = n == 0 ? 0 : A.cwiseAbs().maxCoeff(), scale = largest == 0 ? 1 : largest;
  if (n < 2) return {A.diagonal(), Eigen::MatrixXd::Identity(n, n)};
  const Eigen::Tridiagonalization<Eigen::MatrixXd> form(A / scale);
  Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(n);
  eigen.computeFromTridiagonal(form.diagonal(), form.subDiagonal());
  SymmetricEigen found{scale * eigen.eigenvalues(), eigen.eigenvectors()};
  const Eigen::MatrixXd& packed = form.packedMatrix();
  const auto& coefficients = form.householderCoefficients();
  Eigen::VectorXd work(n);
  for (Eigen::Index k = n - 2; k >= 0; --k) {
    found.vectors.bottomRows(n - k - 1).applyHouseholderOnTheLeft(packed.col(k).tail(n - k - 2),
                                                                  coefficients[k], work.data());
  }
  return found;
}

}  // namespace jampot
