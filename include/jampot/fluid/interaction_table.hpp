#pragma once
// Binary interaction parameters of equations of state.
#include <map>
#include <optional>
#include <string>
#include <utility>

namespace jampot {

/// k_ij of pairs, by the names of their substances in either order.
class InteractionTable {
 public:
  /// Sets the value of a pair, in either order.
  void set(const std::string& first, const std::string& second, double value);
  /// Nothing where the pair is not there.
  std::optional<double> find(const std::string& first, const std::string& second) const;

 private:
  std::map<std::pair<std::string, std::string>, double> values_;
};

}  // namespace jampot
