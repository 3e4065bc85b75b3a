#pragma once
// Properties of a pure substance at a state, by named published methods through the known points.
#include <optional>
#include <string>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// A property, or why there is none; `method` says where the number comes from.
struct Property {
  std::optional<double> value;  ///< none where it cannot be had
  std::string method;           ///< or, where there is no value, what is missing
};

/// Enthalpy of vaporisation at T_K, J/mol: the curve of the bank; else by the Watson relation, (1 - Tr)^0.38,
/// through the known value at the boiling point (or at 25 degC); with both known the exponent is the one that
/// joins them. Source: K. M. Watson, Ind. Eng. Chem. 35 (1943) 398-406.
Property enthalpy_of_vaporisation(const Substance& substance, double T_K);

/// Enthalpy of vaporisation from the slope of the vapour pressure, dP/dT T (V of the vapour - V of the
/// liquid), J/mol; the vapour by its second virial coefficient, where that is not known 3.5 % below ideal at
/// one atmosphere.
/// @pre the substance has a vapour pressure
double enthalpy_from_slope(const Substance& substance, double T_K);

/// Molar volume of the saturated liquid, m3/mol: the known value at 25 degC carried by the curve of the bank,
/// else by the Rackett equation
/// with Z_RA (or Z_RA from the acentric factor: T. Yamada, R. D. Gunn, J. Chem. Eng. Data 18 (1973) 234-236).
/// Source: C. F. Spencer, R. P. Danner, J. Chem. Eng. Data 17 (1972) 236-241.
Property liquid_molar_volume(const Substance& substance, double T_K);

/// Its relative change with temperature, d ln v/dT in 1/K; nothing where there is no volume.
std::optional<double> liquid_expansion(const Substance& substance, double T_K);

/// Ideal-gas heat capacity, J/(mol K).
Property gas_heat_capacity(const Substance& substance, double T_K);

/// Heat capacity of the liquid, J/(mol K): the correlation of the bank within its range, carried on from its
/// end; else the known value at 25 degC carried by the change of the ideal-gas value and of the
/// Rowlinson-Bondi departure, as printed by R. C. Reid, J. M. Prausnitz, B. E. Poling, The Properties of
/// Gases and Liquids, 4th ed. (1987). From 0.85 Tc on it is the slope of the enthalpy (`EnthalpyPath`).
Property liquid_heat_capacity(const Substance& substance, double T_K);

/// Viscosity of the liquid, Pa s: the group contributions of a user-defined component; else the known value
/// at 25 degC carried by the one-point rule of Lewis and Squires, eta^-0.2661 = eta_0^-0.2661 + (T - T_0)/233
/// with eta in mPa s: five to fifteen per cent, worse for water and at low temperatures. Source: W. K. Lewis,
/// L. Squires, Refiner Nat. Gasoline Manuf. 13 (1934) 448, as printed by Reid, Prausnitz, Poling, 4th ed.
Property liquid_viscosity(const Substance& substance, double T_K);

/// Second virial coefficient, m3/mol, and its derivatives with T: corresponding states for non-polar
/// substances. Polar and associating vapours deviate from it. Source: C. Tsonopoulos, AIChE J. 20 (1974)
/// 263-272.
struct SecondVirial {
  double B_m3_mol,  ///< B, m3/mol
      dB_dT,        ///< first derivative with T
      d2B_dT2;      ///< second derivative with T
};
std::optional<SecondVirial> second_virial(const Substance& substance, double T_K);

/// Where enthalpy and entropy are zero.
struct Reference {
  /// Which state has zero enthalpy.
  enum class Kind {
    ideal_gas,         ///< ideal gas at T_K and 101.325 kPa
    saturated_liquid,  ///< saturated liquid at T_K
    elements           ///< the elements at 298.15 K: the ideal gas has its enthalpy and entropy of formation
  };
  Kind kind = Kind::ideal_gas;  ///< which state
  double T_K = 298.15;          ///< its temperature, K
};
std::string name_of(const Reference& reference);
/// Reads "ideal-gas", "liquid", either of them "at 0 degC", or "elements".
/// @throws RequestError naming the references there are.
Reference parse_reference(std::string_view text);

/// Enthalpy of the ideal gas at T_K on a reference, J/mol.
Property ideal_gas_enthalpy(const Substance& substance, double T_K, const Reference& reference);

/// One phase at a state.
struct PhaseProperties {
  Property molar_volume_m3_mol,  ///< molar volume, m3/mol
      density_kg_m3,             ///< kg/m3
      Cp_J_mol_K,                ///< molar heat capacity, J/(mol K)
      h_J_mol,                   ///< molar enthalpy, J/mol
      s_J_mol_K,                 ///< molar entropy, J/(mol K)
      viscosity_Pa_s,            ///< Pa s
      fugacity_coefficient;      ///< of the pure substance
};

/// Properties of a pure substance at one state.
struct StateProperties {
  double T_K = 0,                         ///< temperature, K
      P_Pa = 0;                           ///< pressure, Pa
  bool saturated = false;                 ///< true where liquid and vapour are in equilibrium
  std::optional<PhaseProperties> liquid,  ///< at saturation, or where the liquid is stable
      vapour;                             ///< both at saturation, else the one that is there
  Notices notices;                        ///< what the reader must know
};

/// Both phases at saturation.
StateProperties properties_at_saturation(const Substance& substance, double T_K, const Reference& reference);

/// The stable phase at T_K and P_Pa: liquid above the vapour pressure, vapour below it.
StateProperties properties_at(const Substance& substance, double T_K, double P_Pa,
                              const Reference& reference);

}  // namespace jampot
