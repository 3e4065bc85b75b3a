#pragma once
// Where two liquids become one: critical points of liquids.
#include <optional>
#include <span>
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// A critical composition at one temperature: the end of the tie lines of three components.
struct PlaitPoint {
  std::vector<double> x;          ///< mole fractions
  std::vector<double> direction;  ///< of the tie lines that end there, in mole fractions
  double curvature =
      0;             ///< what is left of the first condition: the smallest curvature (see smallest_curvature)
  double third = 0;  ///< and of the second: the third derivative along the direction
};

/// Third derivative of the Gibbs energy of mixing/(RT) along the amounts x + s u with sum u_i = 0, at the
/// temperature the model stands at.
double mixing_third_derivative(ActivityModel& model, std::span<const double> x, std::span<const double> u);

/// The plait point of a ternary near a short tie line: the smallest curvature is zero there, and so is the
/// third derivative along its direction. Both conditions are bracketed, so none is passed by.
/// @param middle inside the spinodal, at `T_K`
/// @param along from one liquid of the tie line to the other
/// @param outward towards the plait point, out of the region
/// @returns nothing where there is none within `reach` (in mole fraction)
///
/// Source of the conditions: J. W. Gibbs, Trans. Connecticut Acad. 3 (1876) 108-248, as written in J. M.
/// Prausnitz, R. N. Lichtenthaler, E. G. de Azevedo, Molecular Thermodynamics of Fluid-Phase Equilibria.
std::optional<PlaitPoint> plait_point_near(ActivityModel& model, double T_K, std::span<const double> middle,
                                           std::span<const double> along, std::span<const double> outward,
                                           double reach);

}  // namespace jampot
