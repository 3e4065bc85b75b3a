#include "jampot/measured/data_kind.hpp"

#include <array>
#include <cmath>

#include "kinds/kinds.hpp"

namespace jampot {

std::span<const KindDescription> data_kinds() {
  static const std::array all{kinds::boiling(DataKind::txy), kinds::boiling(DataKind::pxy),
                              kinds::boiling(DataKind::tx),  kinds::boiling(DataKind::px),
                              kinds::two_liquids(),          kinds::limiting_gamma(),
                              kinds::activity_coefficient(), kinds::excess_enthalpy()};
  return all;
}

const KindDescription& describe(DataKind kind) {
  return data_kinds()[static_cast<std::size_t>(kind)];
}

std::vector<const KindDescription*> liquid_value_kinds() {
  std::vector<const KindDescription*> list;
  for (const KindDescription& kind : data_kinds())
    if (kind.value != nullptr) list.push_back(&kind);
  return list;
}

double LiquidValue::by_model(ActivityModel& model, const DataPoint& point) const {
  ModelValue result;
  evaluate(model, point, false, result);
  return logarithmic ? std::exp(result.value) : result.value;
}

}  // namespace jampot
