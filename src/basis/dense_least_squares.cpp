#include <Eigen/QR>

#include "dense.hpp"

namespace jampot {

// One reflection after the other, as Eigen's own solver does for a single right side; that one brings the
// code for many along.
Eigen::VectorXd least_squares(const Eigen::MatrixXd& A, const Eigen::VectorXd& b) {
  const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> qr(A);
  const Eigen::Index rank = qr.nonzeroPivots();
  Eigen::VectorXd rotated = b, solved = Eigen::VectorXd::Zero(A.cols());
  if (rank == 0) return solved;
  double work = 0;
  for (Eigen::Index k = 0; k < rank; ++k) {
    const Eigen::Index below = A.rows() - k - 1;
    rotated.tail(below + 1).applyHouseholderOnTheLeft(qr.matrixQR().col(k).tail(below), qr.hCoeffs()[k],
                                                      &work);
  }
  const Eigen::VectorXd top =
      qr.matrixQR().topLeftCorner(rank, rank).triangularView<Eigen::Upper>().solve(rotated.head(rank));
  for (Eigen::Index k = 0; k < rank; ++k) solved[qr.colsPermutation().indices()[k]] = top[k];
  return solved;
}

}  // namespace jampot
