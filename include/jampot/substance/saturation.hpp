#pragma once
// Where a pure liquid boils, and what has to be said about it.
#include "jampot/basis/notice.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// What to say about using the vapour pressure of a substance between two temperatures: outside its measured
/// range, estimated altogether, above the critical point.
Notices vapour_pressure_notices(const Substance& substance, double Tmin_K, double Tmax_K);

/// One point of the saturation curve.
struct SaturationPoint {
  double T_K = 0,                    ///< temperature, K
      P_Pa = 0;                      ///< pressure, Pa
  std::optional<double> Hvap_J_mol;  ///< see `Properties`; nothing where it cannot be had
  Notices notices;                   ///< what the reader must know
};

/// Vapour pressure at T_K.
/// @throws CalculationError above the critical temperature, below the lowest temperature of the curve, or
/// where there
///         is no vapour pressure; the message names the limit
SaturationPoint saturation_at_temperature(const Substance& substance, double T_K);

/// Boiling temperature at P_Pa. @throws CalculationError above the critical pressure, and as above
SaturationPoint saturation_at_pressure(const Substance& substance, double P_Pa);

/// @throws CalculationError for a substance that has no vapour pressure and is not said to be non-volatile:
/// beside a vapour nothing could be said of it
void demand_volatility(const Substance& substance);

}  // namespace jampot
