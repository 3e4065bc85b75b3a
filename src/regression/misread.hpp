#pragma once
// What may be wrong with data that no parameters describe: fitted anew, read as people may have meant them.
#include <functional>

#include "jampot/regression/fit.hpp"

namespace jampot {

using Refit = std::function<Fit(const std::vector<DataSet>&, const FitOptions&)>;

/// Adds the notice `data-misread` where the misfit of a fit goes away when one of the sets is read in another
/// way, or when a thermometer or a gauge is taken to be off.
void find_misreading(Fit& result, const std::vector<DataSet>& sets, const FitOptions& options,
                     const Refit& refit);

}  // namespace jampot
