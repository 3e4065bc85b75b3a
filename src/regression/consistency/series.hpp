#pragma once
// Legendre series over the composition of a binary.
#include <Eigen/Core>
#include <vector>

namespace jampot::consistency {

/// sum_k a_k L_k(2 x1 - 1), with its slope along x1.
struct Legendre {
  std::vector<double> a;
  double at(double x1) const;
  double slope(double x1) const;
};

/// A series by least squares of weighted values. @param order  number of coefficients, no more than values
struct SeriesFit {
  Legendre series;
  Eigen::MatrixXd covariance;  ///< of the coefficients, from the scatter
  /// Standard uncertainty of the series at x1.
  double u(double x1) const;
};
SeriesFit fit_series(const std::vector<double>& x1, const std::vector<double>& values,
                     const std::vector<double>& weights, std::size_t order);

/// gE/(RT) = x1 x2 times a series.
struct ExcessSeries {
  Legendre inner;
  double gE(double x1) const { return x1 * (1 - x1) * inner.at(x1); }
  double slope(double x1) const { return (1 - 2 * x1) * inner.at(x1) + x1 * (1 - x1) * inner.slope(x1); }
  double ln_gamma_1(double x1) const { return gE(x1) + (1 - x1) * slope(x1); }
  double ln_gamma_2(double x1) const { return gE(x1) - x1 * slope(x1); }
};

}  // namespace jampot::consistency
