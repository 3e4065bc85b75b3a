#include "jampot/measured/assumed.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/text.hpp"
#include "jampot/measured/data_kind.hpp"

namespace jampot {
namespace {

struct Assumption {
  double value;
  std::string_view text;
};

Assumption assumption(std::string_view quantity, double measured) {
  if (quantity == "T") return {0.1, "0.1 K"};
  if (quantity == "P") return {0.005 * measured, "0.5 % of the pressure"};
  if (quantity == "y") return {0.01, "0.01"};
  for (const KindDescription* kind : liquid_value_kinds()) {
    const LiquidValue& value = *kind->value;
    if (quantity == value.column)
      return {std::max(value.assumed_least, value.assumed_part * std::abs(measured)), value.assumed_text};
  }
  return {0.003, "0.003"};
}

}  // namespace

double AssumedUncertainties::take(std::string_view quantity, double measured) {
  const Assumption assumed = assumption(quantity, measured);
  const std::string text = fmt::format("u({}) ({} assumed)", quantity, assumed.text);
  if (std::find(texts_.begin(), texts_.end(), text) == texts_.end()) texts_.push_back(text);
  return assumed.value;
}

double AssumedUncertainties::take_of_liquids() {
  const std::string text =
      fmt::format("u(x) (0.003 assumed, {:.0f} % of a smaller fraction)", 100 * assumed_relative_of_liquids);
  if (std::find(texts_.begin(), texts_.end(), text) == texts_.end()) texts_.push_back(text);
  return 0.003;
}

void AssumedUncertainties::add_notice(const std::string& file, Notices& notices) const {
  if (texts_.empty()) return;
  notices.add("uncertainty-assumed",
              fmt::format("{} does not state {}. Weights, standard errors and chi-square rest on that", file,
                          joined(texts_, ", ")));
}

}  // namespace jampot
