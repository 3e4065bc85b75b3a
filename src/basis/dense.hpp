#pragma once
// Factorisations of small dense matrices. They are compiled here once: each costs a source file that uses it
// seconds.
#include <Eigen/Cholesky>
#include <Eigen/LU>
#include <vector>

namespace jampot {

/// A B. Written as an expression it is a second in every file that has one; matrices this small gain nothing
/// from it.
Eigen::MatrixXd product(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B);
/// A' b.
Eigen::VectorXd transposed_times(const Eigen::MatrixXd& A, const Eigen::VectorXd& b);
/// A W A', with w on the diagonal of W.
Eigen::MatrixXd weighted_square(const Eigen::MatrixXd& A, const Eigen::VectorXd& w);
/// v' A v.
double quadratic_form(const Eigen::VectorXd& v, const Eigen::MatrixXd& A);
/// Standard uncertainty of a quantity with these slopes along parameters of this covariance, to first order.
double deviation(const Eigen::VectorXd& slope, const Eigen::MatrixXd& covariance);
/// S A S, with s on the diagonal of S.
Eigen::MatrixXd scaled_both_sides(const Eigen::MatrixXd& A, const Eigen::VectorXd& s);

/// A x = b by LU with partial pivoting. Matrices of the same size allocate nothing.
class LuSolver {
 public:
  LuSolver();
  explicit LuSolver(Eigen::Index rows);
  void factor(const Eigen::MatrixXd& A);
  /// `x` may be `b`.
  void solve(const Eigen::VectorXd& b, Eigen::VectorXd& x) const;
  void solve(const Eigen::MatrixXd& B, Eigen::MatrixXd& X) const;
  double determinant() const;

 private:
  Eigen::PartialPivLU<Eigen::MatrixXd> lu_;
};

Eigen::MatrixXd inverse_of(const Eigen::MatrixXd& A);
double determinant_of(const Eigen::MatrixXd& A);

/// A x = b with complete pivoting, for matrices that are nearly singular.
Eigen::VectorXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::VectorXd& b);
Eigen::MatrixXd solved_carefully(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B);

/// Real parts of the eigenvalues.
std::vector<double> real_eigenvalues(const Eigen::MatrixXd& A);
/// Eigenvalues and eigenvectors, which are the columns, of a matrix of two rows whose eigenvalues are real.
struct RealEigen {
  Eigen::Vector2d values;
  Eigen::Matrix2d vectors;
};
RealEigen eigen_of_two(const Eigen::Matrix2d& A);

/// Eigenvalues of a symmetric matrix in rising order, and their vectors, which are the columns.
struct SymmetricEigen {
  Eigen::VectorXd values;
  Eigen::MatrixXd vectors;
};
SymmetricEigen symmetric_eigen(const Eigen::MatrixXd& A);

/// A X = B for a symmetric A that is positive definite, or nearly so.
Eigen::MatrixXd solved_symmetric(const Eigen::MatrixXd& A, const Eigen::MatrixXd& B);

/// L L' = A of a positive definite matrix.
class CholeskyFactor {
 public:
  explicit CholeskyFactor(const Eigen::MatrixXd& A);
  /// False where A is not positive definite; then nothing else may be asked.
  bool sound() const { return factor_.info() == Eigen::Success; }
  /// The x of A x = b.
  Eigen::VectorXd solve(const Eigen::VectorXd& b) const;
  /// The x of L x = b.
  Eigen::VectorXd solve_lower(const Eigen::VectorXd& b) const;
  Eigen::MatrixXd inverse_of_lower() const;

 private:
  Eigen::LLT<Eigen::MatrixXd> factor_;
};

/// The x that makes the sum of squares of A x - b least, by QR with column pivoting.
Eigen::VectorXd least_squares(const Eigen::MatrixXd& A, const Eigen::VectorXd& b);

/// Newton's step down a surface: `step` comes in as the negative gradient and goes out divided by the
/// curvature. Where the surface bends down, its curvature counts by size, at least `least`: the step leads
/// downhill, away from the saddle.
class DownhillStep {
 public:
  void take(const Eigen::MatrixXd& hessian, double least, Eigen::VectorXd& step);

 private:
  Eigen::LLT<Eigen::MatrixXd> cholesky_;
  Eigen::VectorXd solved_;
};

}  // namespace jampot
