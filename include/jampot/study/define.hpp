#pragma once
// A user-defined component from groups or a SMILES string and what is known, beside one from the bank.
#include <optional>
#include <string>
#include <vector>

#include "jampot/substance/bank.hpp"
#include "jampot/substance/define.hpp"
#include "jampot/substance/smiles.hpp"

namespace jampot {

/// What is known of it.
struct DefineRequest {
  std::string name{};                  ///< of the new substance
  KnownConstants known{};              ///< what is known of it
  std::string smiles{};                ///< divided into the groups of the methods for constants and of UNIFAC
  std::optional<Substance> against{};  ///< what the estimates are held against
  const Bank* bank = nullptr;          ///< in which the name must be free; nullptr: the built-in one
};

/// A molecule and the groups it was divided into.
struct DividedMolecule {
  Molecule molecule{};                    ///< atoms and bonds
  GroupDivision groups{};                 ///< its groups
  std::optional<GroupDivision> unifac{};  ///< nothing where they were given, or none was possible
};

/// One quantity of both substances, in the unit that its name ends with.
struct QuantityOfBoth {
  std::string name{};           ///< which quantity
  std::optional<double> own{},  ///< of the new substance
      other{};                  ///< of the one compared with
};

/// The substance and how it came about.
struct DefineStudy {
  DefinedSubstance defined{};                ///< the new substance
  KnownConstants known{};                    ///< with the groups of the SMILES string
  std::string smiles{};                      ///< as it was written
  std::optional<DividedMolecule> divided{};  ///< where the structure was given
  std::optional<Substance> against{};        ///< the one compared with
  std::vector<QuantityOfBoth> comparison{};  ///< of both
  Notices notices{};                         ///< what the reader must know
};

/// @throws RequestError for a name that is taken, groups beside a SMILES string, or as `define_substance`
DefineStudy study(const DefineRequest& request);

}  // namespace jampot
