#include "jampot/substance/vapour_pressure_estimate.hpp"

#include <cmath>
#include <vector>

#include "../basis/integral.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/vapour_pressure_equation.hpp"

namespace jampot {
namespace {

// The boiling point and the pressure at 25 degC; none where no enthalpy of vaporisation is known, or where
// the two temperatures lie too near to each other to matter.
std::vector<VapourPressurePoint> by_enthalpy_of_vaporisation(const Substance& guess) {
  constexpr double near_K = 20;
  const double Tb_K = *guess.Tb_K;
  if (Tb_K < room_T_K + near_K || !enthalpy_of_vaporisation(guess, Tb_K).value) return {};
  // The slope of the guess, corrected by the enthalpy: the volumes of the two phases cancel but for what the
  // guess has wrong in its pressure, which counts only where the vapour is ideal.
  const auto slope = [&](double T_K) {
    return guess.vapour_pressure->dln_P_dT(T_K) * *enthalpy_of_vaporisation(guess, T_K).value /
           enthalpy_from_slope(guess, T_K);
  };
  const double fall = integral(slope, room_T_K, Tb_K);
  return {{Tb_K, standard_atmosphere}, {room_T_K, standard_atmosphere * std::exp(-fall)}};
}

}  // namespace

VapourPressure estimate_vapour_pressure(const Substance& substance,
                                        const CorrespondingStates::Critical& critical,
                                        const std::string& whence) {
  const std::string ending = whence.empty() ? "" : ", with a critical point from " + whence;
  std::optional<double> Tm_K;
  if (substance.Tm_K) Tm_K = *substance.Tm_K;
  Substance guess = substance;
  guess.vapour_pressure.emplace(
      critical,
      "estimated: corresponding states (Ambrose, Walton 1989) through the normal boiling point" + ending,
      Tm_K);
  const auto points = by_enthalpy_of_vaporisation(guess);
  if (points.empty()) return *guess.vapour_pressure;
  try {
    return {fit_corresponding_states(points, critical.Tc_K, critical.Pc_Pa), critical.Tc_K,
            "estimated: from the normal boiling point by the enthalpy of vaporisation "
            "(Ambrose, Walton 1989)" +
                ending,
            Tm_K};
  } catch (const CalculationError&) {  // an enthalpy that does not go with the critical point
    return *guess.vapour_pressure;
  }
}

}  // namespace jampot
