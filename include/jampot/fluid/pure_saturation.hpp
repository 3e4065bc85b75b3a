#pragma once
// Vapour pressure of a pure substance from an equation of state.
#include <optional>

#include "jampot/fluid/equation_of_state.hpp"

namespace jampot {

/// Liquid and vapour of a pure substance with the same Gibbs energy.
struct PureSaturation {
  double T_K = 0,              ///< temperature, K
      P_Pa = 0;                ///< pressure, Pa
  double v_liquid_m3_mol = 0,  ///< molar volume of the liquid, m3/mol
      v_vapour_m3_mol = 0;     ///< molar volume of the vapour, m3/mol
  double Hvap_J_mol = 0;       ///< enthalpy of vaporisation, J/mol
};

/// Component `of` alone, at T_K. Nothing above the critical temperature of the equation (or where vapour and
/// liquid cannot be told apart any more).
std::optional<PureSaturation> pure_saturation_P(EquationOfState& equation, std::size_t of, double T_K);
/// At P_Pa.
std::optional<PureSaturation> pure_saturation_T(EquationOfState& equation, std::size_t of, double P_Pa);

/// Critical temperature and pressure of a component by the equation itself.
struct PureCritical {
  double T_K = 0,  ///< temperature, K
      P_Pa = 0;    ///< pressure, Pa
};
PureCritical pure_critical(EquationOfState& equation, std::size_t of);

}  // namespace jampot
