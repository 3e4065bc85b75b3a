#pragma once
// A molecule from its SMILES string, and how it is divided into the groups of the first-order method.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/group_contributions.hpp"

namespace jampot {

/// An atom of a molecule.
struct SmilesAtom {
  std::string element;       ///< "C", "Cl"
  bool aromatic = false;     ///< written in lower case
  int hydrogens = 0;         ///< attached, written or implied
  int charge = 0;            ///< elementary charges
  bool in_ring = false;      ///< true within a ring
  std::size_t position = 0;  ///< in the string, counted from 1
};

/// A bond between two atoms.
struct SmilesBond {
  std::size_t from,       ///< number of an atom
      to;                 ///< number of the other atom
  int order = 1;          ///< 1 to 3; 1 for aromatic bonds
  bool aromatic = false;  ///< between two aromatic atoms of a ring
  bool in_ring = false;   ///< true within a ring
};

/// Atoms and bonds read from a SMILES string.
struct Molecule {
  std::vector<SmilesAtom> atoms;  ///< without hydrogen
  std::vector<SmilesBond> bonds;  ///< all of them
  std::string formula() const;    ///< in Hill order
};

/// Reads one molecule (no dots): organic subset, aromatic atoms, brackets with hydrogens and charge,
/// branches, rings, bonds - = # : / \. Stereochemistry and isotopes are read over. Source: D. Weininger, J.
/// Chem. Inf. Comput. Sci. 28 (1988) 31-36.
/// @throws RequestError naming the position that cannot be read
Molecule parse_smiles(std::string_view text);

/// A molecule divided into groups.
struct GroupDivision {
  /// A group and the atoms it takes.
  struct Part {
    std::string group;               ///< name of the group
    std::vector<std::size_t> atoms;  ///< numbers in Molecule::atoms
  };
  std::vector<Part> parts;         ///< each with its atoms
  std::vector<GroupCount> groups;  ///< how often each occurs
  Notices notices;                 ///< where another division would be as good
};

/// Divides by our own rules, larger groups first: nitro, nitrile, acid, ester, aldehyde, ketone, then
/// hydroxyl, ether, amines, sulphur, halogens, and the carbons that are left. The division is checked against
/// the formula.
/// @throws CalculationError naming the atoms for which there is no group
GroupDivision divide_into_groups(const Molecule& molecule);

}  // namespace jampot
