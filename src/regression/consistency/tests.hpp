#pragma once
// The tests of consistency, by the number of substances.
#include "jampot/regression/consistency.hpp"
#include "measured_gamma.hpp"

namespace jampot::consistency {

/// Mixed points with all of what is there analysed in both phases.
std::vector<const DataPoint*> mixed_points(const DataSet& data);

Consistency check_binary(const DataSet& data, const ConsistencyOptions& options);
Consistency check_more(const DataSet& data, const ConsistencyOptions& options);

/// Of the pure substances among the data.
ConsistencyTest end_points(const DataSet& data, const MeasuredGamma& gamma);

}  // namespace jampot::consistency
