#pragma once
// Vapour pressure of a pure liquid against temperature.
#include <cmath>
#include <string>

namespace jampot {

/// The Antoine equation, ln(P/Pa) = a - b/(T/K + c), within [Tmin, Tmax]; outside it is continued with the
/// value and the slope it has at that end, as ln P linear in 1/T (what a constant
/// enthalpy of vaporisation gives). The continuation keeps solvers away from the pole of the Antoine
/// equation; whoever reports a result from it owes the user a notice (see `covers`).
///
/// Source of the equation: Ch. Antoine, C. R. Acad. Sci. 107 (1888) 681.
class VapourPressure {
 public:
  struct Coefficients {
    double A, B, C;         ///< log10(P/mmHg) = A - B/(T/degC + C), the form most tables print
    double Tmin_K, Tmax_K;  ///< measured range
  };

  VapourPressure(const Coefficients& coefficients, std::string source, char grade);

  /// ln(P/Pa) at T_K > 0.
  double ln_P(double T_K) const {
    if (T_K < Tmin_K_) return low_.ln_P - low_.slope * (1 / T_K - 1 / Tmin_K_);
    if (T_K > Tmax_K_) return high_.ln_P - high_.slope * (1 / T_K - 1 / Tmax_K_);
    return a_ - b_ / (T_K + c_);
  }

  /// d ln P / dT in 1/K.
  double dln_P_dT(double T_K) const {
    if (T_K < Tmin_K_) return low_.slope / (T_K * T_K);
    if (T_K > Tmax_K_) return high_.slope / (T_K * T_K);
    return b_ / ((T_K + c_) * (T_K + c_));
  }

  double P_Pa(double T_K) const { return std::exp(ln_P(T_K)); }

  /// Boiling temperature at P_Pa > 0, the exact inverse of P_Pa.
  double T_K(double P_Pa) const;

  bool covers(double T_K) const { return T_K >= Tmin_K_ && T_K <= Tmax_K_; }
  double Tmin_K() const { return Tmin_K_; }
  double Tmax_K() const { return Tmax_K_; }
  const std::string& source() const { return source_; }
  char grade() const { return grade_; }

 private:
  struct End {
    double ln_P;
    double slope;  ///< -d ln P / d(1/T) in K
  };
  End end_at(double T_K) const;

  double a_, b_, c_, Tmin_K_, Tmax_K_;
  End low_{}, high_{};
  std::string source_;
  char grade_;
};

}  // namespace jampot
