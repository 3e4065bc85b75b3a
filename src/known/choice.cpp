#include "jampot/known/choice.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/text.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/known/families.hpp"
#include "jampot/known/held.hpp"

namespace jampot {

namespace {

// Where handbooks say nothing of the substances themselves.
ChosenModel best_on_families(const std::vector<std::string>& models,
                             const std::vector<Substance>& substances) {
  ChosenModel chosen{models.front(), "; no handbook fact is known here to compare it with"};
  FamilyRecords families = records_on_families(models, substances);
  // Only what all of them answer compares them; where that is next to nothing, what each of them answers.
  constexpr int enough = 3;
  if (families.records.front().common.judged >= enough) {
    for (FamilyRecord& record : families.records) static_cast<OnFacts&>(record) = record.common;
  }
  const std::string sentence = families.sentence();
  if (sentence.empty()) return chosen;
  double least = HUGE_VAL;
  for (const FamilyRecord& record : families.records) {
    if (record.judged == 0 || record.misses / record.judged >= least) continue;
    least = record.misses / record.judged;
    chosen.model = record.model;
  }
  chosen.why = fmt::format("; handbooks have no fact about these substances, but {}", sentence);
  return chosen;
}

}  // namespace

ChosenModel best_on_facts(const std::vector<std::string>& models, const std::vector<Substance>& substances) {
  std::vector<std::string> names;
  for (const Substance& substance : substances) names.push_back(substance.name);
  const std::vector<const Fact*> facts = KnownFacts::built_in().among(names);
  ChosenModel chosen{models.front(), {}};
  if (facts.empty()) return best_on_families(models, substances);
  double least = HUGE_VAL;
  std::vector<std::string> told;
  std::string own;
  for (const std::string& model : models) {
    Notices unheard;
    const Mixture mixture(substances, model,
                          complete_pairs(model, substances, {}, MissingPairs::refuse, {}, unheard));
    OnFacts result;
    FactJudge judge(mixture);
    for (const Fact* fact : facts) result.add(judge.held(*fact));
    const double share = result.judged > 0 ? result.misses / result.judged : 1;
    told.push_back(fmt::format("{} with {} of {}", model, result.agreeing, result.judged));
    if (share < least) {
      least = share;
      chosen.model = model;
      own = fmt::format(
          ", which agrees with {} of {} handbook facts of these substances{}", result.agreeing, result.judged,
          fitted_to_facts(mixture) ? ", but its pairs were fitted to them, so this is no proof" : "");
    }
  }
  chosen.why = own;
  std::erase_if(told, [&](const std::string& text) { return text.starts_with(chosen.model + " with"); });
  if (!told.empty()) chosen.why += fmt::format(" ({})", joined(told, ", "));
  return chosen;
}

}  // namespace jampot
