#pragma once
// How a name, an alias, a formula or a CAS number finds a substance, and a misspelt one its neighbours.
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "jampot/substance/bank.hpp"

namespace jampot {

/// Finds the number of a substance in a list of identities, which has to outlive it.
class NameIndex {
 public:
  explicit NameIndex(const std::vector<SubstanceIdentity>& identities);

  /// By name, alias, CAS number or unique formula; case does not count.
  std::optional<std::size_t> find(std::string_view text) const;

  /// Numbers of what a text may mean, best match first.
  std::vector<std::size_t> search(std::string_view text) const;

  const SubstanceIdentity& operator[](std::size_t number) const { return identities_[number]; }

 private:
  void add(const std::string& key, std::size_t number);

  const std::vector<SubstanceIdentity>& identities_;
  std::unordered_map<std::string, std::size_t> by_key_;  ///< in lower case
};

}  // namespace jampot
