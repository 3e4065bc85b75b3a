#pragma once
// Thermodynamic consistency of measured vapour-liquid equilibria.
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/vapour_models.hpp"

namespace jampot {

enum class Verdict { passed, failed, cannot_tell };
std::string_view name_of(Verdict verdict);

/// One test with its value, limit and verdict.
struct ConsistencyTest {
  std::string
      name;  ///< "area", "point", "direct", "infinite dilution", "L-W", "McDermott-Ellis", "end points"
  double value = 0;                        ///< what was found
  double limit = 0;                        ///< passed where value does not exceed it
  std::string unit{};                      ///< of the value
  Verdict verdict = Verdict::cannot_tell;  ///< how the test ended
  std::string meaning{};                   ///< one sentence
  double u = 0;  ///< standard uncertainty of the value from those of the data; 0 where it is not worked out
  /// What it gives to the quality: limit over value, at most 1; negative where it gives nothing.
  double mark() const;
};

/// One measured point of a binary as the tests see it.
struct ConsistencyPoint {
  double x1 = 0,          ///< mole fraction of component 1
      T_K = 0,            ///< temperature, K
      P_Pa = 0;           ///< pressure, Pa
  double ln_gamma_1 = 0,  ///< of component 1
      ln_gamma_2 = 0;     ///< of component 2, both from the measured point with its vapour
  /// Ln of gamma 1 over gamma 2.
  double ln_ratio() const { return ln_gamma_1 - ln_gamma_2; }
  double gE = 0;            ///< measured, over RT
  double gE_fit = 0;        ///< of the polynomial through the boiling points
  double ln_ratio_fit = 0;  ///< the same from the fitted excess energy
  double dy = 0;            ///< y1 calculated from the gE of the boiling points minus measured
  double heat = 0;          ///< hE/(RT^2) dT/dx1, where excess enthalpies were given
};

/// From one measured point of three or more substances to a neighbour.
struct ConsistencyStep {
  int from = 0,           ///< line of its first point
      to = 0;             ///< line of its second point
  double difference = 0;  ///< sum of (x_i + x_i')(ln gamma_i' - ln gamma_i): zero by Gibbs and Duhem
  double u = 0;           ///< its standard uncertainty
};

/// All tests of a data set, and its points as they were used.
struct Consistency {
  std::size_t used = 0;                  ///< mixed points that the tests see
  std::vector<ConsistencyPoint> points;  ///< of two substances
  std::vector<ConsistencyStep> steps{};  ///< of more
  std::vector<ConsistencyTest> tests;    ///< one for each test that the data allow
  std::vector<double> series;            ///< coefficients of the Legendre series of gE/(RT x1 x2)
  /// One number from 0 to 1: the mark of the end points times the mean of the other marks; `quality_from`
  /// says what it is made of. In the manner of J. W. Kang et al., J. Chem. Eng. Data 55 (2010) 3631-3640.
  double quality = 0;
  std::string quality_from{};  ///< what the number is made of
  Notices notices;             ///< what the reader must know
};

/// What is known in addition to the data.
struct ConsistencyOptions {
  VapourChoice vapour{};        ///< ideal, or any other with what it does to the pure liquids
  std::vector<DataSet> heat{};  ///< excess enthalpies; those of the same two substances are used
};

/// The tests, each with its number, limit and verdict. Of two substances:
/// - area: |A - B - H|/(A + B) of the areas of ln(gamma1/gamma2) above and below zero, in per cent, limit 10.
/// H
///   is the area of hE/(RT^2) dT/dx1 where excess enthalpies are given; isobaric data without them are
///   allowed the boiling-range correction J = 150 (Tmax - Tmin)/Tmin and pass where D - J < 10. There is a
///   verdict only where the limit lies beyond the standard uncertainty of D. Its known weakness: it does not
///   see errors of the pressure, and errors may cancel. Source: E. F. G. Herington, J. Inst. Pet. 37 (1951)
///   457-470; O. Redlich, A. T. Kister, Ind. Eng. Chem. 40 (1948) 345-348.
/// - point: the mean absolute difference between measured y1 and that calculated from a fit of gE to boiling
///   points alone, limit 0.01. Source: H. C. Van Ness, S. M. Byer, R. E. Gibbs, AIChE J. 19 (1973) 238-244;
///   Aa. Fredenslund, J. Gmehling, P. Rasmussen, Vapor-Liquid Equilibria Using UNIFAC, 1977.
/// - direct: root mean square of the differences of ln(gamma1/gamma2) between the points and a series fitted
/// to
///   the measured gE, limit 0.10 (index 4 of its author's scale of ten). Isobaric data take the term of the
///   excess enthalpy where it is given. Source: H. C. Van Ness, J. Chem. Thermodyn. 27 (1995) 113-134.
/// - infinite dilution: at each end gE/(x1 x2 RT) and ln(gamma1/gamma2) tend to the same number but for its
/// sign; the
///   larger of the two differences in per cent, limit 30. Source: K. Kojima, H. M. Moon, K. Ochi, Fluid Phase
///   Equilib. 56 (1990) 269-284.
/// - L-W (isobaric): the temperature below the mean of the pure boiling points, weighted by entropies of
///   vaporisation, against that which the activity coefficients say, as areas, in per cent, limit 5. It sees
///   vapour pressures and boiling points, hardly the vapours. Source: J. Wisniak, Ind. Eng. Chem. Res. 32
///   (1993) 1531-1533.
/// Of three and more:
/// - McDermott-Ellis: between neighbouring points the sum of (x_i + x_i')(ln gamma_i' - ln gamma_i) is zero
/// but for the
///   uncertainties; the share of steps more than two standard uncertainties off, in per cent, limit what
///   chance allows at 95 %. Source: C. McDermott, S. R. M. Ellis, Chem. Eng. Sci. 20 (1965) 293-296.
/// - area: the integral of sum x_i d ln gamma_i along a path through all points, always to the nearest, in
/// per
///   cent of the sum of its parts, limit 10, with a verdict only where the uncertainty leaves one.
/// - point: as above, the boiling points fitted by the best of three activity models.
/// Of both:
/// - end points: the boiling points of the pure substances, measured against the vapour pressures in use, in
///   per cent of the pressure, limit 1.
/// @throws RequestError for data without vapour analyses; CalculationError where fewer than five mixed points
/// remain or a substance has no vapour pressure
Consistency check_consistency(const DataSet& data, const ConsistencyOptions& options = {});

}  // namespace jampot
