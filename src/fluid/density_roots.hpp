#pragma once
// The densities at which an equation of state gives a pressure, for equations that are not cubic.
#include <functional>
#include <optional>
#include <vector>

namespace jampot {

/// Pressure at a density, with its slope where the pointer is not null.
using PressureOfDensity = std::function<double(double density, double* slope)>;

/// The mechanically stable densities at P_Pa, the largest first: Newton's method from the densest state down
/// along the liquid, where the pressure bends upwards, and from the ideal gas up along the vapour, where it
/// bends downwards; neither can step over its root. Where the two meet (supercritical) the root is bracketed;
/// where neither arrives, every interval of a grid is searched.
///
/// @param RT slope of the pressure at zero density
/// @param densest where the search from above begins
std::vector<double> density_roots(const PressureOfDensity& pressure, double P_Pa, double RT, double densest);

/// One of the two searches alone: the largest density where the liquid's branch reaches P_Pa, or the smallest
/// where the vapour's does. Nothing where that branch ends before.
std::optional<double> density_from_dense(const PressureOfDensity& pressure, double P_Pa, double densest);
std::optional<double> density_from_thin(const PressureOfDensity& pressure, double P_Pa, double RT,
                                        double densest);

}  // namespace jampot
