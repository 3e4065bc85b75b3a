#include "series.hpp"

#include <cmath>

#include "../../basis/dense.hpp"
#include "../../basis/integral.hpp"

namespace jampot::consistency {

double Legendre::at(double x1) const {
  double total = 0;
  for (std::size_t k = 0; k < a.size(); ++k) total += a[k] * legendre(static_cast<int>(k), 2 * x1 - 1);
  return total;
}

double Legendre::slope(double x1) const {
  double total = 0;
  for (std::size_t k = 1; k < a.size(); ++k)
    total += 2 * a[k] * legendre_slope(static_cast<int>(k), 2 * x1 - 1);
  return total;
}

double SeriesFit::u(double x1) const {
  Eigen::VectorXd row(covariance.rows());
  for (Eigen::Index k = 0; k < row.size(); ++k) row[k] = legendre(static_cast<int>(k), 2 * x1 - 1);
  return deviation(row, covariance);
}

SeriesFit fit_series(const std::vector<double>& x1, const std::vector<double>& values,
                     const std::vector<double>& weights, std::size_t order) {
  const auto n = static_cast<Eigen::Index>(x1.size()), terms = static_cast<Eigen::Index>(order);
  Eigen::MatrixXd A(n, terms);
  Eigen::VectorXd b(n);
  for (Eigen::Index r = 0; r < n; ++r) {
    const auto k = static_cast<std::size_t>(r);
    for (Eigen::Index c = 0; c < terms; ++c)
      A(r, c) = weights[k] * legendre(static_cast<int>(c), 2 * x1[k] - 1);
    b[r] = weights[k] * values[k];
  }
  const Eigen::VectorXd a = least_squares(A, b);
  SeriesFit fit;
  fit.series.a.assign(a.data(), a.data() + a.size());
  const double scatter = n > terms ? (A * a - b).squaredNorm() / static_cast<double>(n - terms) : 0;
  fit.covariance = scatter * inverse_of(product(A.transpose(), A));
  return fit;
}

}  // namespace jampot::consistency
