#pragma once
// What to measure next: which point would tell most about what somebody wants to know.
#include <optional>
#include <string>
#include <vector>

#include "jampot/regression/fit.hpp"

namespace jampot {

/// What somebody wants to know better.
enum class Aim {
  azeotrope,   ///< composition of the azeotrope at the mean pressure or temperature of the data
  limits,      ///< both limiting activity coefficients at the mean temperature
  split,       ///< both compositions of the two liquids at a temperature
  parameters,  ///< all fitted parameters together (D-optimal)
  boiling,     ///< the boiling temperature (or pressure) of a liquid
  models       ///< which of two models is right (T-optimal)
};
std::string_view name_of(Aim aim);

/// The aim, and the points that may be measured.
struct NextOptions {
  Aim aim = Aim::azeotrope;        ///< what is to become more certain
  double x1 = 0.5;                 ///< of the aim `boiling`
  double T_K = 0;                  ///< of the aim `split`; 0: the mean of the data
  std::vector<double> P_Pa{};      ///< at which could be measured; nothing in either: where the data were
  std::vector<double> T_K_held{};  ///< temperatures of candidate points, K
  int points = 49;                 ///< compositions tried, evenly between 0.02 and 0.98
  int batch = 1;                   ///< how many measurements are planned, each with the ones before it done
};

/// A quantity of the aim.
struct AimQuantity {
  std::string name{};  ///< "x(methanol) of the azeotrope"
  std::string unit{};  ///< SI; empty of a number
  double value = 0;    ///< its value now
  double u = 0;        ///< standard uncertainty now
};

/// A measurement that could be made, at the equilibrium that the fit expects, with the uncertainties of the
/// data.
struct Candidate {
  DataKind kind = DataKind::txy;  ///< what would be measured
  DataPoint point{};              ///< where
  std::vector<double> u{};        ///< of each quantity of the aim when it is done
  /// Root mean square over the quantities of uncertainty afterwards over uncertainty now, 1: it says nothing.
  /// Of `parameters` the root of their generalised variance, for each.
  double share = 1;
  /// Of the aim `models`: how many standard uncertainties the models lie apart there, before the other is
  /// fitted anew.
  double apart = 0;
};

/// Candidate points, ranked.
struct NextMeasurement {
  NextOptions options{};                ///< what was asked for
  std::vector<AimQuantity> aim{};       ///< the quantities
  std::vector<Candidate> candidates{};  ///< the one that tells most first
  std::vector<Candidate> batch{};  ///< in the order in which to measure; `u` and `share` with all up to there
};

/// Tries boiling points with and without their vapour, limiting activity coefficients, excess enthalpies and
/// mutual solubilities, by the information that each adds to the fit, to first order. Source of D- and
/// T-optimality: A. C. Atkinson, V. V. Fedorov, Biometrika 62 (1975) 57-70.
/// @param rival  of the aim `models`: the same data fitted by the other model
/// @throws RequestError for other than two substances, or an aim without what it needs; CalculationError
/// where the fit has no azeotrope or no split
NextMeasurement next_measurement(const Fit& fit, const NextOptions& options, const Fit* rival = nullptr);

}  // namespace jampot
