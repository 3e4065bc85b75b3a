#pragma once
// Thermodynamic consistency of measured vapour-liquid equilibria of binaries.
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/measured/data_set.hpp"

namespace jampot {

enum class Verdict { passed, failed, cannot_tell };
std::string_view name_of(Verdict verdict);

/// One test with its value, limit and verdict.
struct ConsistencyTest {
  std::string name;  ///< "area", "point", "direct", "end points"
  double value = 0;  ///< what was found
  double limit = 0;  ///< passed where value does not exceed it
  std::string unit;
  Verdict verdict = Verdict::cannot_tell;
  std::string meaning;  ///< one sentence
  double u = 0;  ///< standard uncertainty of the value from those of the data; 0 where it is not worked out
};

/// One measured point as the tests see it.
struct ConsistencyPoint {
  double x1 = 0, T_K = 0, P_Pa = 0;
  double ln_gamma_1 = 0, ln_gamma_2 = 0;  ///< from the measured point, ideal vapour
  double ln_ratio() const { return ln_gamma_1 - ln_gamma_2; }
  double gE = 0;      ///< measured, over RT
  double gE_fit = 0;  ///< of the polynomial through it
  double ln_ratio_fit = 0;
  double dy = 0;  ///< y1 calculated from the fitted gE minus measured
};

/// All tests of a data set, and its points as they were used.
struct Consistency {
  std::vector<ConsistencyPoint> points;
  std::vector<ConsistencyTest> tests;
  std::vector<double> series;  ///< coefficients of the Legendre series of gE/(RT x1 x2)
  Notices notices;
};

/// The tests, each with its number, limit and verdict:
/// - area: |A - B|/(A + B) of the areas of ln(gamma1/gamma2) above and below zero, in per cent. Isothermal
/// limit
///   10; isobaric data are allowed the boiling-range correction J = 150 (Tmax - Tmin)/Tmin and pass where
///   D - J < 10. There is a verdict only where the limit lies beyond the standard uncertainty of D. Its known
///   weakness: it does not see errors of the pressure, and errors may cancel. Source: E. F. G. Herington, J.
///   Inst. Pet. 37 (1951) 457-470; O. Redlich, A. T. Kister, Ind. Eng. Chem. 40 (1948) 345-348.
/// - point: the mean absolute difference between measured y1 and that calculated from a fit of gE to boiling
/// points
///   alone, limit 0.01. Source: H. C. Van Ness, S. M. Byer, R. E. Gibbs, AIChE J. 19 (1973) 238-244; Aa.
///   Fredenslund, J. Gmehling, P. Rasmussen, Vapor-Liquid Equilibria Using UNIFAC, 1977.
/// - direct: root mean square of the differences of ln(gamma1/gamma2) between the points and a fit of gE,
/// limit
///   0.10 (index 4 of its author's scale of ten). Isobaric data lack the term of the excess enthalpy, and the
///   result says so. Source: H. C. Van Ness, J. Chem. Thermodyn. 27 (1995) 113-134.
/// - end points: the boiling points of the pure substances, measured against the vapour pressures in use, in
///   per cent of the pressure, limit 1.
/// @throws RequestError for data that are not of a binary or have no vapour analyses; CalculationError where
/// fewer than five mixed points remain
Consistency check_consistency(const DataSet& data);

}  // namespace jampot
