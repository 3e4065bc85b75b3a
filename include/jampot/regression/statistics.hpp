#pragma once
// Small tests that tell noise from misfit.
#include <span>

namespace jampot {

/// Probability that chi-square with `degrees` degrees of freedom exceeds `value` by chance alone.
/// @pre degrees > 0
double chi_square_probability(double value, double degrees);

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
