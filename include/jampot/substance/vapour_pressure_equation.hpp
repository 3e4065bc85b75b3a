#pragma once
// Vapour-pressure coefficients as people find them: an equation in print, or a few measured points.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/substance/vapour_pressure.hpp"

namespace jampot {

/// Reads the Antoine equation as it is printed, with its logarithm and its units, and its range behind a
/// comma:
///   "log10(P/mmHg) = 8.07131 - 1730.63/(T/degC + 233.426), 1 to 100 degC"
///   "ln(P/kPa) = 14.3145 - 2756.22/(T/K - 44.94), 0 to 90 degC"
/// @throws RequestError saying what was expected
VapourPressure::Coefficients parse_vapour_pressure_equation(std::string_view text);

/// A measured or printed vapour pressure.
struct VapourPressurePoint {
  double T_K = 0,  ///< K
      P_Pa = 0;    ///< Pa
};

/// The Antoine equation through measured points by least squares in ln P: three coefficients where there are
/// three temperatures or more, a straight line in 1/T where there are two.
/// @throws CalculationError for fewer than two temperatures, or where the pressure does not rise with T
VapourPressure::Coefficients fit_antoine(const std::vector<VapourPressurePoint>& points);

/// The corresponding-states curve through measured points, ending at the critical point: the acentric factor
/// from one point, the two free terms by least squares in ln P from two temperatures or more.
/// @throws CalculationError where the curve would fall somewhere between the points and the critical point
CorrespondingStates fit_corresponding_states(const std::vector<VapourPressurePoint>& points, double Tc_K,
                                             double Pc_Pa);

}  // namespace jampot
