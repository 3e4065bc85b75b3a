#include "jampot/study/pairs.hpp"

#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/unifac_interactions.hpp"
#include "jampot/study/held.hpp"

namespace jampot {

std::vector<PairParameters> PairsStudy::used() const {
  std::vector<PairParameters> list;
  for (const KnownPair& pair : pairs) {
    if (!pair.known.empty()) list.push_back(pair.known.front());
  }
  return list;
}

namespace {

void tell_of_range(const PairParameters& pair, const std::optional<double>& T_K, Notices& notices) {
  if (!T_K || !pair.T_range_K || (*T_K >= (*pair.T_range_K)[0] && *T_K <= (*pair.T_range_K)[1])) return;
  notices.add("parameter-range",
              fmt::format("the {} parameters of {} and {} hold from {:.1f} to {:.1f} degC", pair.model,
                          pair.between[0], pair.between[1], (*pair.T_range_K)[0] - celsius_zero,
                          (*pair.T_range_K)[1] - celsius_zero));
}

KnownPair look_up(const PairsRequest& request, std::size_t i, std::size_t j, const std::string& model) {
  const Substance &first = request.substances[i], &second = request.substances[j];
  KnownPair pair{i, j, model, {}, {}, {}};
  if (auto own = request.given.find(model, first.name, second.name)) pair.known.push_back(std::move(*own));
  auto from_facts = pair_from_facts(model, first.name, second.name);
  const bool facts_first = comes_before_print(model, first.name, second.name);
  if (from_facts && facts_first) pair.known.push_back(*from_facts);
  for (PairParameters& published : published_pairs(model, first.name, second.name))
    pair.known.push_back(std::move(published));
  if (from_facts && !facts_first) pair.known.push_back(std::move(*from_facts));
  if (!pair.known.empty()) return pair;
  EstimateOptions wanted;
  wanted.model = model;
  wanted.from = request.estimate_from;
  try {
    pair.estimate = estimate_pair(first, second, wanted);
  } catch (const CalculationError& error) {
    pair.no_estimate = error.what();
  }
  return pair;
}

PossiblePrediction by_unifac(const std::vector<Substance>& substances, UnifacTable table) {
  try {
    const Unifac model(substances, table);
    std::string doubtful;
    for (const GroupPair& pair : model.group_pairs()) {
      if (pair.forward.grade != 'C' && pair.backward.grade != 'C') continue;
      doubtful += fmt::format("{} {} - {}", doubtful.empty() ? "; grade C:" : ",", pair.main_groups[0],
                              pair.main_groups[1]);
    }
    return {name_of(table), true,
            fmt::format("{}; {}{}", unifac_source(table), extent_of(table).text(), doubtful)};
  } catch (const CalculationError& error) {
    return {name_of(table), false, error.what()};
  }
}

PossiblePrediction by_mosced(const std::vector<Substance>& substances) {
  std::vector<std::string> without;
  for (const Substance& substance : substances) {
    if (!substance.mosced) without.push_back(substance.name);
  }
  if (without.empty()) return {"mosced", true, "infinite-dilution activity coefficients only"};
  return {"mosced", false, "no parameters of " + joined(without, ", ")};
}

}  // namespace

PairsStudy study(const PairsRequest& request) {
  if (request.substances.size() < 2) throw RequestError("pairs needs at least two substances");
  demand_count("substances", static_cast<double>(request.substances.size()), most_substances);
  for (const std::string& model : request.models) {
    if (!needs_pairs(model))
      throw RequestError(
          fmt::format("{} takes no pair parameters; there are {}", model, joined(pair_model_names(), ", ")));
  }
  PairsStudy study;
  study.substances = request.substances;
  const std::vector<std::string> models = request.models.empty() ? pair_model_names() : request.models;
  for (std::size_t i = 0; i < request.substances.size(); ++i) {
    for (std::size_t j = i + 1; j < request.substances.size(); ++j) {
      for (const std::string& model : models) {
        study.pairs.push_back(look_up(request, i, j, model));
        const KnownPair& pair = study.pairs.back();
        if (!pair.known.empty()) tell_of_range(pair.known.front(), request.T_K, study.notices);
      }
    }
  }
  for (const UnifacTable table : all_unifac_tables)
    study.predictions.push_back(by_unifac(request.substances, table));
  study.predictions.push_back(by_mosced(request.substances));
  std::vector<std::string> names;
  for (const Substance& substance : request.substances) names.push_back(substance.name);
  study.facts = KnownFacts::built_in().among(names);
  return study;
}

}  // namespace jampot
