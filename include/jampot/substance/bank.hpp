#pragma once
// The built-in bank of substances and how a half-remembered name is looked up in it.
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// Substances and how a name finds one of them.
class Bank {
 public:
  /// The bank that comes with the library. Read once, at the first call; safe to share between threads.
  static const Bank& built_in();

  /// @param substances with unique names and CAS numbers; an alias or formula that several share finds none
  /// of them
  explicit Bank(std::vector<Substance> substances);

  /// The substance with this name, alias, CAS number or (where it is the only one) formula; nullptr if there
  /// is none. Case does not count.
  const Substance* find(std::string_view text) const;

  /// As `find`. @throws RequestError suggesting the nearest names, or listing those that a shared name may
  /// mean.
  const Substance& require(std::string_view text) const;

  /// Everything that `text` may mean, best match first: exact, then beginning, then part, then misspelt.
  std::vector<const Substance*> search(std::string_view text) const;

  /// In the order of the table.
  const std::vector<Substance>& all() const { return substances_; }

 private:
  std::vector<Substance> substances_;
  std::unordered_map<std::string, std::size_t>
      by_key_;  ///< lower-case name, alias, CAS number or unique formula
};

/// The version of the data that the library carries, "2026.11": year and month of their last change.
std::string data_version();

}  // namespace jampot
