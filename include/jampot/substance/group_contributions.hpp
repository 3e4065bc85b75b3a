#pragma once
// Constants of a molecule from its groups: the first-order method of Joback and Reid.
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// A group and how often a molecule has it.
struct GroupCount {
  std::string group;  ///< as in data/group_contributions.csv: "CH3", "ring =CH", "OH"
  int count = 0;      ///< how often it occurs
};

/// The names of the groups there are.
std::vector<std::string> group_names();

/// Reads "CH3=2, CH2=3, ring =CH=6": the number follows the last equals sign.
/// @throws RequestError for an unknown group (nearest suggested) or a count that is no positive whole number
std::vector<GroupCount> parse_groups(std::string_view text);

/// "C5H12O": carbon, hydrogen, then the alphabet.
std::string hill_formula(std::map<std::string, int> atoms);

/// Sum formula of the groups in Hill order ("C5H12O").
std::string formula_of(const std::vector<GroupCount>& groups);

/// What the groups say. Quantities whose table has a gap for one of the groups stay empty.
///
/// Source: K. G. Joback, R. C. Reid, Chem. Eng. Commun. 57 (1987) 233-243.
struct GroupEstimate {
  std::optional<double> Tb_K,           ///< normal boiling point, K
      Tm_K;                             ///< melting point, K
  std::optional<double> Tc_K;           ///< from the boiling point given, else from the estimated one
  std::optional<double> Pc_Pa,          ///< critical pressure, Pa
      Vc_m3_mol;                        ///< critical volume, m3/mol
  std::optional<double> Hf_J_mol,       ///< enthalpy of formation, ideal gas at 298.15 K, J/mol
      Gf_J_mol;                         ///< of formation, ideal gas at 298.15 K
  std::optional<double> Hvap_Tb_J_mol;  ///< enthalpy of vaporisation at the boiling point, J/mol
  std::optional<GasHeatCapacity> gas_heat_capacity;  ///< of the ideal gas
  std::optional<LiquidViscosity> liquid_viscosity;   ///< of the liquid
};

/// @param Tb_K the boiling point if it is known: the critical temperature rests on it
GroupEstimate estimate_from_groups(const std::vector<GroupCount>& groups, std::optional<double> Tb_K);

/// Its heat capacity of the ideal gas alone.
std::optional<GasHeatCapacity> gas_heat_capacity_from_groups(const std::vector<GroupCount>& groups);

}  // namespace jampot
