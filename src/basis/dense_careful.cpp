#include "dense.hpp"

// Asked once a request: compiled without the optimisation that the factorisations in loops get.
namespace jampot {

Eigen::VectorXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.fullPivLu().solve(b);
}

// Column by column: what solves for all at once is as much code again.
Eigen::MatrixXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  const Eigen::FullPivLU<Eigen::MatrixXd> lu(A);
  Eigen::MatrixXd X(A.cols(), B.cols());
  for (Eigen::Index k = 0; k < B.cols(); ++k) X.col(k) = lu.solve(Eigen::VectorXd(B.col(k)));
  return X;
}

Eigen::MatrixXd solved_symmetric(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  return Eigen::LDLT<Eigen::MatrixXd>(A).solve(B);
}

}  // namespace jampot
