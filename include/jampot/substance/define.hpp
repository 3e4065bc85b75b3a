#pragma once
// A substance of one's own: what is known, and estimates of the rest, each marked.
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/group_contributions.hpp"

namespace jampot {

/// What the user knows. Everything may be left out, but without groups nothing can be estimated from
/// structure.
struct KnownConstants {
  std::vector<GroupCount> groups;
  std::optional<double> molar_mass_kg_mol, Tb_K, Tc_K, Pc_Pa, acentric_factor;
  std::optional<double> density_25C_kg_m3;
};

/// One constant of the result and how it came about.
struct DefinedConstant {
  std::string name;    ///< "Tc_K"
  double value = 0;    ///< SI
  std::string method;  ///< "given", or the method of the estimate
  bool estimated = false;
  std::string typical_error;  ///< of the estimate, as its authors or the tests here found it
};

struct DefinedSubstance {
  Substance substance;
  std::vector<DefinedConstant> constants;
  Notices notices;
};

/// Fills in what is missing: boiling point, critical constants, enthalpy of vaporisation and ideal-gas heat
/// capacity from groups (Joback, Reid 1987), the acentric factor from the boiling point, the vapour pressure
/// by corresponding states (Ambrose, Walton 1989), the molar mass from the groups.
/// @throws RequestError where what is given contradicts itself (boiling point above critical, mass against
/// groups)
/// @throws CalculationError where neither a molar mass nor groups are given
DefinedSubstance define_substance(const std::string& name, const KnownConstants& known);

}  // namespace jampot
