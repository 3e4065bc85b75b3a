#pragma once
// Where the liquid models are named. A new model is one file of its own and one line in models.cpp.
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

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

/// What a fit has to know of one term of a model.
struct TermForFit {
  std::string name;
  double neutral;                ///< its value for an almost ideal liquid; also what it is held at
  bool held;                     ///< unless asked otherwise
  bool follows_T;                ///< takes the temperature dependence asked for; otherwise a constant
  double start_low, start_high;  ///< values from which a search may start
  double lowest, highest;        ///< values beyond which the model has no sensible meaning
};

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
