#include "jampot/liquid/models.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/ideal.hpp"
#include "jampot/liquid/nrtl.hpp"

namespace jampot {
namespace {

struct ModelEntry {
  std::string name;
  std::vector<TermForFit> terms;  ///< of a pair; empty: takes no pair parameters
  std::function<std::unique_ptr<ActivityModel>(std::size_t, const std::vector<PairParameters>&)> make;
};

const std::vector<ModelEntry>& entries() {
  static const std::vector<ModelEntry> list{
      {"ideal", {}, [](std::size_t n, const auto&) { return std::make_unique<IdealSolution>(n); }},
      {"nrtl",
       {{"tau_12", 0.1, false, true, -1, 4, -15, 25},
        {"tau_21", 0.1, false, true, -1, 4, -15, 25},
        {"alpha", 0.3, true, false, 0.1, 0.6, 0.01, 1.2}},
       [](std::size_t n, const auto& pairs) { return std::make_unique<Nrtl>(n, pairs); }},
  };
  return list;
}

const ModelEntry& entry(const std::string& model) {
  for (const ModelEntry& candidate : entries()) {
    if (candidate.name == model) return candidate;
  }
  throw RequestError(fmt::format("'{}' is not a liquid model; there are {}.{}", model,
                                 joined(liquid_model_names(), ", "),
                                 did_you_mean(model, liquid_model_names())));
}

}  // namespace

std::vector<std::string> liquid_model_names() {
  std::vector<std::string> names;
  for (const ModelEntry& candidate : entries()) names.push_back(candidate.name);
  return names;
}

bool needs_pairs(const std::string& model) {
  return !entry(model).terms.empty();
}

std::unique_ptr<ActivityModel> make_activity_model(const std::string& model,
                                                   const std::vector<std::string>& substances,
                                                   const ParameterCollection& parameters) {
  const ModelEntry& chosen = entry(model);
  std::vector<PairParameters> pairs;
  std::string missing;
  for (std::size_t i = 0; needs_pairs(model) && i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (auto found = parameters.find(model, substances[i], substances[j])) {
        pairs.push_back(std::move(*found));
      } else {
        missing += fmt::format("{}{} and {}", missing.empty() ? "" : "; ", substances[i], substances[j]);
      }
    }
  }
  if (!missing.empty()) {
    throw CalculationError(
        fmt::format("no {} parameters for {}. A missing pair is not taken as zero: give a file with "
                    "--parameters FILE.pairs.toml, fit one with 'jampot regress', or ask for "
                    "--liquid ideal knowingly.",
                    model, missing));
  }
  return chosen.make(substances.size(), pairs);
}

const std::vector<TermForFit>& terms_for_fit(const std::string& model) {
  return entry(model).terms;
}

std::unique_ptr<ActivityModel> make_activity_model_to_fit(const std::string& model, std::size_t size) {
  PairParameters neutral;
  neutral.model = model;
  for (const TermForFit& term : terms_for_fit(model)) neutral.terms[term.name].constant = term.neutral;
  return entry(model).make(size, std::vector<PairParameters>(size * (size - 1) / 2, neutral));
}

}  // namespace jampot
