#pragma once
// How far the uncertainty of fitted parameters carries into a diagram.
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/liquid/pair_parameters.hpp"

namespace jampot {

/// Standard uncertainties of one point of a boiling curve at its composition and held pressure or
/// temperature.
struct BandPoint {
  double u_T_K = 0;   ///< temperature sought, else 0
  double u_P_Pa = 0;  ///< pressure sought, else 0
  double u_y1 = 0;
};

/// Standard uncertainty of each homogeneous azeotrope.
struct AzeotropeBand {
  double u_x1 = 0, u_T_K = 0, u_P_Pa = 0;
};

struct UncertaintyBand {
  std::vector<BandPoint> points;          ///< one for each point of the curve
  std::vector<AzeotropeBand> azeotropes;  ///< one for each of the curve; zero for heterogeneous ones
};

/// First order, from the covariance that travels with the parameters of the pair.
/// @throws CalculationError where the parameters carry no covariance
UncertaintyBand uncertainty_band(const Mixture& mixture, const BinaryCurve& curve);

}  // namespace jampot
