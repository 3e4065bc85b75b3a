#pragma once
// Two liquids in a binary: found from the whole composition line, so that no guess is needed and none is
// missed.
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// Two liquids in equilibrium, as mole fractions of component 1: alpha is the one poorer in it.
struct BinarySplit {
  double x1_alpha = 0,  ///< mole fraction of component 1 in the first liquid
      x1_beta = 0;      ///< mole fraction of component 1 in the second liquid
  double residual = 0;  ///< largest difference of ln(x_i gamma_i) between the two
};

/// All liquid-liquid splits of a binary at T_K, in order of composition; empty where the liquid is stable
/// throughout.
///
/// Method: lower convex hull of the Gibbs energy of mixing on a grid that is dense towards both ends; where
/// the curvature comes close to zero between two grid points its minimum is located first, so that a gap
/// narrower than the grid is seen; each hull segment over a gap is polished by Newton's method on ln(x_i
/// gamma_i).
std::vector<BinarySplit> binary_splits(ActivityModel& model, double T_K);

/// x1 x2 times the second derivative of the Gibbs energy of mixing/(RT) at the temperature the model stands
/// at: 1 for an ideal liquid, negative where the liquid cannot exist even for a while (inside the spinodal).
double stability_function(ActivityModel& model, double x1);

}  // namespace jampot
