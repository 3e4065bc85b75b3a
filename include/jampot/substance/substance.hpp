#pragma once
// What a molecule is: identity, constants and correlations, each value with its grade and source.
#include <array>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "jampot/substance/vapour_pressure.hpp"

namespace jampot {

/// A number with where it comes from. Reads as a plain number where one is wanted.
struct Sourced {
  double value = 0;
  char grade = 'C';  ///< see data/README.md
  std::string source;
  operator double() const { return value; }  // NOLINT(google-explicit-constructor): that is its purpose
};

using MaybeSourced = std::optional<Sourced>;

/// Ideal-gas heat capacity, Cp/(J/(mol K)) = a + b T + c T^2 + d T^3, T in K.
struct GasHeatCapacity {
  std::array<double, 4> coefficients{};
  std::string source;
  char grade = 'C';

  double value(double T_K) const;
  double enthalpy_change(double from_K, double to_K) const;  ///< integral of Cp dT, J/mol
  double entropy_change(double from_K, double to_K) const;   ///< integral of Cp/T dT, J/(mol K)
};

/// A pure substance. Constants that are not known stay empty; nothing is guessed.
struct Substance {
  std::string name;
  std::string formula;
  std::string cas;  ///< CAS registry number
  std::vector<std::string> aliases;
  double molar_mass_kg_mol = 0;

  MaybeSourced Tb_K;         ///< normal boiling point
  MaybeSourced Tm_K;         ///< normal melting point
  MaybeSourced Tc_K, Pc_Pa;  ///< critical point
  MaybeSourced Vc_m3_mol;    ///< critical volume
  MaybeSourced acentric_factor;
  MaybeSourced dipole_D;  ///< dipole moment, debye
  MaybeSourced Z_RA;      ///< parameter of the Rackett equation
  MaybeSourced molar_volume_25C_m3_mol;
  MaybeSourced density_20C_kg_m3, density_25C_kg_m3;
  MaybeSourced Hvap_Tb_J_mol, Hvap_25C_J_mol;
  MaybeSourced Cp_liquid_25C_J_mol_K;
  MaybeSourced viscosity_25C_Pa_s;
  MaybeSourced uniquac_r, uniquac_q;  ///< from the UNIFAC groups

  std::map<std::string, std::string> groups;  ///< of each UNIFAC table: "CH3:2|CH2:1"
  std::optional<GasHeatCapacity> gas_heat_capacity;
  std::optional<VapourPressure> vapour_pressure;

  /// The shortest alias in capitals ("MTBE") or the name: for labels where room is short.
  std::string short_name() const;
};

/// Atoms of a formula such as "C5H12O": element to count. @throws RequestError where it cannot be read.
std::map<std::string, int> atoms_in(const std::string& formula);

/// Molar mass in kg/mol from a formula such as "C5H12O", with the standard atomic weights (IUPAC 2021,
/// abridged).
/// @throws RequestError for an element it does not know or a formula it cannot read.
double molar_mass_from_formula(const std::string& formula);

}  // namespace jampot
