#pragma once
// The vapour pressures that a fit takes beside its pair parameters.
#include "jampot/regression/fit.hpp"

namespace jampot {

/// By what the vapour pressures have to be multiplied to meet the pure points of the sets, of each substance
/// that has such points (else 1): the geometric mean over them.
/// @throws RequestError where no set has a point of a pure substance
std::vector<double> own_factors(const std::vector<DataSet>& sets);

/// The substances with their vapour pressures multiplied.
std::vector<Substance> with_factors(std::vector<Substance> substances, const std::vector<double>& factors);

}  // namespace jampot
