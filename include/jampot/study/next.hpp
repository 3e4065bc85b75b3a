#pragma once
// What to measure next, from the data there are.
#include <optional>
#include <string>
#include <vector>

#include "jampot/regression/next_measurement.hpp"

namespace jampot {

/// What is to become more certain, from which data.
struct NextRequest {
  std::vector<DataSet> sets{};  ///< the sets of data
  FitOptions fit{};             ///< how the data are fitted first
  NextOptions options{};        ///< aim and candidates
  std::string rival{};          ///< of the aim `models`: the other model
};

/// What to measure next.
struct NextStudy {
  Fit fit{};                   ///< of the data at hand
  std::optional<Fit> rival{};  ///< of the model to be told apart
  NextMeasurement result{};    ///< what to measure
  Notices notices{};           ///< what the reader must know
};

/// "azeotrope", "limits", "split", "parameters", "models", "T at x=0.3": sets the aim of the options.
/// @throws RequestError naming the aims there are
void read_aim(const std::string& text, NextOptions& options);

/// @throws as `fit` and `next_measurement`
NextStudy study(const NextRequest& request);

}  // namespace jampot
