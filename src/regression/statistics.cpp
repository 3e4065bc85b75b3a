#include "jampot/regression/statistics.hpp"

#include <boost/math/distributions/binomial.hpp>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

namespace jampot {
namespace {

// In double: with long double behind it this file alone takes three times as long to compile.
using InDouble = boost::math::policies::policy<boost::math::policies::promote_double<false>>;
using Normal = boost::math::normal_distribution<double, InDouble>;

}  // namespace

double chi_square_probability(double value, double degrees) {
  if (!(value > 0)) return 1;
  return cdf(complement(boost::math::chi_squared_distribution<double, InDouble>(degrees), value));
}

double variance_ratio_probability(double value, double degrees_above, double degrees_below) {
  return cdf(
      complement(boost::math::fisher_f_distribution<double, InDouble>(degrees_above, degrees_below), value));
}

double normal_quantile(double probability) {
  return quantile(Normal(), probability);
}

double student_quantile(double probability, double degrees) {
  return quantile(boost::math::students_t_distribution<double, InDouble>(degrees), probability);
}

double binomial_quantile(double probability, double trials, double chance) {
  return quantile(boost::math::binomial_distribution<double, InDouble>(trials, chance), probability);
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
  test.probability = cdf(Normal(), z);
  return test;
}

}  // namespace jampot
