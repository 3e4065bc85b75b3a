#pragma once
// Measured pairs of liquids against a model.
#include "jampot/diagram/comparison.hpp"
#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// Measured pairs of liquids beside those of a model.
struct LiquidComparison {
  /// One measured pair; the model has none where its liquid does not part.
  struct Row {
    DataPoint measured;         ///< the measured point
    std::vector<double> alpha,  ///< the nearest liquid of the model
        beta;                   ///< of the model, as the measured x and y; empty where it is one liquid there
    double distance =
        0;  ///< root mean square over all fractions of both liquids, mole fraction; 0 where there is none
  };
  std::vector<Row> rows;            ///< one for each point
  std::vector<DeviationSummary> x;  ///< of each component, both liquids together, mole fraction
  DeviationSummary distance;        ///< between measured and nearest composition
  int without = 0;                  ///< measured pairs where the model does not part
};

/// The model's two liquids nearest to measured ones: of a binary those of the whole line at that temperature,
/// of more substances those into which the middle of the measured pair parts. Nothing where it does not part
/// into two.
struct NearestLiquids {
  std::vector<double> alpha,  ///< nearest tie line, first liquid
      beta;                   ///< nearest tie line, second liquid
};
std::optional<NearestLiquids> nearest_liquids(ActivityModel& model, const DataPoint& measured);

/// @pre the data are of two liquids, with the substances in the order of the model
LiquidComparison compare_liquids(ActivityModel& model, const DataSet& data);

}  // namespace jampot
