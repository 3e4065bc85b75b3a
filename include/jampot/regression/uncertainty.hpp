#pragma once
// How far the uncertainty of fitted parameters carries into a diagram.
#include <optional>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/liquid/pair_parameters.hpp"

namespace jampot {

/// Standard uncertainties of one point of a boiling curve at its composition and held pressure or
/// temperature.
struct BandPoint {
  double u_T_K = 0;   ///< temperature sought, else 0
  double u_P_Pa = 0;  ///< pressure sought, else 0
  double u_y1 = 0;    ///< standard uncertainty of y1
};

/// Standard uncertainty of each homogeneous azeotrope.
struct AzeotropeBand {
  double u_x1 = 0,  ///< of the composition
      u_T_K = 0,    ///< standard uncertainty of the temperature, K
      u_P_Pa = 0;   ///< standard uncertainty of the pressure, Pa
};

/// How far the fitted parameters leave a curve open.
struct UncertaintyBand {
  std::vector<BandPoint> points;          ///< one for each point of the curve
  std::vector<AzeotropeBand> azeotropes;  ///< one for each of the curve; zero for heterogeneous ones
};

/// First order, from the covariance that travels with the parameters of the pair.
/// @throws CalculationError where the parameters carry no covariance
UncertaintyBand uncertainty_band(const Mixture& mixture, const BinaryCurve& curve);

/// Standard uncertainties of the two liquids of a tie line, and how the two sides of the binodal move.
struct TieLineUncertainty {
  std::array<double, 3> u_alpha{},  ///< of the first liquid
      u_beta{};  ///< of the second liquid; of each mole fraction, the feed in the middle held
  /// One standard uncertainty across the binodal, as a step in mole fractions; sums to zero.
  std::array<double, 3> across_alpha{},  ///< the same across the tie line
      across_beta{};                     ///< of the second liquid
};

/// Of every tie line of a region (its own, close together), to first order from the covariance of all pairs.
/// Pairs that were not fitted together count as independent.
/// @throws CalculationError where a pair carries no covariance, naming it
std::vector<TieLineUncertainty> tie_line_uncertainties(const Mixture& mixture, double T_K,
                                                       const std::vector<TieLine>& tie_lines);

/// Standard uncertainties of an azeotrope at its pressure.
struct SingularUncertainty {
  std::vector<double> u_x;  ///< of each mole fraction
  double u_T_K = 0;         ///< standard uncertainty of the temperature, K
};

/// Of every singular point, homogeneous or heterogeneous, to first order: each is solved again with every
/// fitted number moved by a tenth of its standard error to either side. Nothing for one that does not survive
/// that: it is about to vanish.
/// @throws CalculationError where a pair carries no covariance
std::vector<std::optional<SingularUncertainty>> singular_uncertainties(
    const Mixture& mixture, double P_Pa, const std::vector<SingularPoint>& points);

}  // namespace jampot
