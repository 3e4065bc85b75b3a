#include "jampot/regression/statistics.hpp"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/normal.hpp>
#include <cmath>

namespace jampot {

double chi_square_probability(double value, double degrees) {
  if (!(value > 0)) return 1;
  return boost::math::cdf(boost::math::complement(boost::math::chi_squared(degrees), value));
}

RunsTest runs_test(std::span<const double> residuals) {
  RunsTest test;
  double positive = 0, negative = 0, before = 0;
  for (const double residual : residuals) {
    if (residual == 0) continue;
    (residual > 0 ? positive : negative) += 1;
    if (before * residual <= 0) ++test.runs;
    before = residual;
  }
  const double n = positive + negative;
  if (n == 0) return test;
  test.expected = 2 * positive * negative / n + 1;
  if (positive == 0 || negative == 0) {  // one run: as likely as n tosses of a coin that fall alike
    test.one_sign = true;
    test.probability = std::pow(2.0, 1 - n);
    return test;
  }
  // Below ten of them the normal approximation of the number of runs says little.
  if (n < 10) return test;
  const double variance = (test.expected - 1) * (test.expected - 2) / (n - 1);
  const double z = (test.runs + 0.5 - test.expected) / std::sqrt(variance);
  test.probability = boost::math::cdf(boost::math::normal(), z);
  return test;
}

}  // namespace jampot
