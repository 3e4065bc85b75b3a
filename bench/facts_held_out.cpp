// How pairs fitted to handbook facts predict a fact that they were not fitted to: docs/facts-held-out.md.
#include <fmt/format.h>
#include <tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "jampot/known/from_facts.hpp"
#include "jampot/study/known.hpp"
#include "wrapped.hpp"

using namespace jampot;

namespace {

// One fact, left out: how the pair fitted to the others does on it, and how a prediction from groups does.
struct LeftOut {
  const Fact* fact = nullptr;
  HeldFact fitted{}, predicted{};
};

std::vector<const Fact*> of_use(const std::array<std::string, 2>& pair) {
  std::vector<const Fact*> facts = KnownFacts::built_in().about(pair[0], pair[1]);
  std::erase_if(facts, [](const Fact* fact) { return fact->grade == 'C'; });
  return facts;
}

// Of pairs that have two facts at least. What the others cannot determine, or meet with a contradiction among
// themselves, is left out: the collection would not hold such a pair.
std::vector<LeftOut> leave_each_out(const std::array<std::string, 2>& names) {
  std::vector<LeftOut> results;
  const std::vector<Substance> pair = substances_named({names[0], names[1]});
  const std::vector<const Fact*> facts = of_use(names);
  if (facts.size() < 2) return results;
  Notices unheard;
  std::optional<Mixture> groups;
  try {
    groups = prepare(mixture_of({names[0], names[1]}, "unifac"), unheard).mixture;
  } catch (const std::runtime_error&) {
    return results;  // nothing to compare with
  }
  for (const Fact* fact : facts) {
    std::vector<const Fact*> others = facts;
    std::erase(others, fact);
    const auto found = pair_from_facts(pair[0], pair[1], "nrtl", others);
    if (!found || !found->sound()) continue;
    ParameterCollection parameters;
    parameters.add(found->pair);
    const LeftOut one{fact, held_against(Mixture(pair, "nrtl", parameters), *fact),
                      held_against(*groups, *fact)};
    if (one.fitted.judged() && one.predicted.judged()) results.push_back(one);
  }
  return results;
}

struct Tally {
  int judged = 0, agrees = 0, factors = 0;
  double ln_factor = 0;

  void add(const HeldFact& held) {
    ++judged;
    agrees += held.holding == Holding::agrees;
    if (held.factor == 1) return;
    ln_factor += std::abs(std::log(held.factor));
    ++factors;
  }
  std::string cells() const {
    return fmt::format("{} | {:.0f} % | {}", agrees, 100.0 * agrees / judged,
                       factors > 0 ? fmt::format("{:.2f}", std::exp(ln_factor / factors)) : "");
  }
};

}  // namespace

int main() {
  std::set<std::array<std::string, 2>> names;
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.substances.size() == 2)
      names.insert({std::min(fact.substances[0], fact.substances[1]),
                    std::max(fact.substances[0], fact.substances[1])});
  }
  const std::vector<std::array<std::string, 2>> pairs(names.begin(), names.end());
  std::vector<std::vector<LeftOut>> found(pairs.size());
  tbb::parallel_for(std::size_t{0}, pairs.size(),
                    [&](std::size_t k) { found[k] = leave_each_out(pairs[k]); });

  std::map<FactKind, std::array<Tally, 2>> tallies;
  std::vector<std::string> worse;
  int of_pairs = 0;
  for (const auto& pair : found) {
    of_pairs += !pair.empty();
    for (const LeftOut& one : pair) {
      tallies[one.fact->kind][0].add(one.fitted);
      tallies[one.fact->kind][1].add(one.predicted);
      if (one.fitted.fails() && !one.predicted.fails())
        worse.push_back(one.fitted.sentence("the pair fitted to the other facts"));
    }
  }
  fmt::print(
      "# Facts held out of the fits\n\n"
      "Written by `scripts/facts`. Every fact of grade A or B about a pair that has others was left out in\n"
      "turn; a pair of NRTL was fitted to the others, as `data/pairs_from_facts.csv` is, and held against "
      "the\n"
      "fact left out. Beside it stands UNIFAC, which knows none of them. Only facts that both answer are\n"
      "counted, of {} pairs. What agrees is said in [handbook-facts.md](handbook-facts.md); factors are\n"
      "geometric means of model over fact.\n\n"
      "| fact left out | held | fitted agrees | share | factor | unifac agrees | share | factor |\n"
      "|---|---|---|---|---|---|---|---|\n",
      of_pairs);
  for (const auto& [kind, tally] : tallies)
    fmt::print("| {} | {} | {} | {} |\n", name_of(kind), tally[0].judged, tally[0].cells(), tally[1].cells());
  fmt::print(
      "\n## Where the other facts led astray\n\nUNIFAC agrees with these, the fitted pair does not.\n\n");
  for (const std::string& sentence : worse) fmt::print("{}\n", wrapped("- " + sentence));
}
