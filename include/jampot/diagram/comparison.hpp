#pragma once
// Measured points against a model.
#include <optional>
#include <vector>

#include "jampot/measured/data_set.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Mean, mean absolute, root mean square and largest of some deviations (model minus measured).
struct DeviationSummary {
  int count = 0;             ///< number of points
  double mean = 0,           ///< mean of model minus measured
      mean_absolute = 0,     ///< mean of the absolute values
      root_mean_square = 0,  ///< root of the mean square
      largest = 0;           ///< largest absolute value, with its sign
};
DeviationSummary summarise(const std::vector<double>& deviations);

/// What the model says at measured x and P (isobaric data) or T, minus what was measured. Excluded points
/// have a row and count in no summary.
struct Comparison {
  /// One measured point beside the model at the same liquid.
  struct Row {
    DataPoint measured;     ///< the measured point
    double T_K = 0,         ///< temperature of the model, K
        P_Pa = 0;           ///< of the model
    std::vector<double> y;  ///< vapour of the model
  };
  std::vector<Row> rows;                ///< one for each point
  std::optional<DeviationSummary> T_K,  ///< deviations in K, where pressure was held
      P_Pa;                             ///< deviations in Pa, where temperature was held
  std::vector<DeviationSummary> y;      ///< of each component; empty where the vapour was not analysed
};

/// @throws CalculationError where the model has no bubble point at a measured composition.
Comparison compare(Mixture& mixture, const DataSet& data);

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline Comparison compare(const Mixture& mixture, const DataSet& data) {
  Mixture own = mixture;
  return compare(own, data);
}

/// The data with their substances in this order. @throws RequestError if they are about others.
DataSet in_order_of(const std::vector<Substance>& substances, DataSet data);

}  // namespace jampot
