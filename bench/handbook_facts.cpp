// Every fact of the handbooks against every model that needs no further choice: docs/handbook-facts.md.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>
#include <optional>

#include "group_tables.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/study/known.hpp"
#include "wrapped.hpp"

using namespace jampot;

namespace {

struct Tally {
  int facts = 0, judged = 0, agrees = 0, off = 0, missing = 0, invented = 0;
  double ln_factor = 0;  // sum of |ln factor|, for a geometric mean
  int factors = 0;

  void add(const HeldFact& held) {
    ++facts;
    if (!held.judged()) return;
    ++judged;
    agrees += held.holding == Holding::agrees;
    off += held.holding == Holding::off;
    missing += held.holding == Holding::missing;
    invented += held.holding == Holding::invented;
    if (held.factor != 1) {
      ln_factor += std::abs(std::log(held.factor));
      ++factors;
    }
  }
  std::string row(const std::string& name) const {
    const std::string factor = factors > 0 ? fmt::format("{:.2f}", std::exp(ln_factor / factors)) : "";
    return fmt::format("| {} | {} | {} | {:.0f} % | {} | {} | {} | {} |", name, judged, agrees,
                       judged > 0 ? 100.0 * agrees / judged : 0.0, off, missing, invented, factor);
  }
};

// What a command took that was told nothing, before it knew facts: the first of these models whose pairs are
// all published, else it refused.
std::optional<Mixture> published(const std::vector<std::string>& names) {
  const std::vector<Substance> substances = substances_named(names);
  const std::size_t pairs = names.size() * (names.size() - 1) / 2;
  for (const char* model : {"nrtl", "wilson", "uniquac"}) {
    const ParameterCollection sets = with_published(substances, model);
    if (sets.all().size() == pairs) return Mixture(substances, model, sets);
  }
  return std::nullopt;
}

// The models by name, made once for each set of substances.
struct Models {
  std::map<std::string, Mixture> made;
  explicit Models(const std::vector<std::string>& names) {
    for (const MixtureSpec& spec : models_for(mixture_of(names))) {
      Notices unheard;
      made.emplace(spec.label(), prepare(spec, unheard, Purpose::liquid_liquid).mixture);
    }
    if (const auto printed = published(names)) made.emplace("default before", *printed);
    // What a command takes that is told nothing.
    try {
      Notices unheard;
      made.emplace("default", prepare(mixture_of(names), unheard).mixture);
    } catch (const std::runtime_error&) {
      return;  // nothing knows these substances
    }
  }
};

std::string title_of(const Fact& fact) {
  std::string title(name_of(fact.kind));
  if (fact.kind == FactKind::azeotrope)
    title += fact.substances.size() == 2 ? ", two substances" : ", three substances";
  return title;
}

}  // namespace

int main() {
  std::map<std::string, std::map<std::string, Tally>> tallies;
  std::map<std::string, Models> models;
  std::vector<std::string> told;
  struct Told {
    int wrong = 0, named = 0;
  };
  std::map<std::string, Told> contradictions;
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.grade == 'C') continue;  // counts beside another alone
    const std::string key = fmt::format("{}", fmt::join(fact.substances, "|"));
    const Models& known = models.try_emplace(key, fact.substances).first->second;
    for (const auto& [label, mixture] : known.made) {
      const bool boiling = fact.kind == FactKind::azeotrope || fact.kind == FactKind::no_azeotrope;
      if (label == "unifac-lle" && boiling) continue;  // this table is for two liquids
      const HeldFact held = held_against(mixture, fact);
      tallies[title_of(fact)][label].add(held);
      if (!held.fails() || fact.kind == FactKind::excess_enthalpy) continue;
      Told& of_label = contradictions[label];
      ++of_label.wrong;
      const Notices notices = against_handbooks(
          mixture, {fact.P_Pa, fact.P_Pa, std::max(fact.T_K, 1.0), std::max(fact.T_K, 1.0)});
      of_label.named += notices.has("against-handbook");
      if (label != "unifac") continue;
      if (held.holding == Holding::missing || held.holding == Holding::invented)
        told.push_back(held.sentence(label));
    }
  }
  fmt::print("# Models held against handbooks\n\n");
  fmt::print(
      "Written by `scripts/facts`. Facts of grades A and B about substances of the bank,\n"
      "from data/known_*.csv. What agrees lies within 1.5 K and 0.05 in mole fraction of an azeotrope, a\n"
      "factor of two of a solubility (both sides), a limit or a distribution coefficient, 10 K of a "
      "critical\n"
      "solution temperature, 30 % or 100 J/mol of an excess enthalpy. Pairs are held against them where "
      "they\n"
      "are published or fitted to facts. `default` is what a command takes that is told nothing; `default\n"
      "before` what it took before it knew facts: a published set, else it refused. **`nrtl`, `uniquac` and\n"
      "`default` are mostly pairs that were fitted to these very facts: their shares say how well the fits\n"
      "meet them, not how well they predict.** How they predict: [facts-held-out.md](facts-held-out.md).\n");
  for (const auto& [title, by_model] : tallies) {
    fmt::print(
        "\n## {}\n\n| model | judged | agrees | share | off | missing | invented | factor (geometric mean) "
        "|\n"
        "|---|---|---|---|---|---|---|---|\n",
        title);
    for (const auto& [label, tally] : by_model) {
      if (tally.judged > 0) fmt::print("{}\n", tally.row(label));
    }
  }
  fmt::print(
      "\n## What contradicts a fact, and is told\n\nAnswers that contradict a fact (enthalpies left out), "
      "and "
      "how many of them the notice\n`against-handbook` tells of.\n\n| model | contradicts | told "
      "|\n|---|---|---|\n");
  for (const auto& [label, one] : contradictions)
    fmt::print("| {} | {} | {} |\n", label, one.wrong, one.named);
  fmt::print("\n## What unifac invents and misses\n\n");
  for (const std::string& sentence : told) fmt::print("{}\n", wrapped("- " + sentence));
  fmt::print(
      "\n## Group interactions of the table for liquids that are doubted\n\nSeen by pairs of substances "
      "whose only "
      "functional groups are these: how many limits at\n25 degC differ from those of the other table by more "
      "than "
      "e^4, and how many facts they\ncontradict that the other table does not. Those of grade D are refused "
      "(`doubtful-groups`).\n\n"
      "| interaction | grade | pairs | differ | facts | contradicted | largest difference (liquids against "
      "boiling) |\n"
      "|---|---|---|---|---|---|---|\n");
  for (const auto& seen : bench::doubted_group_interactions())
    fmt::print("| {} | {} | {} | {} | {} | {} | {} |\n", seen.name, seen.grade, seen.pairs, seen.far,
               seen.facts, seen.contradicted, seen.example.empty() ? "-" : seen.example);
}
