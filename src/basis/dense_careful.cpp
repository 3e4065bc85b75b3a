#include "dense.hpp"

// Asked once a request: compiled without the optimisation that the factorisations in loops get.
namespace jampot {

Eigen::VectorXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.fullPivLu().solve(b);
}

Eigen::MatrixXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  return A.fullPivLu().solve(B);
}

Eigen::MatrixXd solved_symmetric(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  return Eigen::LDLT<Eigen::MatrixXd>(A).solve(B);
}

}  // namespace jampot
