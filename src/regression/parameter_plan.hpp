#pragma once
// Which numbers a fit determines: coefficients of the model's terms, factors of vapour pressures, offsets of
// whole data sets.
#include <vector>

#include "jampot/regression/fit.hpp"
#include "vle_residual.hpp"

namespace jampot {

/// Which coefficients are fitted and which are held, in the order of the model's terms.
struct ParameterPlan {
  std::vector<FittedParameter> all;
  std::vector<FreeParameter> free;
  std::vector<double> start_low, start_high;  ///< scaled; where a search may start
  std::vector<double> lowest, highest;        ///< scaled bounds
  std::vector<double> neutral;                ///< scaled values of an almost ideal liquid
};

/// The term of an offset of a data set.
constexpr const char* offset_of_T = "offset of T";
constexpr const char* offset_of_P = "offset of P";

inline bool is_offset(const FittedParameter& parameter) {
  return parameter.term == offset_of_T || parameter.term == offset_of_P;
}

/// @param sets  whose offsets are fitted where the options ask for them; they outlive the plan
/// @throws RequestError for a term the model does not have, or one that is both held and released.
ParameterPlan plan_parameters(const FitOptions& options, const std::vector<Substance>& substances,
                              double reference_T_K, const std::vector<DataSet>& sets = {});

}  // namespace jampot
