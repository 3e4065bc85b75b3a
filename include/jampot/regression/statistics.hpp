#pragma once
// Small tests that tell noise from misfit.
#include <span>

namespace jampot {

/// Probability that chi-square with `degrees` degrees of freedom exceeds `value` by chance alone.
/// @pre degrees > 0
double chi_square_probability(double value, double degrees);

/// Probability that the ratio of two variances exceeds `value` by chance alone: Fisher's F.
/// @pre both numbers of degrees of freedom > 0
double variance_ratio_probability(double value, double degrees_above, double degrees_below);

/// The number below which a normal variable of mean 0 and variance 1 lies with this probability.
/// @pre 0 < probability < 1
double normal_quantile(double probability);

/// The same of Student's t with `degrees` degrees of freedom. @pre degrees > 0
double student_quantile(double probability, double degrees);

/// The same of the number of hits in `trials` trials, each with probability `chance`.
double binomial_quantile(double probability, double trials, double chance);

/// Runs of equal sign in a sequence of residuals.
struct RunsTest {
  int runs = 0;           ///< runs counted
  double expected = 0;    ///< runs expected of independent signs
  bool one_sign = false;  ///< all residuals lie on one side
  /// Probability of so few runs or fewer by chance (normal approximation; exact where all have one sign); 1
  /// where there are too few residuals to tell.
  double probability = 1;
};

/// Source: A. Wald, J. Wolfowitz, Ann. Math. Stat. 11 (1940) 147-162. Zeros are left out.
RunsTest runs_test(std::span<const double> residuals);

}  // namespace jampot
