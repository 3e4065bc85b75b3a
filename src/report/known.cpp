#include "jampot/report/known.hpp"

#include <fmt/format.h>

#include <map>
#include <nlohmann/json.hpp>

#include "fact_cells.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

Table fact_table(const KnownStudy& study, const FactCells& cells) {
  const bool pair = study.substances.size() == 2;
  Table table{
      fmt::format("Handbooks and models{} (x of the first; two liquids: x of each, dilute in the other)",
                  pair ? " on " + together(study.facts.front()->substances) : ""),
      {{"fact"}, {"at"}, {"handbooks"}, {"grade"}},
      {}};
  if (!pair) table.columns.insert(table.columns.begin() + 1, {"substances"});
  for (const ModelOnFacts& model : study.models) table.columns.push_back({model.label});
  for (std::size_t f = 0; f < study.facts.size(); ++f) {
    const Fact& fact = *study.facts[f];
    std::vector<Cell> row{fact_name(fact, study.substances)};
    if (!pair) row.emplace_back(together(fact.substances));
    row.emplace_back(cells.where(fact));
    row.emplace_back(cells.of_fact(fact));
    row.emplace_back(std::string(1, fact.grade));
    for (const ModelOnFacts& model : study.models) row.emplace_back(cells.of_model(model.held[f]));
    table.rows.push_back(std::move(row));
  }
  return table;
}

Table rank_table(const KnownStudy& study) {
  Table table{"Models on these facts, the best first",
              {{"model"},
               {"agrees with", Dimension::number, 0},
               {"of", Dimension::number, 0},
               {"misses a fact", Dimension::number, 2},
               {"what it gets wrong"}},
              {}};
  for (const ModelOnFacts& model : study.models) {
    std::map<std::string, int> wrong;
    for (const HeldFact& held : model.held) {
      if (held.fails())
        ++wrong[fmt::format("{} {}: {}", name_of(held.fact->kind), name_of(held.holding),
                            together(held.fact->substances))];
    }
    std::vector<std::string> list;
    for (const auto& [what, times] : wrong)
      list.push_back(times == 1 ? what : fmt::format("{} ({} times)", what, times));
    table.rows.push_back({model.label, static_cast<double>(model.agreeing), static_cast<double>(model.judged),
                          model.judged > 0 ? Cell(model.misses / model.judged) : Cell(), joined(list, "; ")});
  }
  return table;
}

Json held_json(const HeldFact& held) {
  Json json{{"holding", name_of(held.holding)}};
  if (!held.judged()) {
    json["why"] = held.why;
    return json;
  }
  if (held.T_K > 0) json["T_K"] = held.T_K;
  if (!held.x.empty()) json["x"] = held.x;
  if (held.fact->kind == FactKind::azeotrope && !held.x.empty()) json["heterogeneous"] = held.heterogeneous;
  if (held.x1_dilute) json["x1_dilute"] = *held.x1_dilute;
  if (held.x2_dilute) json["x2_dilute"] = *held.x2_dilute;
  if (held.value != 0) json["value"] = held.value;
  if (held.factor != 1) json["factor"] = held.factor;
  return json;
}

}  // namespace

Answer answer(const KnownStudy& study, const KnownAnswerOptions& options) {
  Answer answer;
  *answer.json = plain_header("known");
  Json& json = *answer.json;
  for (const Substance& substance : study.substances) json["substances"].push_back(to_json(substance));
  json["facts"] = Json::array();
  for (std::size_t f = 0; f < study.facts.size(); ++f) {
    const Fact& fact = *study.facts[f];
    Json entry = to_json(fact);
    entry["models"] = Json::object();
    for (const ModelOnFacts& model : study.models) entry["models"][model.label] = held_json(model.held[f]);
    json["facts"].push_back(std::move(entry));
  }
  json["ranking"] = Json::array();
  for (const ModelOnFacts& model : study.models)
    json["ranking"].push_back({{"model", model.label},
                               {"agreeing", model.agreeing},
                               {"judged", model.judged},
                               {"fitted_to_facts", model.fitted}});
  if (!study.facts.empty()) {
    answer.tables.push_back(options.ranked ? rank_table(study) : fact_table(study, FactCells(options.units)));
    answer.lines.push_back("of these facts " + study.ranking);
    answer.lines.emplace_back(
        "facts are middle values of several printings: 1 K, 0.03 in mole fraction, a factor of 1.3 in a "
        "solubility");
  } else {
    answer.lines.push_back(study.ranking);
  }
  answer.notices = study.notices;
  return answer;
}

}  // namespace jampot
