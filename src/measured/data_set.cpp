#include "jampot/measured/data_set.hpp"

#include <algorithm>
#include <array>

namespace jampot {

std::string_view name_of(DataKind kind) {
  constexpr std::array<std::string_view, 7> names{
      "txy", "pxy", "tx", "px", "lle", "gamma-inf", "excess-enthalpy"};
  return names[static_cast<std::size_t>(kind)];
}

bool DataPoint::is_pure() const {
  return std::any_of(x.begin(), x.end(), [](double fraction) { return fraction == 1; });
}

}  // namespace jampot
