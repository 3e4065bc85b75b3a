#pragma once
// What a molecule is: identity, constants and correlations, each with its source.
#include <optional>
#include <string>
#include <vector>

#include "jampot/substance/vapour_pressure.hpp"

namespace jampot {

/// A pure substance. Constants that are not known stay empty; nothing is guessed.
struct Substance {
  std::string name;
  std::string formula;
  std::string cas;  ///< CAS registry number
  std::vector<std::string> aliases;
  double molar_mass_kg_mol = 0;
  std::optional<double> Tb_K;                     ///< normal boiling point
  std::optional<double> Tc_K;                     ///< critical temperature
  std::optional<double> Pc_Pa;                    ///< critical pressure
  std::optional<double> molar_volume_25C_m3_mol;  ///< of the liquid at 25 degC
  std::string source;                             ///< of the constants
  char grade = 'C';                               ///< of the constants, see data/README.md
  std::optional<VapourPressure> vapour_pressure;

  /// The shortest alias in capitals ("MTBE") or the name: for labels where room is short.
  std::string short_name() const;
};

/// Molar mass in kg/mol from a formula such as "C5H12O", with the standard atomic weights (IUPAC 2021,
/// abridged).
/// @throws RequestError for an element it does not know or a formula it cannot read.
double molar_mass_from_formula(const std::string& formula);

}  // namespace jampot
