#include "jampot/study/mixture_spec.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/known/choice.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/study/held.hpp"

namespace jampot {

namespace {

bool one_of(const std::vector<std::string>& names, const std::string& name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

// The substances that are no solutes after Henry's law.
std::vector<Substance> solvents(const MixtureSpec& spec) {
  std::vector<Substance> list;
  for (std::size_t i = 0; i < spec.substances.size(); ++i) {
    const bool solute = std::any_of(spec.henry.begin(), spec.henry.end(),
                                    [&](const HenryConstant& constant) { return constant.solute == i; });
    if (!solute) list.push_back(spec.substances[i]);
  }
  return list;
}

std::string model_of(const ParameterCollection& given) {
  const std::string& model = given.all().front().model;
  for (const PairParameters& pair : given.all()) {
    if (pair.model == model) continue;
    throw RequestError(
        fmt::format("the parameter files hold {} and {}; `liquid` says which to use", model, pair.model));
  }
  return model;
}

enum class PairSource { published, facts };

// Whether every pair of the substances has parameters of a model, from print or else from facts.
bool all_pairs(const std::string& model, const std::vector<Substance>& substances, PairSource least) {
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      const std::string &first = substances[i].name, &second = substances[j].name;
      if (!published_pairs(model, first, second).empty()) continue;
      if (least == PairSource::published || !pair_from_facts(model, first, second)) return false;
    }
  }
  return true;
}

// Without parameters and without a word: print, then the facts of handbooks, then the prediction that does
// best on them. Says which, and how it does.
std::string default_model(const std::vector<Substance>& substances, Purpose purpose, Notices& notices) {
  const bool liquids = purpose == Purpose::liquid_liquid;
  std::vector<std::string> list;
  for (const char* model : {"nrtl", "wilson", "uniquac"}) {
    if (!(liquids && !can_split(model)) && all_pairs(model, substances, PairSource::published) && !liquids)
      list.emplace_back(model);
  }
  for (const char* model : {"nrtl", "uniquac"}) {  // UNIQUAC where NRTL cannot meet the facts
    if (!all_pairs(model, substances, PairSource::facts)) continue;
    list.emplace_back(model);
    break;
  }
  // Of three and more, what pairs know does not settle what they do together: predictions compete.
  if (list.empty() || substances.size() > 2) {
    const std::vector<std::string> tables =
        liquids ? std::vector<std::string>{"unifac-lle", "unifac-dortmund", "unifac"}
                : std::vector<std::string>{"unifac-dortmund", "unifac"};
    for (const std::string& table : tables) {
      try {
        refuse_doubtful_groups(*make_activity_model(table, substances, {}));
        list.push_back(table);
      } catch (const std::runtime_error&) {
        continue;  // it lacks a group or an interaction, or has a wrong one
      }
    }
  }
  if (list.empty()) return liquids ? "unifac-lle" : "nrtl";  // whose absence is then told
  const ChosenModel chosen = best_on_facts(list, substances);
  notices.add("model-chosen", fmt::format("no `liquid` was named: {}{}", chosen.model, chosen.why));
  return chosen.model;
}

void tell_of_constant_henry(const MixtureSpec& spec, Notices& notices) {
  for (const HenryConstant& constant : spec.henry) {
    if (constant.slope_K != 0) continue;
    notices.add("henry-one-temperature",
                fmt::format("Henry's constant of {} in {} is taken as the same at every temperature; two "
                            "values would give its change",
                            spec.substances[constant.solute].name, spec.substances[constant.solvent].name));
  }
}

// From a settled one.
Mixture mixture_from(const MixtureSpec& spec) {
  if (spec.henry.empty()) return {spec.substances, spec.liquid, spec.parameters, spec.vapour};
  const std::vector<Substance> among = solvents(spec);
  auto solution = std::make_unique<HenrySolution>(
      spec.substances, among.size() < 2 ? nullptr : make_activity_model(spec.liquid, among, spec.parameters),
      spec.henry);
  std::vector<PairParameters> used;
  for (std::size_t i = 0; needs_pairs(spec.liquid) && i < among.size(); ++i) {
    for (std::size_t j = i + 1; j < among.size(); ++j) {
      if (auto pair = spec.parameters.find(spec.liquid, among[i].name, among[j].name))
        used.push_back(std::move(*pair));
    }
  }
  return {spec.substances, std::move(solution), std::move(used), spec.vapour};
}

}  // namespace

std::string MixtureSpec::label() const {
  if (!name.empty()) return name;
  if (liquid == "eos") return vapour.model;
  return vapour.model == VapourChoice{}.model ? liquid : fmt::format("{}, {} vapour", liquid, vapour.model);
}

MixtureSpec mixture_of(const std::vector<std::string>& names, const std::string& liquid) {
  MixtureSpec spec;
  spec.substances = substances_named(names);
  spec.liquid = liquid;
  return spec;
}

MixtureSpec with_model(const MixtureSpec& spec, const std::string& word) {
  MixtureSpec other = spec;
  other.name.clear();
  if (one_of(equation_names(), word)) {
    other.liquid = "eos";
    other.vapour.model = word;
  } else if (word != "ideal" && one_of(vapour_model_names(), word)) {
    if (other.liquid == "eos")
      throw RequestError(
          fmt::format("`compare` {}: with an equation of state for both phases, another vapour needs its own "
                      "liquid model",
                      word));
    other.vapour.model = word;
  } else {
    if (word != "eos") needs_pairs(word);  // refuses an unknown word
    if (spec.liquid == "eos") other.vapour.model = VapourChoice{}.model;
    other.liquid = word;
  }
  return other;
}

MixtureSpec settled(const MixtureSpec& spec, Purpose purpose, Notices& notices) {
  demand_count("substances", static_cast<double>(spec.substances.size()), most_substances);
  MixtureSpec result = spec;
  if (one_of(equation_names(), spec.liquid)) {
    if (spec.vapour.model != VapourChoice{}.model && spec.vapour.model != spec.liquid)
      throw RequestError(fmt::format("`liquid` {0} describes the vapour too; `vapour` {1} contradicts it",
                                     spec.liquid, spec.vapour.model));
    result.liquid = "eos";
    result.vapour.model = spec.liquid;
  }
  if (result.liquid == "eos") {
    if (!spec.henry.empty())
      throw RequestError(
          "`henry` belongs to a liquid with an activity-coefficient model; an equation of state describes "
          "the gas itself");
    return result;
  }
  tell_of_constant_henry(spec, notices);
  const std::vector<Substance> among = solvents(spec);
  if (result.liquid.empty()) {
    result.liquid =
        spec.parameters.all().empty() ? default_model(among, purpose, notices) : model_of(spec.parameters);
  }
  result.estimate.doubtful_groups = spec.doubtful_groups;
  result.parameters =
      complete_pairs(result.liquid, among, spec.parameters, spec.missing_pairs, result.estimate, notices);
  if (result.liquid.starts_with("unifac") && spec.doubtful_groups == DoubtfulGroups::refuse &&
      among.size() > 1)
    refuse_doubtful_groups(*make_activity_model(result.liquid, among, {}));
  return result;
}

Contender prepare(const MixtureSpec& spec, Notices& notices, Purpose purpose) {
  const MixtureSpec whole = settled(spec, purpose, notices);
  return {whole.label(), mixture_from(whole), whole.henry};
}

std::vector<MixtureSpec> settled_all(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                     Purpose purpose, Notices& notices) {
  std::vector<MixtureSpec> all{settled(spec, purpose, notices)};
  for (const MixtureSpec& other : compare) {
    MixtureSpec whole = settled(other, purpose, notices);
    // The default model asked for once more by its name.
    const bool known = std::any_of(
        all.begin(), all.end(), [&](const MixtureSpec& earlier) { return earlier.label() == whole.label(); });
    if (!known) all.push_back(std::move(whole));
  }
  return all;
}

std::vector<Contender> prepare_all(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                   Notices& notices, Purpose purpose) {
  std::vector<Contender> list;
  for (const MixtureSpec& whole : settled_all(spec, compare, purpose, notices))
    list.push_back({whole.label(), mixture_from(whole), whole.henry});
  return list;
}

}  // namespace jampot
