#pragma once
// Tables and sentences about a fit, for the commands that print them.
#include <optional>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/files/json_results.hpp"
#include "jampot/files/table.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/regression/ranking.hpp"

namespace jampot::tool {

Table parameter_table(const Fit& fit);
Table statistics_table(const Fit& fit);
Table residual_table(const Fit& fit);
Table liquid_residual_table(const Fit& fit);
Table ranking_table(const std::vector<RankedFit>& ranked);

/// The fitted binary at the mean pressure (isobaric data) or temperature of its first data set, with the
/// uncertainty that the fitted parameters give to each azeotrope.
struct FittedAzeotropes {
  BinaryCurve curve;
  std::vector<AzeotropeUncertainty> uncertainties;
};
std::optional<FittedAzeotropes> fitted_azeotropes(const Fit& fit, Sought sought);

Table table_of(const FittedAzeotropes& azeotropes, const Fit& fit);
Json to_json(const FittedAzeotropes& azeotropes);

}  // namespace jampot::tool
