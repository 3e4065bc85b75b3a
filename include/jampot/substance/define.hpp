#pragma once
// A user-defined component: what is known, and estimates of the rest, each marked.
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/group_contributions.hpp"
#include "jampot/substance/liquid_density.hpp"
#include "jampot/substance/unifac_groups.hpp"
#include "jampot/substance/vapour_pressure_equation.hpp"

namespace jampot {

/// What the user knows. Everything may be left out, but without groups nothing can be estimated from
/// structure.
struct KnownConstants {
  std::vector<GroupCount> groups;                                ///< of the first-order method for constants
  std::map<UnifacTable, std::vector<GroupCount>> unifac_groups;  ///< of the liquid models
  std::optional<double> molar_mass_kg_mol,                       ///< molar mass, kg/mol
      Tb_K,                                                      ///< normal boiling point, K
      Tm_K,                                                      ///< melting point, K
      Tc_K,                                                      ///< critical temperature, K
      Pc_Pa,                                                     ///< critical pressure, Pa
      acentric_factor;                                           ///< acentric factor
  std::optional<double> Hvap_Tb_J_mol,     ///< enthalpy of vaporisation at the boiling point, J/mol
      Cp_liquid_25C_J_mol_K;               ///< heat capacity of the liquid at 25 degC, J/(mol K)
  std::optional<double> uniquac_r,         ///< volume of the molecule in UNIQUAC
      uniquac_q;                           ///< surface of the molecule in UNIQUAC
  std::optional<LiquidDensity> density;    ///< one density of the liquid
  std::optional<MoscedParameters> mosced;  ///< constants of MOSCED
  bool non_volatile = false;               ///< stays in the liquid: no vapour pressure is given or estimated
  std::string vapour_pressure_equation;    ///< as printed, see parse_vapour_pressure_equation
  std::vector<VapourPressurePoint> vapour_pressure_points;  ///< measured ones
};

/// One constant of the result and how it came about.
struct DefinedConstant {
  std::string name;           ///< "Tc_K"
  double value = 0;           ///< SI
  std::string method;         ///< "given", or the method of the estimate
  bool estimated = false;     ///< true where it was estimated
  std::string typical_error;  ///< of the estimate, as its authors or the tests here found it
};

/// A user-defined component with what was estimated of it.
struct DefinedSubstance {
  Substance substance;                     ///< the pure substance
  std::vector<DefinedConstant> constants;  ///< where each came from
  Notices notices;                         ///< what the reader must know
};

/// Fills in what is missing:
/// - boiling point, critical constants, melting point, enthalpy of vaporisation, formation, ideal-gas heat
///   capacity and liquid viscosity from groups (Joback, Reid 1987);
/// - the vapour pressure from the equation given, or by least squares through the points given, or by
///   corresponding states (Ambrose, Walton 1989) through the boiling point; the boiling point from either of
///   the first two where it is not given;
/// - the acentric factor from the vapour pressure;
/// - the liquid volume at 25 degC from a density at another temperature by the Rackett equation;
/// - UNIQUAC r and q from UNIFAC groups; the molar mass from the groups.
/// @throws RequestError where what is given contradicts itself (boiling point above critical, mass against
/// groups, an equation and points)
/// @throws CalculationError where neither a molar mass nor groups are given
DefinedSubstance define_substance(const std::string& name, const KnownConstants& known);

}  // namespace jampot
