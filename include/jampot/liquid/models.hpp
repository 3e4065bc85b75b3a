#pragma once
// Where the liquid models are named. A new model is one file of its own and one line in models.cpp.
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/pair_parameters.hpp"

namespace jampot {

/// The words by which a liquid model can be chosen.
std::vector<std::string> liquid_model_names();

/// Whether the model takes pair parameters. @throws RequestError for an unknown model, naming those there
/// are.
bool needs_pairs(const std::string& model);

/// The model for these substances with the pairs found in `parameters`.
/// @throws RequestError for an unknown model
/// @throws CalculationError naming every missing pair: a missing pair is never taken as zero
std::unique_ptr<ActivityModel> make_activity_model(const std::string& model,
                                                   const std::vector<std::string>& substances,
                                                   const ParameterCollection& parameters);

/// A model to be fitted: starting values in every term (they describe an almost ideal liquid).
std::unique_ptr<ActivityModel> make_activity_model_to_fit(const std::string& model, std::size_t size);

}  // namespace jampot
