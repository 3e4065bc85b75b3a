#include "jampot/liquid/models.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <map>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/ideal.hpp"
#include "jampot/liquid/margules.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/uniquac.hpp"
#include "jampot/liquid/wilson.hpp"

namespace jampot {
namespace {

using Substances = std::vector<Substance>;
using Pairs = std::vector<PairParameters>;

struct ModelEntry {
  std::string name;
  bool splits;
  std::vector<TermForFit> terms;  ///< of a pair; empty: takes no pair parameters
  std::function<std::unique_ptr<ActivityModel>(const Substances&, const Pairs&)> make;
};

double molar_volume(const Substance& substance) {
  if (substance.molar_volume_25C_m3_mol) return *substance.molar_volume_25C_m3_mol;
  throw CalculationError(
      fmt::format("the Wilson equation needs the liquid molar volume of {}, which is not known; a file of "
                  "parameters may state it (molar_volumes_cm3_mol)",
                  substance.name));
}

std::unique_ptr<ActivityModel> make_wilson(const Substances& substances, const Pairs& pairs) {
  // Volumes are looked up only where a pair does not state its own.
  const bool stated = std::all_of(pairs.begin(), pairs.end(), [](const PairParameters& pair) {
    return pair.molar_volumes_m3_mol.has_value();
  });
  std::vector<double> volumes;
  for (const Substance& substance : substances) volumes.push_back(stated ? 1 : molar_volume(substance));
  return std::make_unique<Wilson>(std::move(volumes), pairs);
}

UniquacSize bank_size(const Substance& substance) {
  if (substance.uniquac_r && substance.uniquac_q) {
    return {*substance.uniquac_r, *substance.uniquac_q, *substance.uniquac_q};
  }
  throw CalculationError(
      fmt::format("UNIQUAC needs r and q of {}, which are not known; 'jampot define' or a file "
                  "of parameters may state them",
                  substance.name));
}

std::unique_ptr<ActivityModel> make_uniquac(const Substances& substances, const Pairs& pairs) {
  std::vector<UniquacSize> sizes(substances.size());
  std::vector<const PairParameters*> from(substances.size());  // which pair stated the size
  std::size_t p = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j, ++p) {
      if (!pairs[p].sizes) continue;
      for (const auto& [component, side] : {std::pair(i, 0), std::pair(j, 1)}) {
        const auto at = static_cast<std::size_t>(side);
        const UniquacSize stated{pairs[p].sizes->r[at], pairs[p].sizes->q[at],
                                 pairs[p].sizes->q_residual[at]};
        const UniquacSize& known = sizes[component];
        const auto differs = [](double a, double b) { return std::abs(a - b) > 0.02 * b; };
        if (from[component] != nullptr && (differs(stated.r, known.r) || differs(stated.q, known.q) ||
                                           differs(stated.q_residual, known.q_residual))) {
          throw RequestError(
              fmt::format("the UNIQUAC parameters '{}' and '{}' were fitted with different r, q or q' "
                          "of {}; they cannot be used together",
                          from[component]->source, pairs[p].source, substances[component].name));
        }
        sizes[component] = stated;
        from[component] = &pairs[p];
      }
    }
  }
  for (std::size_t i = 0; i < substances.size(); ++i) {
    if (from[i] == nullptr) sizes[i] = bank_size(substances[i]);
  }
  return std::make_unique<Uniquac>(sizes, pairs);
}

template <UnifacTable table>
std::unique_ptr<ActivityModel> make_unifac(const Substances& substances, const Pairs&) {
  return std::make_unique<Unifac>(substances, table);
}

const std::vector<ModelEntry>& entries() {
  static const std::vector<ModelEntry> list{
      {"ideal",
       false,
       {},
       [](const Substances& s, const Pairs&) { return std::make_unique<IdealSolution>(s.size()); }},
      {"margules",
       true,
       {{"A_12", 0.1, false, true, -1, 3, -8, 12}, {"A_21", 0.1, false, true, -1, 3, -8, 12}},
       [](const Substances& s, const Pairs& pairs) { return std::make_unique<Margules>(s.size(), pairs); }},
      {"wilson",
       false,
       {{"lambda_12", 0.1, false, true, -1.5, 3, -12, 15}, {"lambda_21", 0.1, false, true, -1.5, 3, -12, 15}},
       make_wilson},
      {"nrtl",
       true,
       {{"tau_12", 0.1, false, true, -1, 4, -15, 25},
        {"tau_21", 0.1, false, true, -1, 4, -15, 25},
        {"alpha", 0.3, true, false, 0.1, 0.6, 0.01, 1.2}},
       [](const Substances& s, const Pairs& pairs) { return std::make_unique<Nrtl>(s.size(), pairs); }},
      {"uniquac",
       true,
       {{"u_12", 0.05, false, true, -1, 1.5, -6, 8}, {"u_21", 0.05, false, true, -1, 1.5, -6, 8}},
       make_uniquac},
      {"unifac", true, {}, make_unifac<UnifacTable::vle>},
      {"unifac-lle", true, {}, make_unifac<UnifacTable::lle>},
      {"unifac-dortmund", true, {}, make_unifac<UnifacTable::dortmund>},
  };
  return list;
}

const ModelEntry& entry(const std::string& model) {
  for (const ModelEntry& candidate : entries()) {
    if (candidate.name == model) return candidate;
  }
  if (model == "mosced") {
    throw RequestError(
        "mosced gives limiting activity coefficients only: gamma --limiting --liquid mosced, or estimate "
        "--from "
        "mosced");
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

std::vector<std::string> pair_model_names() {
  std::vector<std::string> names;
  for (const ModelEntry& candidate : entries()) {
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
  const ModelEntry& chosen = entry(model);
  std::vector<PairParameters> pairs;
  std::string missing;
  for (std::size_t i = 0; needs_pairs(model) && i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (auto found = parameters.find(model, substances[i].name, substances[j].name)) {
        pairs.push_back(std::move(*found));
      } else {
        missing +=
            fmt::format("{}{} and {}", missing.empty() ? "" : "; ", substances[i].name, substances[j].name);
      }
    }
  }
  if (!missing.empty()) {
    throw CalculationError(fmt::format(
        "no {} parameters for {}. A missing pair is not taken as zero: 'jampot pairs' shows what is known; "
        "give a file with --parameters FILE.pairs.toml, fit one with 'jampot regress', fill it from a "
        "prediction with --missing-pairs estimate, or ask for --liquid ideal knowingly.",
        model, missing));
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
  if (model == Wilson::model_name) pair.molar_volumes_m3_mol = {molar_volume(first), molar_volume(second)};
  if (model == Uniquac::model_name) {
    const UniquacSize a = bank_size(first), b = bank_size(second);
    pair.sizes = PairParameters::Sizes{{a.r, b.r}, {a.q, b.q}, {a.q_residual, b.q_residual}};
  }
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
