#include "jampot/study/known.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/known/families.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"

namespace jampot {
namespace {

std::vector<std::string> names_of(const std::vector<Substance>& substances) {
  std::vector<std::string> names;
  for (const Substance& substance : substances) names.push_back(substance.name);
  return names;
}

bool of_liquids(const Fact& fact) {
  return fact.kind != FactKind::azeotrope && fact.kind != FactKind::no_azeotrope;
}

ModelOnFacts on_facts(const MixtureSpec& spec, const std::vector<const Fact*>& facts) {
  ModelOnFacts result;
  result.label = spec.label();
  // A table for two liquids is not meant for boiling.
  const bool liquids_alone = spec.liquid == "unifac-lle";
  Notices unheard;
  const Contender contender = prepare(spec, unheard, Purpose::liquid_liquid);
  result.fitted = fitted_to_facts(contender.mixture);
  FactJudge judge(contender.mixture);
  for (const Fact* fact : facts) {
    HeldFact held = liquids_alone && !of_liquids(*fact)
                        ? HeldFact{.fact = fact, .why = "this table is for two liquids"}
                        : judge.held(*fact);
    result.add(held);
    result.held.push_back(std::move(held));
  }
  return result;
}

std::string ranking_of(const std::vector<ModelOnFacts>& models, std::size_t facts) {
  if (facts == 0) return "handbooks have no fact here about these substances";
  std::vector<std::string> parts;
  for (const ModelOnFacts& model : models) {
    if (model.judged == 0) continue;
    parts.push_back(fmt::format("{} agrees with {} of {}{}", model.label, model.agreeing, model.judged,
                                model.fitted ? " (it was fitted to such facts: no proof)" : ""));
  }
  if (parts.empty()) return "no model can be compared with these facts";
  return joined(parts, ", ");
}

}  // namespace

std::vector<MixtureSpec> models_for(const MixtureSpec& spec) {
  std::vector<MixtureSpec> list;
  const std::vector<std::string> names = names_of(spec.substances);
  const auto all_known = [&](const std::string& model) {
    for (std::size_t i = 0; i < names.size(); ++i)
      for (std::size_t j = i + 1; j < names.size(); ++j)
        if (published_pairs(model, names[i], names[j]).empty() && !pair_from_facts(model, names[i], names[j]))
          return false;
    return true;
  };
  for (const std::string model : {"nrtl", "wilson", "uniquac", "unifac", "unifac-dortmund", "unifac-lle"}) {
    if (needs_pairs(model) && !all_known(model)) continue;
    MixtureSpec one = spec;
    one.liquid = model;
    one.name.clear();
    one.parameters = {};
    one.vapour = {};
    one.doubtful_groups = DoubtfulGroups::use;  // facts and table side by side, whatever they say
    Notices unheard;
    try {
      prepare(one, unheard, Purpose::liquid_liquid);
    } catch (const std::runtime_error&) {
      continue;  // it does not know one of the substances
    }
    list.push_back(std::move(one));
  }
  return list;
}

KnownStudy study(const KnownRequest& request) {
  const MixtureSpec& spec = request.mixture;
  KnownStudy study;
  study.substances = spec.substances;
  study.facts = KnownFacts::built_in().among(names_of(spec.substances));
  std::vector<MixtureSpec> models = models_for(spec);
  if (!spec.liquid.empty() || !spec.parameters.all().empty()) {
    Notices unheard;
    MixtureSpec own = settled(spec, Purpose::vapour_liquid, unheard);
    const auto same = std::find_if(models.begin(), models.end(),
                                   [&](const MixtureSpec& other) { return other.label() == own.label(); });
    if (same != models.end() && !spec.parameters.all().empty()) own.name = own.label() + " (own)";
    if (same == models.end() || !own.name.empty()) models.insert(models.begin(), own);
  }
  for (const MixtureSpec& model : models) study.models.push_back(on_facts(model, study.facts));
  std::stable_sort(study.models.begin(), study.models.end(),
                   [](const ModelOnFacts& a, const ModelOnFacts& b) {
                     const auto share = [](const ModelOnFacts& one) {
                       return one.judged > 0 ? one.misses / one.judged : HUGE_VAL;
                     };
                     if (share(a) != share(b)) return share(a) < share(b);
                     return a.judged > b.judged;
                   });
  study.ranking = ranking_of(study.models, study.facts.size());
  if (!study.facts.empty()) return study;
  const FamilyRecords families =
      records_on_families({"unifac", "unifac-dortmund", "unifac-lle"}, spec.substances);
  if (const std::string sentence = families.sentence(); !sentence.empty()) study.ranking += "; " + sentence;
  return study;
}

}  // namespace jampot
