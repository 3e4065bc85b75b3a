#pragma once
// The built-in bank of substances and how a half-remembered name is looked up in it.
#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// What tells a substance from others; known without reading its properties.
struct SubstanceIdentity {
  std::string name{};                  ///< the first of its names
  std::string formula{};               ///< molecular formula
  std::string cas{};                   ///< CAS registry number
  std::vector<std::string> aliases{};  ///< further names
  double molar_mass_kg_mol = 0;        ///< molar mass, kg/mol
};

/// Substances and how a name finds one of them. Copies share what they hold; safe to share between threads.
class Bank {
 public:
  /// The bank that comes with the library. Its names are read at the first call, a substance when it is first
  /// asked for.
  static const Bank& built_in();

  /// @param substances with unique names and CAS numbers; an alias or formula that several share finds none
  /// of them
  explicit Bank(std::vector<Substance> substances);

  /// The substance with this name, alias, CAS number or (where it is the only one) formula; nullptr if there
  /// is none. Case does not count.
  const Substance* find(std::string_view text) const;

  /// Of the substance that `find` finds, without reading its properties; nullptr if there is none.
  const SubstanceIdentity* identity(std::string_view text) const;

  /// As `find`. @throws RequestError suggesting the nearest names, or listing those that a shared name may
  /// mean.
  const Substance& require(std::string_view text) const;

  /// Everything that `text` may mean, best match first: exact, then beginning, then part, then misspelt.
  std::vector<const Substance*> search(std::string_view text) const;

  /// How many there are.
  std::size_t size() const;

  /// All of them, in the order of the table; reads those that nobody has asked for yet. They live as long as
  /// the bank or a copy of it.
  std::span<const Substance> all() const;

 private:
  struct Contents;
  explicit Bank(std::shared_ptr<const Contents> contents) : contents_(std::move(contents)) {}
  std::shared_ptr<const Contents> contents_;
};

/// The version of the data that the library carries, "2026.11": year and month of their last change.
std::string data_version();

}  // namespace jampot
