#include "jampot/fluid/interaction_table.hpp"

namespace jampot {
namespace {

std::pair<std::string, std::string> ordered(const std::string& a, const std::string& b) {
  return a < b ? std::pair(a, b) : std::pair(b, a);
}

}  // namespace

void InteractionTable::set(const std::string& first, const std::string& second, double value) {
  values_[ordered(first, second)] = value;
}

std::optional<double> InteractionTable::find(const std::string& first, const std::string& second) const {
  const auto found = values_.find(ordered(first, second));
  return found == values_.end() ? std::nullopt : std::optional(found->second);
}

}  // namespace jampot
