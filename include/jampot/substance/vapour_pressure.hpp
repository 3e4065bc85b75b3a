#pragma once
// Vapour pressure of a pure liquid against temperature, from the triple point to the critical point.
#include <array>
#include <cmath>
#include <optional>
#include <string>

#include "jampot/basis/constants.hpp"

namespace jampot {

/// The corresponding-states form of Ambrose and Walton with two free terms,
///   ln(P/Pc) = (f(tau) + c1 tau + c2 tau^2) / Tr,  tau = 1 - Tr,
/// where f has the published coefficients at the acentric factor of the substance. It ends at the critical
/// point whatever c1 and c2 are; they let it meet another curve with its value and its slope.
///
/// Source: D. Ambrose, J. Walton, Pure Appl. Chem. 61 (1989) 1395-1403.
class CorrespondingStates {
 public:
  /// What corresponding states start from.
  struct Critical {
    double Tc_K,          ///< critical temperature, K
        Pc_Pa,            ///< critical pressure, Pa
        acentric_factor;  ///< acentric factor
  };
  /// From the critical point and the acentric factor.
  explicit CorrespondingStates(const Critical& critical);

  /// The same, joined at T_K (below Tc) to a curve with this ln(P/Pa) and d ln P/dT.
  CorrespondingStates joined(double T_K, double ln_P, double dln_P_dT) const;

  /// The same with c1 and c2 larger by these.
  CorrespondingStates with_terms(double c1, double c2) const;

  double ln_P(double T_K) const;      ///< @pre 0 < T_K <= Tc
  double dln_P_dT(double T_K) const;  ///< 1/K

  /// The acentric factor with which the curve passes through a boiling point, the normal one unless P_Pa
  /// says otherwise.
  static double acentric_factor(double Tb_K, double Tc_K, double Pc_Pa, double P_Pa = standard_atmosphere);

 private:
  double numerator(double tau) const;
  double numerator_slope(double tau) const;

  double Tc_K_, ln_Pc_;
  double c1_, c15_, c2_ = 0, c25_, c5_;  ///< of tau to the power 1, 1.5, 2, 2.5, 5
};

/// One equation from the melting to the critical point,
///   ln(P/Pa) = ln(scale) + C1 + C2/T + C3 ln T + C4 T^C5.
/// It can be joined to another curve below and above a range: their difference there, in value and slope,
/// fades over some 20 K. In its last tenth it is led to the critical point, quadratically in T.
///
/// Source: Perry's Chemical Engineers' Handbook, 7th and 8th editions.
class LongCurve {
 public:
  /// Coefficients of an equation, with their range.
  struct Coefficients {
    std::array<double, 5> C{};  ///< coefficients of the curve
    double Tmin_K = 0,          ///< lowest temperature measured, K
        Tmax_K = 0;             ///< highest temperature of validity, K
    double scale = 1;           ///< what brings the equation to the boiling point
  };
  /// With its coefficients and range.
  explicit LongCurve(const Coefficients& coefficients);

  /// Led to this pressure at Tc_K.
  LongCurve ending_at(double Tc_K, double Pc_Pa) const;
  /// The same, going over into a curve with this ln(P/Pa) and slope at T_K, on the side away from it.
  LongCurve joined_below(double T_K, double ln_P, double dln_P_dT) const;
  /// The same curve with another one from T_K on, value and slope given.
  LongCurve joined_above(double T_K, double ln_P, double dln_P_dT) const;

  /// Ln of the vapour pressure in Pa.
  double ln_P(double T_K) const;
  double dln_P_dT(double T_K) const;  ///< 1/K

  /// Lowest temperature, K.
  double Tmin_K() const { return of_.Tmin_K; }
  /// Highest temperature, K.
  double Tmax_K() const { return Tc_K_; }

 private:
  struct Join {  // difference A + B u at the distance u from T_K, times exp(-u/fading_K)
    double T_K, A, B;
  };
  Join join_at(double T_K, double ln_P, double dln_P_dT, double side) const;

  Coefficients of_;
  double Tc_K_, end_ = 0;  ///< what is added at Tc
  std::optional<Join> below_, above_;
};

/// Vapour pressure as the library uses it:
/// - within the measured range the Antoine equation, ln(P/Pa) = a - b/(T/K + c)
///   (Ch. Antoine, C. R. Acad. Sci. 107 (1888) 681);
/// - above and below it a curve from the melting to the critical point, where one is known, joined to it;
/// - else, up to the critical point and down to the melting point (or 0.35 Tc), corresponding states joined
///   to it with value and slope, where the critical point is known;
/// - where no coefficients are known, corresponding states alone, through the normal boiling point;
/// - beyond all that ln P linear in 1/T with the slope at the end. That part means nothing physically; it
/// keeps solvers
///   from falling over on their way, and whoever reports a result from it must say so (`covers`, `Tc_K`).
class VapourPressure {
 public:
  /// Coefficients of the equation of one substance, with their range.
  struct Coefficients {
    double A,       ///< of log10(P/mmHg) = A - B/(T/degC + C)
        B,          ///< of the same
        C;          ///< log10(P/mmHg) = A - B/(T/degC + C), the form most tables print
    double Tmin_K,  ///< lowest temperature measured, K
        Tmax_K;     ///< measured range
  };
  /// Critical point and acentric factor.
  using Critical = CorrespondingStates::Critical;

  /// With its coefficients and source.
  VapourPressure(const Coefficients& coefficients, std::string source, char grade,
                 std::optional<Critical> critical = std::nullopt, std::optional<double> Tm_K = std::nullopt);

  /// A curve from the melting to the critical point (`critical`, else where it ends), and a row of Antoine
  /// coefficients that is used between its Tmin_K and Tmax_K.
  VapourPressure(LongCurve curve, const std::optional<Coefficients>& row, std::string source, char grade,
                 const std::optional<Critical>& critical);

  /// A corresponding-states curve through measured points that lie between Tmin_K and Tmax_K.
  VapourPressure(const CorrespondingStates& curve, double Tc_K, double Tmin_K, double Tmax_K,
                 std::string source, std::optional<double> Tm_K = std::nullopt);

  /// An estimated corresponding-states curve that rests on no measured pressures.
  VapourPressure(const CorrespondingStates& curve, double Tc_K, std::string source,
                 std::optional<double> Tm_K = std::nullopt);

  /// Estimated from the critical point alone.
  VapourPressure(const Critical& critical, std::string source, std::optional<double> Tm_K = std::nullopt);

  /// ln(P/Pa) at T_K > 0.
  double ln_P(double T_K) const {
    if (T_K >= Tmin_K_ && T_K <= Tmax_K_) return a_ - b_ / (T_K + c_);
    return ln_P_outside(T_K);
  }

  /// d ln P / dT in 1/K.
  double dln_P_dT(double T_K) const {
    if (T_K >= Tmin_K_ && T_K <= Tmax_K_) return b_ / ((T_K + c_) * (T_K + c_));
    return slope_outside(T_K);
  }

  /// Vapour pressure, Pa.
  double P_Pa(double T_K) const { return std::exp(ln_P(T_K)); }

  /// The same, multiplied by a factor at every temperature. @param factor positive
  VapourPressure scaled(double factor) const;

  /// Boiling temperature at P_Pa > 0, the inverse of P_Pa; HUGE_VAL where no temperature is high enough.
  double T_K(double P_Pa) const;

  /// Whether T_K lies in the measured range.
  bool covers(double T_K) const { return T_K >= measured_low_K_ && T_K <= measured_high_K_; }
  /// Whether there is no measured range: the whole curve is an estimate.
  bool estimated() const { return measured_low_K_ > measured_high_K_; }
  double Tmin_K() const { return measured_low_K_; }  ///< of the measured range
  /// Highest temperature measured, K.
  double Tmax_K() const { return measured_high_K_; }
  /// Lowest temperature at which the curve still means something.
  double lowest_K() const { return low_end_.T_K; }
  /// Critical temperature, if known; no vapour pressure exists above it.
  std::optional<double> Tc_K() const { return Tc_K_; }
  /// Where it comes from.
  const std::string& source() const { return source_; }
  /// A to D.
  char grade() const { return grade_; }

 private:
  struct End {
    double T_K, ln_P;
    double slope;  ///< -d ln P / d(1/T) in K
  };
  double ln_P_outside(double T_K) const;
  double slope_outside(double T_K) const;
  void set_ends(double lowest_T_K);

  double ln_factor_ = 0;                                    ///< in a_ and the ends already
  double a_ = 0, b_ = 0, c_ = 0, Tmin_K_ = 1, Tmax_K_ = 0;  ///< the Antoine equation and where it is used
  double measured_low_K_ = 1, measured_high_K_ = 0;
  std::optional<double> Tc_K_;
  std::optional<CorrespondingStates> below_, above_;
  std::optional<LongCurve> curve_;
  End low_end_{}, high_end_{};  ///< where ln P becomes linear in 1/T
  std::string source_;
  char grade_;
};

}  // namespace jampot
