#pragma once
// What a molecule is: identity, constants and correlations, each value with its grade and source.
#include <array>
#include <cmath>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "jampot/substance/vapour_pressure.hpp"

namespace jampot {

/// A number with where it comes from. Reads as a plain number where one is wanted.
struct Sourced {
  double value = 0;    ///< the number
  char grade = 'C';    ///< see data/README.md
  std::string source;  ///< where the values come from
  /// The number.
  operator double() const { return value; }  // NOLINT(google-explicit-constructor): that is its purpose
};

using MaybeSourced = std::optional<Sourced>;

/// Ideal-gas heat capacity in J/(mol K), T in K: cubic, a + b T + c T^2 + d T^3, or hyperbolic,
///   C1 + C2 ((C3/T)/sinh(C3/T))^2 + C4 ((C5/T)/cosh(C5/T))^2.
/// Source of the second form: F. A. Aly, L. L. Lee, Fluid Phase Equilibria 6 (1981) 169-179.
struct GasHeatCapacity {
  std::array<double, 4> cubic{};                      ///< coefficients of the powers of T, J/(mol K)
  std::string source;                                 ///< where the values come from
  char grade = 'C';                                   ///< A to D, how well the source is established
  std::optional<std::array<double, 5>> hyperbolic{};  ///< coefficients of the hyperbolic form

  /// At a temperature, J/(mol K).
  double value(double T_K) const;
  double enthalpy_change(double from_K, double to_K) const;  ///< integral of Cp dT, J/mol
  double entropy_change(double from_K, double to_K) const;   ///< integral of Cp/T dT, J/(mol K)
};

/// Heat capacity of the liquid, Cp/(J/(kmol K)) = C1 + C2 T + ... + C5 T^4 between two temperatures.
struct LiquidHeatCapacity {
  std::array<double, 5> coefficients{};  ///< of the powers of T
  double Tmin_K = 0,                     ///< lowest temperature of validity, K
      Tmax_K = 0;                        ///< highest temperature of validity, K
  std::string source;                    ///< where the values come from
  char grade = 'C';                      ///< A to D, how well the source is established

  double value(double T_K) const;  ///< J/(mol K); means nothing outside of the range
};

/// Enthalpy of vaporisation, Hvap/(J/kmol) = C1 (1 - Tr)^(C2 + C3 Tr + C4 Tr^2).
struct VaporisationCurve {
  std::array<double, 4> coefficients{};  ///< of the curve
  double Tc_K = 0,                       ///< critical temperature, K
      Tmin_K = 0;                        ///< lowest temperature of validity, K
  std::string source;                    ///< where the values come from
  char grade = 'C';                      ///< A to D, how well the source is established

  double value(double T_K) const;  ///< J/mol; zero from the critical temperature on
};

/// Density of the saturated liquid, rho/(kmol/m3) = C1/C2^(1 + (1 - T/C3)^C4).
struct LiquidDensityCurve {
  std::array<double, 4> coefficients{};  ///< of the curve
  double Tmin_K = 0,                     ///< lowest temperature of validity, K
      Tmax_K = 0;                        ///< highest temperature of validity, K
  std::string source;                    ///< where the values come from
  char grade = 'C';                      ///< A to D, how well the source is established

  double molar_volume(double T_K) const;  ///< m3/mol
  double expansion(double T_K) const;     ///< d ln v/dT, 1/K
};

/// Viscosity of the liquid, ln(eta/(Pa s)) = slope/T + offset, T in K.
struct LiquidViscosity {
  double slope_K = 0,  ///< over T, K
      offset = 0;      ///< ln of Pa s
  std::string source;  ///< where the values come from

  /// At a temperature, Pa s.
  double value(double T_K) const { return std::exp(slope_K / T_K + offset); }
};

/// Parameters of MOSCED as printed, at 20 degC. Source: M. J. Lazzaroni et al., Ind. Eng. Chem. Res. 44
/// (2005) 4075-4083.
struct MoscedParameters {
  double v_cm3_mol = 0;  ///< molar volume, cm3/mol
  double lambda = 0,     ///< dispersion, MPa^0.5
      tau = 0;           ///< dispersion and polarity, MPa^0.5
  double q = 0;          ///< induction, between 0.9 and 1
  double alpha = 0,      ///< acidity, MPa^0.5
      beta = 0;          ///< acidity and basicity, MPa^0.5
  char grade = 'C';      ///< A to D, how well the source is established
  std::string source;    ///< where the values come from
};

/// @throws RequestError for parameters without a meaning: a volume or lambda that is not positive, q outside
/// 0..1, a negative tau, alpha or beta
void check_mosced(const MoscedParameters& parameters);

/// Parameters of PC-SAFT. Source: J. Gross, G. Sadowski, Ind. Eng. Chem. Res. 40 (2001) 1244-1260 and 41
/// (2002) 5510-5515.
struct PcSaftParameters {
  double segments = 0,              ///< number of segments
      diameter_A = 0,               ///< segment diameter, angstrom
      energy_K = 0;                 ///< dispersion energy over k, K
  std::string association_scheme;   ///< "2B", "4C"; empty where the substance does not associate
  double association_energy_K = 0,  ///< association energy over k, K
      association_volume = 0;       ///< association volume
  char grade = 'C';                 ///< A to D, how well the source is established
  std::string source;               ///< where the values come from
};

/// Parameters of second virial coefficients. Source: J. G. Hayden, J. P. O'Connell, Ind. Eng. Chem. Process
/// Des. Dev. 14 (1975) 209-216; J. M. Prausnitz et al., Computer Calculations for Multicomponent Vapor-Liquid
/// and Liquid-Liquid Equilibria (1980).
struct HaydenOConnellParameters {
  double radius_A = 0;  ///< mean radius of gyration
  double dipole_D = 0;  ///< dipole moment, debye
  double eta = 0;       ///< association; from 4.5 the molecules pair up (carboxylic acids)
  char grade = 'C';     ///< A to D, how well the source is established
  std::string source;   ///< where the values come from
};

/// Dimers in the vapour, K = P(dimer)/P(monomer)^2 with log10(K mmHg) = A + B/T, T in K.
struct DimerConstant {
  double A = 0,        ///< of log10(K mmHg) = A + B/T
      B_K = 0;         ///< of the same, K
  char grade = 'C';    ///< A to D, how well the source is established
  std::string source;  ///< where the values come from
};

/// A pure substance. Constants that are not known stay empty; nothing is guessed.
struct Substance {
  std::string name;                  ///< the first of its names
  std::string formula;               ///< molecular formula
  std::string cas;                   ///< CAS registry number
  std::vector<std::string> aliases;  ///< further names
  double molar_mass_kg_mol = 0;      ///< molar mass, kg/mol

  MaybeSourced Tb_K;                     ///< normal boiling point
  MaybeSourced Tm_K;                     ///< normal melting point
  MaybeSourced Tc_K,                     ///< critical temperature, K
      Pc_Pa;                             ///< critical point
  MaybeSourced Vc_m3_mol;                ///< critical volume
  MaybeSourced acentric_factor;          ///< acentric factor
  MaybeSourced dipole_D;                 ///< dipole moment, debye
  MaybeSourced Z_RA;                     ///< parameter of the Rackett equation
  MaybeSourced molar_volume_25C_m3_mol;  ///< molar volume of the liquid at 25 degC, m3/mol
  MaybeSourced density_20C_kg_m3,        ///< density of the liquid at 20 degC, kg/m3
      density_25C_kg_m3;                 ///< density of the liquid at 25 degC, kg/m3
  MaybeSourced Hvap_Tb_J_mol,            ///< enthalpy of vaporisation at the boiling point, J/mol
      Hvap_25C_J_mol;                    ///< enthalpy of vaporisation at 25 degC, J/mol
  MaybeSourced Cp_liquid_25C_J_mol_K;    ///< heat capacity of the liquid at 25 degC, J/(mol K)
  MaybeSourced viscosity_25C_Pa_s;       ///< viscosity of the liquid at 25 degC, Pa s
  MaybeSourced Hf_J_mol,                 ///< enthalpy of formation, ideal gas at 298.15 K, J/mol
      Gf_J_mol;                          ///< of formation, ideal gas at 298.15 K
  MaybeSourced uniquac_r,                ///< volume of the molecule in UNIQUAC
      uniquac_q;                         ///< from the UNIFAC groups

  std::map<std::string, std::string> groups;                ///< of each UNIFAC table: "CH3:2|CH2:1"
  std::optional<GasHeatCapacity> gas_heat_capacity;         ///< of the ideal gas
  std::optional<VapourPressure> vapour_pressure;            ///< equation and its range
  std::optional<LiquidHeatCapacity> liquid_heat_capacity;   ///< along temperature
  std::optional<VaporisationCurve> vaporisation;            ///< enthalpy of vaporisation along temperature
  std::optional<LiquidDensityCurve> liquid_density;         ///< along temperature
  std::optional<LiquidViscosity> liquid_viscosity;          ///< along temperature
  std::optional<MoscedParameters> mosced;                   ///< constants of MOSCED
  std::optional<PcSaftParameters> pc_saft;                  ///< constants of PC-SAFT
  std::optional<HaydenOConnellParameters> hayden_oconnell;  ///< constants of the Hayden-O'Connell method
  std::optional<DimerConstant> dimer;  ///< where Hayden and O'Connell do not describe the association

  /// Said to stay in the liquid whatever the temperature: a sugar, a salt-like solute. Only then may a
  /// substance without a vapour pressure take part in a calculation with a vapour.
  bool non_volatile = false;
  /// The groups it was defined from hold a carboxyl group.
  bool carboxyl_group = false;

  std::string label;  ///< chosen by the caller for tables and figures; empty: none

  /// The label, the shortest alias in capitals ("MTBE") or the name: where room is short.
  std::string short_name() const;

  Substance();                                       ///< with nothing set
  Substance(const Substance& other);                 ///< copied member by member
  Substance(Substance&& other) noexcept;             ///< moved member by member
  Substance& operator=(const Substance& other);      ///< copied member by member
  Substance& operator=(Substance&& other) noexcept;  ///< moved member by member
  ~Substance();                                      ///< member by member
};

/// Whether its molecules pair up in the vapour, as those of carboxylic acids do: by its groups of any table,
/// or its association data; only where it has neither, by a name that ends in " acid".
bool pairs_up(const Substance& substance);

/// Atoms of a formula such as "C5H12O": element to count. @throws RequestError where it cannot be read.
std::map<std::string, int> atoms_in(const std::string& formula);

/// Molar mass in kg/mol from a formula such as "C5H12O", with the standard atomic weights (IUPAC 2021,
/// abridged).
/// @throws RequestError for an element it does not know or a formula it cannot read.
double molar_mass_from_formula(const std::string& formula);

}  // namespace jampot
