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

void AssumedUncertainties::note(std::string quantity, std::string text) {
  for (const Taken& known : taken_)
    if (known.text == text) return;
  taken_.push_back({std::move(quantity), std::move(text)});
}

double AssumedUncertainties::take(std::string_view quantity, double measured) {
  const Assumption assumed = assumption(quantity, measured);
  note(fmt::format("u({})", quantity), fmt::format("u({}) ({} assumed)", quantity, assumed.text));
  return assumed.value;
}

double AssumedUncertainties::take_of_liquids() {
  note("u(x)", fmt::format("u(x) (0.003 assumed, {:.0f} % of a smaller fraction)",
                           100 * assumed_relative_of_liquids));
  return 0.003;
}

void AssumedUncertainties::add_notice(const std::string& file, DataKind kind, Notices& notices) const {
  const std::vector<std::string_view>& weighing = describe(kind).uncertainties;
  std::vector<std::string> texts;
  for (const Taken& one : taken_) {
    if (std::find(weighing.begin(), weighing.end(), one.quantity) != weighing.end())
      texts.push_back(one.text);
  }
  if (texts.empty()) return;
  notices.add(
      "uncertainty-assumed",
      fmt::format(
          "{} does not state {}. Weights, standard errors and chi-square depend on the assumed values", file,
          joined(texts, ", ")));
}

}  // namespace jampot
