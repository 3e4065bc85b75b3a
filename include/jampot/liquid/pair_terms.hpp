#pragma once
// The adjustable terms of a model, pair after pair, as every pair model keeps them.
#include <string_view>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/pair_parameters.hpp"

namespace jampot {

/// The terms `names` of `pairs`, which stand in the order (0,1), (0,2), ... (1,2), ..., with the first
/// component as substance 1.
/// @throws RequestError where a pair lacks one of them or names another, saying whose it is
std::vector<ModelTerm> pair_terms(std::string_view model, std::size_t size,
                                  const std::vector<PairParameters>& pairs,
                                  const std::vector<std::string_view>& names);

}  // namespace jampot
