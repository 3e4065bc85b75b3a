#include "jampot/liquid/models.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <deque>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/ideal.hpp"
#include "jampot/liquid/margules.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "jampot/liquid/redlich_kister.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/uniquac.hpp"
#include "jampot/liquid/wilson.hpp"

namespace jampot {
namespace {

// A deque: a description stays where it is when another is added.
std::deque<ModelDescription>& descriptions() {
  static std::deque<ModelDescription> list{
      IdealSolution::description(),
      Margules::description(),
      RedlichKister::description(),
      Wilson::description(),
      Nrtl::description(),
      Uniquac::description(),
      Unifac::description(UnifacTable::vle),
      Unifac::description(UnifacTable::lle),
      Unifac::description(UnifacTable::dortmund),
  };
  return list;
}

const ModelDescription& entry(const std::string& model) {
  for (const ModelDescription& candidate : descriptions()) {
    if (candidate.name == model) return candidate;
  }
  if (model == "mosced") {
    throw RequestError(
        "mosced gives infinite-dilution activity coefficients only: gamma `limiting` `liquid` mosced, or "
        "estimate "
        "`from` "
        "mosced");
  }
  throw RequestError(fmt::format("'{}' is not a liquid model; there are {}.{}", model,
                                 joined(liquid_model_names(), ", "),
                                 did_you_mean(model, liquid_model_names())));
}

}  // namespace

void add_liquid_model(ModelDescription description) {
  for (const ModelDescription& known : descriptions()) {
    if (known.name == description.name)
      throw RequestError(fmt::format("there is already a liquid model '{}'", description.name));
  }
  descriptions().push_back(std::move(description));
}

const ModelDescription& description_of(const std::string& model) {
  return entry(model);
}

std::vector<std::string> liquid_model_names() {
  std::vector<std::string> names;
  for (const ModelDescription& candidate : descriptions()) names.push_back(candidate.name);
  return names;
}

std::vector<std::string> pair_model_names() {
  std::vector<std::string> names;
  for (const ModelDescription& candidate : descriptions()) {
    if (!candidate.terms.empty()) names.push_back(candidate.name);
  }
  return names;
}

bool needs_pairs(const std::string& model) {
  return !entry(model).terms.empty();
}

bool can_split(const std::string& model) {
  return entry(model).splits;
}

std::unique_ptr<ActivityModel> make_activity_model(const std::string& model,
                                                   const std::vector<Substance>& substances,
                                                   const ParameterCollection& parameters) {
  const ModelDescription& chosen = entry(model);
  std::vector<PairParameters> pairs;
  std::vector<std::array<std::string, 2>> missing;
  for (std::size_t i = 0; needs_pairs(model) && i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (auto found = parameters.find(model, substances[i].name, substances[j].name)) {
        pairs.push_back(std::move(*found));
      } else {
        missing.push_back({substances[i].name, substances[j].name});
      }
    }
  }
  if (!missing.empty()) {
    std::vector<std::string> names;
    for (const auto& [first, second] : missing) names.push_back(first + " and " + second);
    const std::string text = fmt::format(
        "no {} parameters for {}. A missing pair is not taken as zero: 'jampot pairs' lists what is known; "
        "give a file with `parameters` FILE.pairs.toml, fit one with 'jampot regress', fill it from a "
        "prediction with `missing-pairs` estimate, or choose `liquid` ideal deliberately.",
        model, joined(names, "; "));
    throw MissingPair(text, model, missing);
  }
  return chosen.make(substances, pairs);
}

const std::vector<TermForFit>& terms_for_fit(const std::string& model) {
  return entry(model).terms;
}

PairParameters neutral_pair(const std::string& model, const Substance& first, const Substance& second) {
  PairParameters pair;
  pair.model = model;
  pair.between = {first.name, second.name};
  for (const TermForFit& term : terms_for_fit(model)) pair.terms[term.name].constant = term.neutral;
  if (entry(model).state) entry(model).state(first, second, pair);
  return pair;
}

std::unique_ptr<ActivityModel> make_activity_model_to_fit(const std::string& model,
                                                          const std::vector<Substance>& substances) {
  std::vector<PairParameters> pairs;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      pairs.push_back(neutral_pair(model, substances[i], substances[j]));
    }
  }
  return entry(model).make(substances, pairs);
}

}  // namespace jampot
