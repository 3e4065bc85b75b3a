#include "jampot/known/held.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/critical_solution.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/liquid/subsystem.hpp"

namespace jampot {
namespace {

constexpr std::array<std::string_view, 5> holding_names{"agrees", "off", "missing", "invented", "not judged"};

constexpr double azeotrope_K = 1.5, azeotrope_x = 0.05, factor_of_two = 2, critical_K = 10, heat_part = 0.3,
                 heat_J_mol = 100;

// Lies on or near the binodal: handbooks and models are both right or both wrong.
bool homogeneity_is_open(const Fact& fact) {
  if (fact.either) return true;
  constexpr std::array<std::pair<std::string_view, std::string_view>, 5> open{{{"2-butanone", "water"},
                                                                               {"2-butanol", "water"},
                                                                               {"diethyl ether", "water"},
                                                                               {"methanol", "n-octane"},
                                                                               {"formic acid", "benzene"}}};
  return std::any_of(open.begin(), open.end(),
                     [&](const auto& pair) { return fact.about(pair.first, pair.second); });
}

HeldFact not_judged(const Fact& fact, std::string why) {
  return {.fact = &fact, .why = std::move(why)};
}

double further(double a, double b) {
  return std::abs(std::log(a)) > std::abs(std::log(b)) ? a : b;
}

struct Found {
  double T_K;
  std::vector<double> x;
  bool heterogeneous;
};

std::vector<Found> azeotropes(Mixture& mixture, double P_Pa) {
  std::vector<Found> found;
  if (mixture.size() == 2) {
    // Azeotropes lie between two points of the curve, where the relative volatility changes its side of 1;
    // half the points of a diagram find them as well.
    constexpr CurveOptions coarse{.points = 51};
    for (const Azeotrope& azeotrope : txy(mixture, P_Pa, coarse).azeotropes)
      found.push_back({azeotrope.T_K, {azeotrope.x1, 1 - azeotrope.x1}, azeotrope.heterogeneous});
    return found;
  }
  for (const SingularPoint& point : singular_points(mixture, P_Pa).points) {
    const bool whole = point.members.size() == mixture.size();
    if (whole) found.push_back({point.T_K, point.x, point.heterogeneous});
  }
  return found;
}

HeldFact hold_azeotrope(Mixture& mixture, const Fact& fact) {
  HeldFact held{.fact = &fact};
  const std::vector<Found> found = azeotropes(mixture, fact.P_Pa);
  if (fact.kind == FactKind::no_azeotrope) {
    held.holding = found.empty() ? Holding::agrees : Holding::invented;
    if (found.empty()) return held;
    held.T_K = found.front().T_K;
    held.x = found.front().x;
    held.heterogeneous = found.front().heterogeneous;
    return held;
  }
  if (found.empty()) {
    held.holding = Holding::missing;
    return held;
  }
  const auto distance = [&](const Found& one) {
    double sum = std::pow((one.T_K - fact.T_K) / azeotrope_K, 2);
    for (std::size_t i = 0; i < fact.x.size(); ++i) sum += std::pow((one.x[i] - fact.x[i]) / azeotrope_x, 2);
    return sum;
  };
  const Found& nearest = *std::min_element(
      found.begin(), found.end(), [&](const Found& a, const Found& b) { return distance(a) < distance(b); });
  held.T_K = nearest.T_K;
  held.x = nearest.x;
  held.heterogeneous = nearest.heterogeneous;
  bool near = std::abs(nearest.T_K - fact.T_K) <= azeotrope_K;
  for (std::size_t i = 0; i < fact.x.size(); ++i)
    near = near && std::abs(nearest.x[i] - fact.x[i]) <= azeotrope_x;
  if (!homogeneity_is_open(fact)) near = near && nearest.heterogeneous == fact.heterogeneous;
  held.holding = near ? Holding::agrees : Holding::off;
  return held;
}

HeldFact hold_liquids(ActivityModel& model, const Fact& fact) {
  HeldFact held{.fact = &fact};
  const auto splits = binary_splits(model, fact.T_K);
  if (!splits.empty()) {
    held.x1_dilute = splits.front().x1_alpha;
    held.x2_dilute = 1 - splits.back().x1_beta;
  }
  if (fact.kind == FactKind::miscible) {
    held.holding = splits.empty() ? Holding::agrees : Holding::invented;
    return held;
  }
  if (splits.empty()) {
    held.holding = Holding::missing;
    return held;
  }
  if (fact.x1_dilute) held.factor = further(held.factor, *held.x1_dilute / *fact.x1_dilute);
  if (fact.x2_dilute) held.factor = further(held.factor, *held.x2_dilute / *fact.x2_dilute);
  held.holding = std::abs(std::log(held.factor)) <= std::log(factor_of_two) ? Holding::agrees : Holding::off;
  return held;
}

HeldFact hold_critical(ActivityModel& model, const Fact& fact) {
  HeldFact held{.fact = &fact};
  constexpr double reach_K = 80;
  held.holding = Holding::missing;
  double nearest = HUGE_VAL;
  for (const CriticalSolution& critical :
       critical_solutions(model, std::max(150.0, fact.T_K - reach_K), fact.T_K + reach_K)) {
    if (critical.upper != fact.upper || std::abs(critical.T_K - fact.T_K) > nearest) continue;
    nearest = std::abs(critical.T_K - fact.T_K);
    held.T_K = critical.T_K;
    held.x = {critical.x1, 1 - critical.x1};
    held.holding = nearest <= critical_K ? Holding::agrees : Holding::off;
  }
  return held;
}

void judge_factor(HeldFact& held) {
  held.factor = held.value / held.fact->value;
  held.holding = std::abs(std::log(held.factor)) <= std::log(factor_of_two) ? Holding::agrees : Holding::off;
}

// Of the solute at infinite dilution in both liquids, saturated with each other.
HeldFact hold_distribution(Mixture& mixture, const Fact& fact) {
  HeldFact held{.fact = &fact};
  ActivityModel& model = mixture.activity();
  Subsystem solvents(model, {1, 2});
  const auto splits = binary_splits(solvents, fact.T_K);
  if (splits.empty()) return not_judged(fact, "the model has one liquid of the two solvents");
  const auto molar_mass = [&](double x1) {
    return x1 * mixture.substances()[1].molar_mass_kg_mol +
           (1 - x1) * mixture.substances()[2].molar_mass_kg_mol;
  };
  model.set_temperature(fact.T_K);
  std::vector<double> ln_gamma(3);
  const auto dilute = [&](double x1) {
    model.evaluate(std::vector{0.0, x1, 1 - x1}, ln_gamma);
    return ln_gamma[0];
  };
  const double raffinate = splits.back().x1_beta, extract = splits.front().x1_alpha;
  held.value = std::exp(dilute(raffinate) - dilute(extract)) * molar_mass(raffinate) / molar_mass(extract);
  judge_factor(held);
  return held;
}

HeldFact hold_value(Mixture& mixture, const Fact& fact) {
  HeldFact held{.fact = &fact};
  if (fact.kind == FactKind::distribution) return hold_distribution(mixture, fact);
  if (fact.kind == FactKind::limiting_gamma) {
    held.value = std::exp(limiting_ln_gamma(mixture.activity(), fact.T_K, 0, 1));
    judge_factor(held);
    return held;
  }
  held.value = gamma_at(mixture.activity(), fact.T_K, fact.x).hE_J_mol;
  const double off = std::abs(held.value - fact.value);
  held.holding =
      off <= std::max(heat_J_mol, heat_part * std::abs(fact.value)) ? Holding::agrees : Holding::off;
  return held;
}

}  // namespace

void OnFacts::add(const HeldFact& held) {
  if (!held.judged()) return;
  ++judged;
  agreeing += !held.fails();
  if (!held.fails()) return;
  const bool gross = held.holding == Holding::missing || held.holding == Holding::invented;
  misses += (held.fact->grade == 'C' ? 0.5 : 1) * (gross ? 2 : 1);
}

bool fitted_to_facts(const Mixture& mixture) {
  const auto& pairs = mixture.parameters();
  return std::any_of(pairs.begin(), pairs.end(), [](const PairParameters& pair) {
    return pair.source.starts_with("fitted to handbook facts");
  });
}

std::string_view name_of(Holding holding) {
  return holding_names[static_cast<std::size_t>(holding)];
}

namespace {

HeldFact hold(Mixture& mixture, const Fact& fact) {
  try {
    switch (fact.kind) {
      case FactKind::azeotrope:
      case FactKind::no_azeotrope:
        mixture.demand_volatilities();
        return hold_azeotrope(mixture, fact);
      default:
        break;
    }
    if (mixture.one_equation())
      return not_judged(fact, "an equation of state for both phases has no liquid model");
    switch (fact.kind) {
      case FactKind::miscible:
      case FactKind::solubility:
        return hold_liquids(mixture.activity(), fact);
      case FactKind::critical_solution:
        return hold_critical(mixture.activity(), fact);
      default:
        return hold_value(mixture, fact);
    }
  } catch (const CalculationError& error) {
    return not_judged(fact, error.what());
  }
}

// Those substances of a mixture, in this order; `whole` outlives it.
std::optional<Mixture> fresh_part(Mixture& whole, const std::vector<std::string>& wanted) {
  std::vector<std::size_t> members;
  std::vector<Substance> substances;
  for (const std::string& name : wanted) {
    for (std::size_t i = 0; i < whole.size(); ++i) {
      if (whole.substances()[i].name != name || whole.is_solute(i)) continue;
      members.push_back(i);
      substances.push_back(whole.substances()[i]);
    }
  }
  if (members.size() != wanted.size()) return std::nullopt;
  if (whole.one_equation()) return Mixture(substances, whole.vapour_choice());
  return Mixture(substances, std::make_unique<Subsystem>(whole.activity(), members), {},
                 whole.vapour_choice());
}

}  // namespace

struct FactJudge::Parts {
  explicit Parts(const Mixture& mixture) : whole(mixture) {}

  /// The part with these substances in this order, for as long as no other is asked for.
  std::optional<Mixture>& of(const std::vector<std::string>& wanted) {
    if (wanted == substances) return part;
    substances.clear();  // should the next line throw
    part = fresh_part(whole, wanted);
    substances = wanted;
    return part;
  }

  Mixture whole;
  std::vector<std::string> substances;
  std::optional<Mixture> part;
};

FactJudge::FactJudge(const Mixture& mixture) : parts_(std::make_unique<Parts>(mixture)) {}

FactJudge::~FactJudge() = default;

HeldFact FactJudge::held(const Fact& fact) {
  try {
    auto& part = parts_->of(fact.substances);
    if (!part) return not_judged(fact, "the mixture does not hold these substances as liquids");
    return hold(*part, fact);
  } catch (const std::runtime_error& error) {
    return not_judged(fact, error.what());
  }
}

HeldFact held_against(const Mixture& mixture, const Fact& fact) {
  return FactJudge(mixture).held(fact);
}

namespace {

double gravity(const HeldFact& held) {
  if (held.holding == Holding::missing || held.holding == Holding::invented) return 10;
  return std::abs(std::log(held.factor));
}

bool in_range(const Fact& fact, const UsedAt& used) {
  if (fact.kind == FactKind::azeotrope || fact.kind == FactKind::no_azeotrope) {
    constexpr double factor = 1.5;
    return used.high_Pa > 0 && fact.P_Pa > used.low_Pa / factor && fact.P_Pa < used.high_Pa * factor;
  }
  constexpr double near_K = 20;
  return fact.kind != FactKind::excess_enthalpy && fact.T_K > used.low_K - near_K &&
         fact.T_K < used.high_K + near_K;
}

}  // namespace

Notices failures(const std::vector<HeldFact>& held, const std::string& model) {
  std::vector<const HeldFact*> told;
  for (const HeldFact& one : held) {
    if (!one.fails()) continue;
    const auto beside = std::count_if(held.begin(), held.end(), [&](const HeldFact& other) {
      return other.fails() && other.fact->substances.size() == one.fact->substances.size() &&
             std::is_permutation(other.fact->substances.begin(), other.fact->substances.end(),
                                 one.fact->substances.begin());
    });
    if (one.fact->grade != 'C' || beside >= 2) told.push_back(&one);
  }
  std::stable_sort(told.begin(), told.end(),
                   [](const HeldFact* a, const HeldFact* b) { return gravity(*a) > gravity(*b); });
  Notices notices;
  constexpr std::size_t most = 6;
  for (std::size_t k = 0; k < std::min(most, told.size()); ++k)
    notices.add("against-handbook", told[k]->sentence(model));
  if (told.size() > most)
    notices.add("against-handbook",
                fmt::format("{} {} {}: `known` lists them", counted(told.size() - most, "more fact"),
                            told.size() - most == 1 ? "contradicts" : "contradict", model));
  return notices;
}

Notices against_handbooks(const Mixture& mixture, const UsedAt& used) {
  std::vector<std::string> present;
  for (const Substance& substance : mixture.substances()) present.push_back(substance.name);
  std::vector<HeldFact> held;
  FactJudge judge(mixture);
  for (const Fact* fact : KnownFacts::built_in().among(present)) {
    if (in_range(*fact, used)) held.push_back(judge.held(*fact));
  }
  const std::string model = mixture.one_equation() ? mixture.vapour_model() : mixture.liquid_model();
  Notices notices = failures(held, model);
  const bool judged = std::any_of(held.begin(), held.end(), [](const HeldFact& one) { return one.judged(); });
  if (!judged && mixture.parameters().empty())
    notices.add("no-fact",
                "no handbook fact is known about these substances near these conditions, so the result could "
                "not be compared with one");
  return notices;
}

}  // namespace jampot
