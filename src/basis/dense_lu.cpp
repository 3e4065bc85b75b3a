#include "dense.hpp"

namespace jampot {

LuSolver::LuSolver() = default;
LuSolver::LuSolver(Eigen::Index rows) : lu_(rows) {}

void LuSolver::factor(const Eigen::MatrixXd& A) {
  lu_.compute(A);
}

void LuSolver::solve(const Eigen::VectorXd& b, Eigen::VectorXd& x) const {
  if (&b == &x)
    x = lu_.solve(b).eval();
  else
    x = lu_.solve(b);
}

void LuSolver::solve(const Eigen::MatrixXd& B, Eigen::MatrixXd& X) const {
  X = lu_.solve(B);
}

Eigen::MatrixXd inverse_of(const Eigen::MatrixXd& A) {
  return A.inverse();
}

Eigen::VectorXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  return A.fullPivLu().solve(b);
}

Eigen::MatrixXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B) {
  return A.fullPivLu().solve(B);
}

}  // namespace jampot
