#include "jampot/known/complete.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/known/from_facts.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"

namespace jampot {
namespace {

// No interaction: NRTL and Wilson become the ideal solution, UNIQUAC its size part.
PairParameters without_interaction(const std::string& model, const Substance& first,
                                   const Substance& second) {
  PairParameters pair = neutral_pair(model, first, second);
  for (auto& [name, function] : pair.terms) {
    if (name != "alpha") function = {};
  }
  if (pair.molar_volumes_m3_mol) {  // Lambda = 1
    const double ratio = std::log((*pair.molar_volumes_m3_mol)[1] / (*pair.molar_volumes_m3_mol)[0]);
    pair.terms["lambda_12"].constant = ratio;
    pair.terms["lambda_21"].constant = -ratio;
  }
  pair.source = "none: treated as ideal on request";
  pair.estimated = true;
  return pair;
}

void tell_of_facts(const PairParameters& pair, Notices& notices) {
  notices.add("pair-from-facts", fmt::format("{} and {}: {}, not to measured curves; between these facts the "
                                             "pair is an interpolation by {} and a prediction",
                                             pair.between[0], pair.between[1], pair.source, pair.model));
}

}  // namespace

MissingPairs parse_missing_pairs(const std::string& text) {
  if (text == "refuse") return MissingPairs::refuse;
  if (text == "known") return MissingPairs::known;
  if (text == "estimate") return MissingPairs::estimate;
  if (text == "ideal") return MissingPairs::ideal;
  throw RequestError(fmt::format("`missing-pairs` '{}': expected refuse, known, estimate or ideal.{}", text,
                                 did_you_mean(text, {"refuse", "known", "estimate", "ideal"})));
}

ParameterCollection complete_pairs(const std::string& model, const std::vector<Substance>& substances,
                                   const ParameterCollection& given, MissingPairs policy,
                                   const EstimateOptions& options, Notices& notices) {
  ParameterCollection complete = given;
  if (!needs_pairs(model)) return complete;
  std::vector<std::pair<std::size_t, std::size_t>> unknown;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (given.find(model, substances[i].name, substances[j].name)) continue;
      const auto published = published_pairs(model, substances[i].name, substances[j].name);
      const bool facts_first = comes_before_print(model, substances[i].name, substances[j].name);
      if (!published.empty() && !facts_first) {
        complete.add(published.front());
      } else if (auto fitted = pair_from_facts(model, substances[i].name, substances[j].name)) {
        tell_of_facts(*fitted, notices);
        complete.add(std::move(*fitted));
      } else {
        unknown.emplace_back(i, j);
      }
    }
  }
  // Known first: what they state of the size of a molecule holds for the others too.
  for (const auto& [i, j] : unknown) {
    const Substance &first = substances[i], &second = substances[j];
    const auto known = policy == MissingPairs::known ? pair_from_facts(first, second, model) : std::nullopt;
    if (known && known->sound()) {
      PairParameters pair = known->pair;
      take_sizes(pair, complete.all());
      tell_of_facts(pair, notices);
      complete.add(std::move(pair));
    } else if (policy == MissingPairs::estimate || policy == MissingPairs::known) {
      EstimateOptions wanted = options;
      wanted.model = model;
      wanted.beside = complete.all();
      const Estimate estimate = estimate_pair(first, second, wanted);
      notices.add(estimate.notices);
      complete.add(estimate.pair);
    } else if (policy == MissingPairs::ideal) {
      PairParameters pair = without_interaction(model, first, second);
      take_sizes(pair, complete.all());
      complete.add(std::move(pair));
      notices.add("ideal-pair", fmt::format("{} and {}: no parameters are known; the pair is treated as "
                                            "ideal, as `missing-pairs` ideal requests",
                                            first.name, second.name));
    }
  }
  return complete;
}

}  // namespace jampot
