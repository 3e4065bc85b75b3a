#pragma once
// What to measure next, from the data there are.
#include <optional>
#include <string>
#include <vector>

#include "jampot/regression/next_measurement.hpp"

namespace jampot {

struct NextRequest {
  std::vector<DataSet> sets{};
  FitOptions fit{};  ///< how the data are fitted first
  NextOptions options{};
  std::string rival{};  ///< of the aim `models`: the other model
};

struct NextStudy {
  Fit fit{};
  std::optional<Fit> rival{};
  NextMeasurement result{};
  Notices notices{};
};

/// "azeotrope", "limits", "split", "parameters", "models", "T at x=0.3": sets the aim of the options.
/// @throws RequestError naming the aims there are
void read_aim(const std::string& text, NextOptions& options);

/// @throws as `fit` and `next_measurement`
NextStudy study(const NextRequest& request);

}  // namespace jampot
