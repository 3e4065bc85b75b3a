#pragma once
// Estimates of pairs that a prediction parts into two liquids: fitted to the predicted solubilities.
#include <memory>
#include <optional>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/regression/estimate.hpp"

namespace jampot {

struct SplitEstimate {
  PairParameters pair{};
  double rms_ln = 0;  ///< of the ratios of solubilities, estimated over predicted
  double worst_factor = 1;
  int solubilities = 0;
};

/// Nothing where the prediction does not part the liquid at two of six temperatures of the range, where the
/// model cannot, or where no fit parts it there as well.
std::optional<SplitEstimate> estimate_of_split(const Substance& first, const Substance& second,
                                               const EstimateOptions& options, ActivityModel& prediction);

}  // namespace jampot
