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

double LuSolver::determinant() const {
  return lu_.determinant();
}

Eigen::MatrixXd inverse_of(const Eigen::MatrixXd& A) {
  LuSolver solver(A.rows());
  solver.factor(A);
  Eigen::MatrixXd inverse;
  solver.solve(Eigen::MatrixXd(Eigen::MatrixXd::Identity(A.rows(), A.cols())), inverse);
  return inverse;
}

double determinant_of(const Eigen::MatrixXd& A) {
  LuSolver solver(A.rows());
  solver.factor(A);
  return solver.determinant();
}

}  // namespace jampot
