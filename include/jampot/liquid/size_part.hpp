#pragma once
// The combinatorial part of UNIQUAC and UNIFAC: what size and shape of the molecules alone do.
#include <cstddef>
#include <span>
#include <vector>

namespace jampot {

/// With volumes r_i and surfaces q_i, for mole fractions x_i (or amounts),
///
///   ln gamma_i = 1 - V'_i + ln V'_i - 5 q_i (1 - V_i/F_i + ln(V_i/F_i)),
///   V_i = r_i / sum_j r_j x_j,  F_i = q_i / sum_j q_j x_j,  V'_i = r_i^p / sum_j r_j^p x_j,
///
/// with p = 1 (Staverman and Guggenheim, as in D. S. Abrams, J. M. Prausnitz, AIChE J. 21 (1975) 116-128) or
/// p = 3/4 (modified UNIFAC: U. Weidlich, J. Gmehling, Ind. Eng. Chem. Res. 26 (1987) 1372-1381).
class SizePart {
 public:
  /// @param exponent p
  SizePart(std::vector<double> r, std::vector<double> q, double exponent = 1);

  /// Number of components.
  std::size_t size() const { return r_.size(); }
  /// Volumes.
  const std::vector<double>& r() const { return r_; }
  /// Surfaces.
  const std::vector<double>& q() const { return q_; }

  /// Combinatorial part of ln gamma at x.
  void ln_gamma(std::span<const double> x, std::span<double> out);
  /// Adds d ln gamma_i / d n_k at the composition of the last `ln_gamma`.
  void add_dn(std::span<double> dn) const;
  /// d3/ds3 of the sum x_i ln gamma_i along the amounts x + s u.
  double third_derivative(std::span<const double> x, std::span<const double> u) const;

 private:
  std::vector<double> r_, q_, p_;         ///< p_ = r^p
  std::vector<double> relative_, ratio_;  ///< V' and V/F at the last composition
  double total_ = 1, sum_r_ = 1, sum_q_ = 1, sum_p_ = 1;
};

}  // namespace jampot
