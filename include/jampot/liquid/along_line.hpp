#pragma once
// Third derivatives along a line of amounts, for the building blocks of which excess Gibbs energies are made.

namespace jampot {

/// A sum that changes evenly along the line: value + slope * s.
struct AlongLine {
  double value = 0,  ///< the sum
      slope = 0;     ///< its derivative along the line
  /// Adds factor times a quantity that is `at` and changes by `change`.
  void add(double factor, double at, double change) {
    value += factor * at;
    slope += factor * change;
  }
};

/// d3/ds3 of a ln c at s = 0.
inline double third_of_a_ln_c(const AlongLine& a, const AlongLine& c) {
  const double r = c.slope / c.value;
  return r * r * (2 * a.value * r - 3 * a.slope);
}

/// d3/ds3 of a b / c at s = 0: the remainder of the division is a constant over c.
inline double third_of_product_over(const AlongLine& a, const AlongLine& b, const AlongLine& c) {
  // With the Taylor coefficients f_k of a b / c: c f = a b, term by term.
  const double f0 = a.value * b.value / c.value;
  const double f1 = (a.value * b.slope + a.slope * b.value - c.slope * f0) / c.value;
  const double f2 = (a.slope * b.slope - c.slope * f1) / c.value;
  return -6 * c.slope * f2 / c.value;
}

}  // namespace jampot
