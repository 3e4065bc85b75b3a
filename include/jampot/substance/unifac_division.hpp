#pragma once
// A molecule from its SMILES string divided into the subgroups of UNIFAC.
#include "jampot/substance/smiles.hpp"

namespace jampot {

/// Divides into subgroups of the table for vapour-liquid equilibria by our own rules: the fewest groups that
/// cover every atom once; among those the one with the usual groups (CH3CO before CH2CO, CH3O before CH2O).
/// A carbonyl carbon of a ketone has carbon neighbours only, an ether oxygen no carbonyl next to it, so that
/// esters and amides are not taken apart. Where two divisions are equally good a notice names the other.
/// @throws CalculationError naming the first atom that no subgroup covers, or that no division is possible
GroupDivision divide_into_unifac_groups(const Molecule& molecule);

}  // namespace jampot
