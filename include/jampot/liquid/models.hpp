#pragma once
// The liquid models by name. A new model is a class that describes itself and one line in models.cpp.
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/liquid/model_description.hpp"

namespace jampot {

/// Adds a model of the caller's own, which fits, diagrams and files then know by its name. Before other
/// threads use the library. @throws RequestError for a name that is taken
void add_liquid_model(ModelDescription description);

/// @throws RequestError for an unknown model, naming those there are
const ModelDescription& description_of(const std::string& model);

/// The words by which a liquid model can be chosen.
std::vector<std::string> liquid_model_names();

/// Those that take pair parameters.
std::vector<std::string> pair_model_names();

/// Whether the model takes pair parameters. @throws RequestError for an unknown model, naming those there
/// are.
bool needs_pairs(const std::string& model);

/// Whether the model can describe two liquids at all; the Wilson equation and the ideal solution cannot.
bool can_split(const std::string& model);

/// The model for these substances with the pairs found in `parameters`.
/// @throws RequestError for an unknown model, or pairs that state different sizes for one substance
/// @throws CalculationError naming every missing pair, group, or molecular size: nothing missing is taken as
/// zero
std::unique_ptr<ActivityModel> make_activity_model(const std::string& model,
                                                   const std::vector<Substance>& substances,
                                                   const ParameterCollection& parameters);

/// The terms of a pair in the order of ActivityModel::terms(). Empty for a model without adjustable terms.
/// @throws RequestError for an unknown model.
const std::vector<TermForFit>& terms_for_fit(const std::string& model);

/// A model to be fitted, every term at its neutral value.
std::unique_ptr<ActivityModel> make_activity_model_to_fit(const std::string& model,
                                                          const std::vector<Substance>& substances);

/// A pair of the model with every term at its neutral value and the sizes of the substances that the model
/// takes from them stated: what a fit begins with and what it hands on.
PairParameters neutral_pair(const std::string& model, const Substance& first, const Substance& second);

}  // namespace jampot
