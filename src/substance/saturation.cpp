#include "jampot/substance/saturation.hpp"

#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {
namespace {

double celsius(double T_K) {
  return T_K - celsius_zero;
}

const VapourPressure& require_curve(const Substance& substance) {
  if (substance.vapour_pressure) return *substance.vapour_pressure;
  throw CalculationError(fmt::format(
      "{} has no vapour pressure in the databank, and no critical point from which one could be estimated",
      substance.name));
}

SaturationPoint point(const Substance& substance, double T_K, double P_Pa) {
  return {T_K, P_Pa, enthalpy_of_vaporisation(substance, T_K).value,
          vapour_pressure_notices(substance, T_K, T_K)};
}

}  // namespace

void demand_volatility(const Substance& substance) {
  if (substance.vapour_pressure || substance.non_volatile) return;
  throw CalculationError(fmt::format(
      "{} has no vapour pressure, so its vapour cannot be calculated. Define it with a boiling point and "
      "critical constants, or with points, or mark it as non-volatile if it stays in the liquid",
      substance.name));
}

Notices vapour_pressure_notices(const Substance& substance, double Tmin_K, double Tmax_K) {
  Notices notices;
  if (!substance.vapour_pressure) return notices;
  const VapourPressure& curve = *substance.vapour_pressure;
  if (substance.Tc_K && Tmax_K > *substance.Tc_K) {
    notices.add(
        "above-critical",
        fmt::format(
            "{} has its critical point at {:.1f} degC; above it there is no vapour pressure, and this "
            "result (up to {:.1f} degC) means nothing for it",
            substance.name, celsius(*substance.Tc_K), celsius(Tmax_K)));
  }
  if (Tmin_K < curve.lowest_K() - 1e-6 && curve.Tc_K()) {
    notices.add(
        "below-melting",
        fmt::format(
            "the vapour pressure of {} ends at {:.1f} degC; below it (down to {:.1f} degC) it is a straight "
            "line in 1/T, for a liquid that may be frozen",
            substance.name, celsius(curve.lowest_K()), celsius(Tmin_K)));
  }
  if (curve.estimated()) {
    notices.add(
        "vapour-pressure-estimated",
        fmt::format("the vapour pressure of {} is {}; it is good to some per cent near the boiling point, and"
                    " to ten per cent or worse far below it",
                    substance.name, curve.source()));
    return notices;
  }
  constexpr double slack = 1e-6;  // a boiling point computed to the last digit may touch the end of the range
  if (Tmin_K < curve.Tmin_K() - slack || Tmax_K > curve.Tmax_K() + slack) {
    notices.add("vapour-pressure-range",
                fmt::format("the vapour pressure of {} is known from {:.1f} to {:.1f} degC; this result uses "
                            "it {}, continued "
                            "{}",
                            substance.name, celsius(curve.Tmin_K()), celsius(curve.Tmax_K()),
                            temperatures_text(Tmin_K, Tmax_K),
                            curve.Tc_K() ? "by corresponding states (Ambrose, Walton 1989) joined to it"
                                         : "with the slope at the end of its range"));
  }
  return notices;
}

SaturationPoint saturation_at_temperature(const Substance& substance, double T_K) {
  demand_temperature(T_K);
  const VapourPressure& curve = require_curve(substance);
  if (substance.Tc_K && T_K > *substance.Tc_K) {
    throw CalculationError(
        fmt::format("{} has its critical point at {:.2f} K ({:.2f} degC); above it liquid and vapour "
                    "are one, and there is no vapour pressure",
                    substance.name, substance.Tc_K->value, celsius(*substance.Tc_K)));
  }
  if (T_K < curve.lowest_K() - 1e-6) {
    throw CalculationError(
        fmt::format("the vapour pressure of {} is described down to {:.2f} K ({:.2f} degC) only",
                    substance.name, curve.lowest_K(), celsius(curve.lowest_K())));
  }
  return point(substance, T_K, curve.P_Pa(T_K));
}

SaturationPoint saturation_at_pressure(const Substance& substance, double P_Pa) {
  demand_pressure(P_Pa);
  const VapourPressure& curve = require_curve(substance);
  if (substance.Pc_Pa && P_Pa > *substance.Pc_Pa) {
    throw CalculationError(
        fmt::format("{} has its critical point at {:.2f} bar; above it there is no boiling point",
                    substance.name, *substance.Pc_Pa / 1e5));
  }
  const double T_K = curve.T_K(P_Pa);
  if (T_K < curve.lowest_K() - 1e-6) {
    throw CalculationError(
        fmt::format("the vapour pressure of {} is described down to {:.3g} Pa ({:.2f} degC) only",
                    substance.name, curve.P_Pa(curve.lowest_K()), celsius(curve.lowest_K())));
  }
  return point(substance, T_K, P_Pa);
}

}  // namespace jampot
