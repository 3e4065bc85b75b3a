#include "fact_cells.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

std::string liquids(const std::optional<double>& first, const std::optional<double>& second) {
  const auto one = [](const std::optional<double>& x) {
    return x ? fmt::format("{:.3g}", *x) : std::string("not known");
  };
  return !first && !second ? "two liquids" : one(first) + " | " + one(second);
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

}  // namespace

std::string FactCells::of_fact(const Fact& fact) const {
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

std::string FactCells::of_model(const HeldFact& held) const {
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

std::string FactCells::where(const Fact& fact) const {
  if (fact.P_Pa > 0)
    return fmt::format("{:.4g} {}", from_si(fact.P_Pa, units_.pressure, Dimension::pressure),
                       units_.pressure);
  if (fact.kind == FactKind::critical_solution) return fact.upper ? "upper" : "lower";
  if (!fact.x.empty()) return fmt::format("{}, x = {:.2f}", temperature(fact.T_K), fact.x[0]);
  return temperature(fact.T_K);
}

std::string FactCells::temperature(double T_K) const {
  return fmt::format("{:.1f} {}", from_si(T_K, units_.temperature, Dimension::temperature),
                     units_.temperature);
}
std::string FactCells::azeotrope(double T_K, const std::vector<double>& x, bool heterogeneous) const {
  std::string text = temperature(T_K);
  for (std::size_t i = 0; i + 1 < x.size(); ++i) text += fmt::format(", {:.3f}", x[i]);
  return text + (heterogeneous ? ", two liquids" : "");
}

std::string together(const std::vector<std::string>& names) {
  return joined(names, ", ");
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

Json to_json(const Fact& fact) {
  return {{"kind", name_of(fact.kind)},
          {"about", fact.substances},
          {"values", values_json(fact)},
          {"source", fact.source},
          {"grade", std::string(1, fact.grade)}};
}

}  // namespace jampot
