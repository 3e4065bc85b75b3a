#include "jampot/report/known.hpp"

#include <fmt/format.h>

#include <map>
#include <nlohmann/json.hpp>

namespace jampot {
namespace {

// What a fact or a model says in a cell: "78.2 degC, 0.894".
class Cells {
 public:
  explicit Cells(const DisplayUnits& units) : units_(units) {}

  std::string of_fact(const Fact& fact) const {
    switch (fact.kind) {
      case FactKind::azeotrope:
        return azeotrope(fact.T_K, fact.x, fact.heterogeneous) + (fact.either ? " (one liquid or two)" : "");
      case FactKind::no_azeotrope:
        return "none";
      case FactKind::miscible:
        return "one liquid";
      case FactKind::solubility:
        return liquids(fact.x1_dilute, fact.x2_dilute);
      case FactKind::critical_solution:
        return temperature(fact.T_K);
      case FactKind::limiting_gamma:
      case FactKind::distribution:
        return fmt::format("{:.4g}", fact.value);
      case FactKind::excess_enthalpy:
        break;
    }
    return fmt::format("{:.0f} J/mol", fact.value);
  }

  std::string of_model(const HeldFact& held) const {
    if (!held.judged()) return "";
    std::string said;
    switch (held.fact->kind) {
      case FactKind::azeotrope:
      case FactKind::no_azeotrope:
        said = held.x.empty() ? "none" : azeotrope(held.T_K, held.x, held.heterogeneous);
        break;
      case FactKind::miscible:
      case FactKind::solubility:
        said = held.x1_dilute ? liquids(held.x1_dilute, held.x2_dilute) : "one liquid";
        break;
      case FactKind::critical_solution:
        said = held.holding == Holding::missing ? "none near it" : temperature(held.T_K);
        break;
      case FactKind::limiting_gamma:
      case FactKind::distribution:
        said = fmt::format("{:.4g}", held.value);
        break;
      case FactKind::excess_enthalpy:
        said = fmt::format("{:.0f} J/mol", held.value);
        break;
    }
    return held.fails() ? fmt::format("{} ({})", said, name_of(held.holding)) : said;
  }

  std::string where(const Fact& fact) const {
    if (fact.P_Pa > 0)
      return fmt::format("{:.4g} {}", from_si(fact.P_Pa, units_.pressure, Dimension::pressure),
                         units_.pressure);
    if (fact.kind == FactKind::critical_solution) return fact.upper ? "upper" : "lower";
    if (!fact.x.empty()) return fmt::format("{}, x = {:.2f}", temperature(fact.T_K), fact.x[0]);
    return temperature(fact.T_K);
  }

 private:
  std::string temperature(double T_K) const {
    return fmt::format("{:.1f} {}", from_si(T_K, units_.temperature, Dimension::temperature),
                       units_.temperature);
  }
  std::string azeotrope(double T_K, const std::vector<double>& x, bool heterogeneous) const {
    std::string text = temperature(T_K);
    for (std::size_t i = 0; i + 1 < x.size(); ++i) text += fmt::format(", {:.3f}", x[i]);
    return text + (heterogeneous ? ", two liquids" : "");
  }
  static std::string liquids(const std::optional<double>& first, const std::optional<double>& second) {
    const auto one = [](const std::optional<double>& x) {
      return x ? fmt::format("{:.3g}", *x) : std::string("not known");
    };
    return !first && !second ? "two liquids" : one(first) + " | " + one(second);
  }

  DisplayUnits units_;
};

std::string together(const std::vector<std::string>& names) {
  return fmt::format("{}", fmt::join(names, ", "));
}

// "gamma of methanol, dilute", or the kind of fact.
std::string fact_name(const Fact& fact, const std::vector<Substance>& substances) {
  const auto shorter = [&](std::size_t number) -> std::string {
    for (const Substance& substance : substances)
      if (substance.name == fact.substances[number]) return substance.short_name();
    return fact.substances[number];
  };
  if (fact.kind == FactKind::limiting_gamma) return fmt::format("gamma of {}, dilute", shorter(0));
  if (fact.kind == FactKind::distribution)
    return fmt::format("{} in {} over that in {}", shorter(0), shorter(2), shorter(1));
  return std::string(name_of(fact.kind));
}

Table fact_table(const KnownStudy& study, const Cells& cells) {
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
                          model.judged > 0 ? Cell(model.misses / model.judged) : Cell(),
                          fmt::format("{}", fmt::join(list, "; "))});
  }
  return table;
}

Json values_json(const Fact& fact) {
  Json json = Json::object();
  if (fact.T_K > 0) json["T_K"] = fact.T_K;
  if (fact.P_Pa > 0) json["P_Pa"] = fact.P_Pa;
  if (!fact.x.empty()) json["x"] = fact.x;
  if (fact.kind == FactKind::azeotrope) json["heterogeneous"] = fact.heterogeneous;
  if (fact.x1_dilute) json["x1_dilute"] = *fact.x1_dilute;
  if (fact.x2_dilute) json["x2_dilute"] = *fact.x2_dilute;
  if (fact.kind == FactKind::critical_solution) json["upper"] = fact.upper;
  if (fact.kind == FactKind::limiting_gamma) json["gamma"] = fact.value;
  if (fact.kind == FactKind::distribution) json["ratio_of_mass_fractions"] = fact.value;
  if (fact.kind == FactKind::excess_enthalpy) json["hE_J_mol"] = fact.value;
  return json;
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
    Json entry{{"kind", name_of(fact.kind)},          {"about", fact.substances},
               {"values", values_json(fact)},         {"source", fact.source},
               {"grade", std::string(1, fact.grade)}, {"models", Json::object()}};
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
    answer.tables.push_back(options.ranked ? rank_table(study) : fact_table(study, Cells(options.units)));
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
