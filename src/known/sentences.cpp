// Facts, and what models say of them, in words.
#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/known/held.hpp"

namespace jampot {
namespace {

std::string celsius(double T_K) {
  return fmt::format("{:.1f} degC", T_K - celsius_zero);
}

std::string fractions(const std::vector<std::string>& substances, const std::vector<double>& x) {
  std::vector<std::string> parts;
  for (std::size_t i = 0; i + 1 < x.size(); ++i)
    parts.push_back(fmt::format("x({}) = {:.3f}", substances[i], x[i]));
  return joined(parts, ", ");
}

std::string together(const std::vector<std::string>& substances) {
  if (substances.size() == 2) return substances[0] + " and " + substances[1];
  return fmt::format("{}, {} and {}", substances[0], substances[1], substances[2]);
}

std::string solubilities(const Fact& fact, const std::optional<double>& first,
                         const std::optional<double>& second) {
  std::vector<std::string> parts;
  const auto add = [&](const std::optional<double>& x, std::size_t i) {
    if (x)
      parts.push_back(fmt::format("x({}) = {:.3g} in {}", fact.substances[i], *x, fact.substances[1 - i]));
  };
  add(first, 0);
  add(second, 1);
  return joined(parts, ", ");
}

}  // namespace

std::string in_words(const Fact& fact) {
  const std::string all = together(fact.substances);
  switch (fact.kind) {
    case FactKind::azeotrope:
      return fmt::format("{} azeotrope of {} at {:.1f} kPa, {}{}{}",
                         fact.either          ? "an"
                         : fact.heterogeneous ? "a heterogeneous"
                                              : "a homogeneous",
                         all, fact.P_Pa / 1000, celsius(fact.T_K), fact.x.empty() ? "" : ", ",
                         fact.x.empty() ? "" : fractions(fact.substances, fact.x));
    case FactKind::no_azeotrope:
      return fmt::format("no azeotrope of {} at {:.1f} kPa", all, fact.P_Pa / 1000);
    case FactKind::miscible:
      return fmt::format("{} miscible in all proportions at {}", all, celsius(fact.T_K));
    case FactKind::solubility: {
      const std::string known = solubilities(fact, fact.x1_dilute, fact.x2_dilute);
      return fmt::format("two liquids of {} at {}{}{}", all, celsius(fact.T_K), known.empty() ? "" : ": ",
                         known);
    }
    case FactKind::critical_solution:
      return fmt::format("{} critical solution temperature of {}: {}", fact.upper ? "an upper" : "a lower",
                         all, celsius(fact.T_K));
    case FactKind::limiting_gamma:
      return fmt::format("an activity coefficient of {:.4g} for infinitely dilute {} in {} at {}", fact.value,
                         fact.substances[0], fact.substances[1], celsius(fact.T_K));
    case FactKind::distribution:
      return fmt::format("{} {:.3g} times as concentrated (mass fractions) in {} as in {} at {}",
                         fact.substances[0], fact.value, fact.substances[2], fact.substances[1],
                         celsius(fact.T_K));
    case FactKind::excess_enthalpy:
      break;
  }
  return fmt::format("an excess enthalpy of {:.0f} J/mol for {} at {}, {}", fact.value, all,
                     celsius(fact.T_K), fractions(fact.substances, fact.x));
}

std::string HeldFact::sentence(const std::string& model) const {
  std::string said;
  const auto there = [&] { return fmt::format("{}, {}", celsius(T_K), fractions(fact->substances, x)); };
  const bool none = holding == Holding::missing, extra = holding == Holding::invented;
  switch (fact->kind) {
    case FactKind::azeotrope:
      said = none ? "has none"
                  : fmt::format("has {} one at {}", heterogeneous ? "a heterogeneous" : "a homogeneous",
                                there());
      break;
    case FactKind::no_azeotrope:
      said = extra ? "has one at " + there() : "has none either";
      break;
    case FactKind::miscible:
      said = extra ? "has two liquids there, " + solubilities(*fact, x1_dilute, x2_dilute)
                   : "has one liquid, too";
      break;
    case FactKind::solubility:
      said = none ? "has one liquid" : "has " + solubilities(*fact, x1_dilute, x2_dilute);
      break;
    case FactKind::critical_solution:
      said = none ? "has none near it" : "has " + celsius(T_K);
      break;
    case FactKind::excess_enthalpy:
      said = fmt::format("says {:.0f} J/mol", value);
      break;
    case FactKind::limiting_gamma:
    case FactKind::distribution:
      said = fmt::format("says {:.4g}", value);
      break;
  }
  if (!judged()) said = "was not compared with it: " + why;
  return fmt::format("handbooks have {}; {} {}", in_words(*fact), model, said);
}

}  // namespace jampot
