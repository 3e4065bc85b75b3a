#pragma once
// Minima of a fit that describe the measured points and nothing else that there can be.
#include <string>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/measured/data_set.hpp"

namespace jampot {

/// Why a model with the parameters it stands at cannot be the liquid of the data; empty where nothing speaks
/// against it. Judged of two substances of which no two liquids were measured: limiting activity coefficients
/// beyond ten thousand, and two liquids where the data have one or nobody measured.
std::string impossible(ActivityModel& model, const std::vector<DataSet>& sets);

}  // namespace jampot
