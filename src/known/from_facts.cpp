#include "jampot/known/from_facts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/known/families.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot {
namespace {

// Middle values of several printings: of grade C they may be further off.
double slack(const Fact& fact) {
  return fact.grade == 'C' ? 2.5 : 1;
}

bool splits(const Fact& fact) {
  return fact.kind == FactKind::solubility || (fact.kind == FactKind::azeotrope && fact.heterogeneous);
}

// One way to fit a pair.
struct Attempt {
  double alpha = 0;
  bool bent = false;      // A + B/T, which meets what changes with temperature
  bool wide = false;      // predicted limits within a factor of five instead of two
  bool no_split = false;  // one liquid at the temperatures of the facts
};

// The plainest first.
std::vector<Attempt> attempts(bool with_alpha, bool may_bend, bool one_liquid) {
  std::vector<Attempt> list;
  const std::vector<double> alphas = with_alpha ? std::vector{0.3, 0.2, 0.47, 0.4, 0.25} : std::vector{0.0};
  for (const bool no_split : {false, true}) {
    if (no_split && !one_liquid) continue;
    for (const auto& [bent, wide] : {std::pair(false, false), {true, false}, {true, true}}) {
      if (bent && !may_bend) continue;
      for (const double alpha : alphas) list.push_back({alpha, bent, wide, no_split});
    }
  }
  return list;
}

// The facts of a pair as data of a fit, with a prediction beside them.
class PairData {
 public:
  PairData(const Substance& first, const Substance& second, const std::vector<const Fact*>& facts)
      : pair_{first, second}, facts_(facts) {
    parts_ = std::any_of(facts_.begin(), facts_.end(), [](const Fact* fact) { return splits(*fact); });
    predict();
    for (DataSet* set : {&liquids_, &limits_, &heats_, &predicted_limits_}) {
      set->substances = pair_;
      set->name = "handbook facts";
    }
    predicted_limits_.kind = DataKind::gamma_inf;
    liquids_.kind = DataKind::lle;
    limits_.kind = DataKind::gamma_inf;
    heats_.kind = DataKind::excess_enthalpy;
    for (const Fact* fact : facts_) take(*fact);
    add_predicted_limits();
    keep_zeotropic();
    keep_miscible();
  }

  const std::vector<const Fact*>& facts() const { return facts_; }
  bool has_numbers() const { return !counts_.empty(); }
  /// Nothing says that the liquid parts.
  bool one_liquid() const { return !parts_; }
  bool spans_temperatures() const {
    return hottest_K_ - coldest_K_ > 25 || !heats_.points.empty() || !critical_.empty();
  }
  std::vector<DataSet> sets(const Attempt& attempt) const {
    std::vector<DataSet> all;
    for (const DataSet* set : {&liquids_, &limits_}) {
      if (!set->points.empty()) all.push_back(*set);
    }
    DataSet predicted = predicted_limits_;
    for (DataPoint& point : predicted.points) {
      constexpr double wider = 4;
      if (attempt.wide) point.u_value *= wider;
    }
    all.push_back(std::move(predicted));
    if (attempt.bent && !heats_.points.empty()) all.push_back(heats_);
    return all;
  }
  std::vector<KnownPoint> known(const Attempt& attempt) const {
    std::vector<KnownPoint> all = azeotropes_;
    if (attempt.bent) all.insert(all.end(), critical_.begin(), critical_.end());
    return all;
  }
  std::string source() const {
    std::vector<std::string> parts;
    for (const auto& [kind, count] : counts_)
      parts.push_back(kind.starts_with("known ") ? kind : counted(count, kind));
    return fmt::format("fitted to handbook facts ({})", joined(parts, ", "));
  }
  std::array<double, 2> T_range_K() const { return {coldest_K_, hottest_K_}; }
  // Whether these parameters part a liquid of which neither facts nor the prediction say that it parts.
  bool invents_a_split(const PairParameters& pair) const {
    if (parts_ || !predicted_) return false;
    ParameterCollection parameters;
    parameters.add(pair);
    const auto model = make_activity_model(pair.model, pair_, parameters);
    for (const double T_K : {room_T_K, coldest_K_, hottest_K_}) {
      if (T_K > 0 && std::isfinite(T_K) && !binary_splits(*model, T_K).empty() &&
          binary_splits(*predicted_, T_K).empty())
        return true;
    }
    return false;
  }

 private:
  // By the table of groups that does best on other pairs of the same families, where they can be compared.
  void predict() {
    const std::vector<std::string> tables =
        parts_ ? std::vector<std::string>{"unifac-lle", "unifac-dortmund", "unifac"}
               : std::vector<std::string>{"unifac-dortmund", "unifac"};
    std::vector<std::string> of_use;
    for (const std::string& table : tables) {
      try {
        refuse_doubtful_groups(*make_activity_model(table, pair_, {}));
        of_use.push_back(table);
      } catch (const std::runtime_error&) {
        continue;  // it lacks a group or an interaction, or has a wrong one
      }
    }
    if (of_use.empty()) return;
    std::string best = of_use.front();
    if (of_use.size() > 1) {
      double least = HUGE_VAL;
      for (const FamilyRecord& record : records_on_families(of_use, pair_).records) {
        constexpr int enough = 3;
        if (record.common.judged < enough) break;
        const double share = record.common.misses / record.common.judged;
        if (share >= least) continue;
        least = share;
        best = record.model;
      }
    }
    predicted_ = make_activity_model(best, pair_, {});
  }

  void at(double T_K) {
    coldest_K_ = std::min(coldest_K_, T_K);
    hottest_K_ = std::max(hottest_K_, T_K);
  }

  // Number of a substance of a fact in the pair.
  std::size_t place(const Fact& fact, std::size_t number) const {
    return fact.substances[number] == pair_[0].name ? 0 : 1;
  }
  std::vector<double> ordered(const Fact& fact) const {
    std::vector<double> x(2);
    for (std::size_t i = 0; i < 2; ++i) x[place(fact, i)] = fact.x[i];
    return x;
  }

  void take(const Fact& fact) {
    switch (fact.kind) {
      case FactKind::azeotrope:
        if (fact.heterogeneous)
          take_two_liquids_boiling(fact);
        else if (!fact.x.empty())
          take_azeotrope(fact);
        break;
      case FactKind::solubility:
        take_liquids(fact);
        break;
      case FactKind::critical_solution:
        critical_.push_back(
            {.what = SpecialPoint::critical_solution, .T_K = fact.T_K, .u_T_K = 3 * slack(fact)});
        ++counts_["critical solution temperature"];
        break;
      case FactKind::limiting_gamma: {
        add_limit(limits_, place(fact, 0), fact.T_K, fact.value, 0.2 * slack(fact));
        ++counts_["limiting activity coefficient"];
        at(fact.T_K);
        break;
      }
      case FactKind::excess_enthalpy: {
        DataPoint point{fact.T_K, 0, ordered(fact), {}, 1, 0, 0.01, 0, 1};
        point.value = fact.value;
        point.u_value = std::max(40.0, 0.12 * std::abs(fact.value)) * slack(fact);
        heats_.points.push_back(std::move(point));
        break;
      }
      default:
        break;
    }
  }

  void take_azeotrope(const Fact& fact) {
    for (const Substance& substance : pair_)
      if (!substance.vapour_pressure) return;
    azeotropes_.push_back({.what = SpecialPoint::azeotrope,
                           .x = ordered(fact),
                           .T_K = fact.T_K,
                           .P_Pa = fact.P_Pa,
                           .u_x = 0.012 * slack(fact),
                           .u_T_K = 0.4 * slack(fact),
                           .u_P_Pa = 1e-4 * fact.P_Pa});
    ++counts_["azeotrope"];
    at(fact.T_K);
  }

  // That there are two liquids at the boiling point; how much dissolves is the prediction's, wide open.
  void take_two_liquids_boiling(const Fact& fact) {
    const bool measured = std::any_of(facts_.begin(), facts_.end(), [](const Fact* other) {
      return other->kind == FactKind::solubility && (other->x1_dilute || other->x2_dilute);
    });
    if (!predicted_ || fact.x.empty() || measured) return;
    const auto found = binary_splits(*predicted_, fact.T_K);
    if (found.empty()) return;
    add_liquids(fact.T_K, {found.front().x1_alpha, 1 - found.front().x1_beta}, 0.4 * slack(fact));
    ++counts_["heterogeneous azeotrope"];
  }

  void add_liquids(double T_K, std::array<double, 2> dilute, double part) {
    DataPoint point{T_K, 0, {dilute[0], 1 - dilute[0]}, {1 - dilute[1], dilute[1]}, 0.5, 0, 0.03, 0.03, 1};
    point.relative_u_x = part;
    liquids_.points.push_back(std::move(point));
    at(T_K);
  }

  // A solubility that is not known on one side is filled in from the prediction, wide open.
  void take_liquids(const Fact& fact) {
    std::array<std::optional<double>, 2> dilute;
    dilute[place(fact, 0)] = fact.x1_dilute;
    dilute[place(fact, 1)] = fact.x2_dilute;
    double part = 0.06 * slack(fact);
    if (!dilute[0] && !dilute[1]) return;
    if (!dilute[0] || !dilute[1]) {
      if (!predicted_) return;
      const auto found = binary_splits(*predicted_, fact.T_K);
      if (found.empty()) return;
      if (!dilute[0]) dilute[0] = found.front().x1_alpha;
      if (!dilute[1]) dilute[1] = 1 - found.front().x1_beta;
      part = 0.3 * slack(fact);
    }
    add_liquids(fact.T_K, {*dilute[0], *dilute[1]}, part);
    ++counts_["pair of solubilities"];
  }

  void add_limit(DataSet& set, std::size_t solute, double T_K, double value, double part) {
    DataPoint point{T_K, 0, {solute == 0 ? 0.0 : 1.0, solute == 0 ? 1.0 : 0.0}, {}, 1, 0, 0.01, 0, 1};
    point.solute = solute;
    point.solvent = 1 - solute;
    point.value = value;
    point.u_value = part * value;
    set.points.push_back(std::move(point));
  }

  // Where the prediction invents an azeotrope that is known not to be, its limits are moved until there is
  // none.
  void keep_zeotropic() {
    const auto none = std::find_if(facts_.begin(), facts_.end(), [](const Fact* fact) {
      return fact->kind == FactKind::no_azeotrope && fact->grade != 'C';
    });
    if (none == facts_.end() || !predicted_ || !azeotropes_.empty()) return;
    for (const Substance& substance : pair_)
      if (!substance.vapour_pressure) return;
    const double P_Pa = (*none)->P_Pa;
    const std::array<double, 2> boils{pair_[0].vapour_pressure->T_K(P_Pa),
                                      pair_[1].vapour_pressure->T_K(P_Pa)};
    const std::size_t light = boils[0] < boils[1] ? 0 : 1, heavy = 1 - light;
    // ln K_light/K_heavy at both ends; the light one is to be the more volatile.
    constexpr double margin = 0.03;
    bool moved = false;
    std::array<double, 2> ln_gamma{};
    for (const std::size_t solute : {light, heavy}) {
      const double T_K = boils[1 - solute],
                   ratio = pair_[heavy].vapour_pressure->ln_P(T_K) - pair_[light].vapour_pressure->ln_P(T_K);
      ln_gamma[solute] = limiting_ln_gamma(*predicted_, T_K, solute, 1 - solute);
      const double allowed = solute == light ? std::max(ln_gamma[solute], ratio + margin)
                                             : std::min(ln_gamma[solute], -ratio - margin);
      moved = moved || allowed != ln_gamma[solute];
      ln_gamma[solute] = allowed;
    }
    if (!moved) return;
    predicted_limits_.points.clear();
    constexpr double close = 0.01, loose = 0.3;
    for (const std::size_t solute : {light, heavy}) {
      add_limit(predicted_limits_, solute, boils[1 - solute], std::exp(ln_gamma[solute]), close);
      add_limit(predicted_limits_, solute, boils[solute], std::exp(ln_gamma[solute]), loose);
    }
    ++counts_["known absence of an azeotrope"];
    at(boils[0]);
    at(boils[1]);
  }

  // Where the prediction parts what is known to mix, one liquid is asked for.
  void keep_miscible() {
    for (const Fact* fact : facts_) {
      if (fact->kind != FactKind::miscible || fact->grade == 'C' || !predicted_ || parts_) continue;
      if (binary_splits(*predicted_, fact->T_K).empty()) continue;
      ++counts_["known miscibility"];
      at(fact->T_K);
      constexpr double warmer_K = 40, loose = 0.7;
      for (const std::size_t solute : {0u, 1u})
        add_limit(predicted_limits_, solute, fact->T_K + warmer_K,
                  std::exp(limiting_ln_gamma(*predicted_, fact->T_K + warmer_K, solute, 1 - solute)), loose);
      return;
    }
  }

  // Within a factor of two; without a prediction an ideal liquid within a factor of five.
  void add_predicted_limits() {
    constexpr double factor_of_two = 0.7, factor_of_five = 1.6;
    std::vector<double> temperatures{hottest_K_ > 0 ? coldest_K_ : 298.15};
    if (hottest_K_ - coldest_K_ > 5) temperatures.push_back(hottest_K_);
    for (const double T_K : temperatures) {
      for (const std::size_t solute : {0u, 1u}) {
        const double value =
            predicted_ ? std::exp(limiting_ln_gamma(*predicted_, T_K, solute, 1 - solute)) : 1.0;
        if (std::isfinite(value) && value < 1e7)
          add_limit(predicted_limits_, solute, T_K, value, predicted_ ? factor_of_two : factor_of_five);
      }
    }
  }

  std::vector<Substance> pair_;
  std::vector<const Fact*> facts_;
  bool parts_ = false;
  std::unique_ptr<ActivityModel> predicted_;
  DataSet liquids_{}, limits_{}, heats_{}, predicted_limits_{};
  std::vector<KnownPoint> azeotropes_, critical_;
  std::map<std::string, std::size_t> counts_;
  double coldest_K_ = HUGE_VAL, hottest_K_ = 0;
};

bool decides(const Fact& fact) {
  return fact.grade != 'C' && (fact.kind == FactKind::azeotrope || fact.kind == FactKind::no_azeotrope ||
                               fact.kind == FactKind::miscible || fact.kind == FactKind::solubility);
}

// How much fails, facts that decide ten times as heavy.
double failing(const std::vector<HeldFact>& held) {
  double sum = 0;
  for (const HeldFact& one : held) {
    if (one.fails()) sum += decides(*one.fact) ? 10 : one.fact->grade == 'C' ? 0.3 : 1;
  }
  return sum;
}

std::optional<PairFromFacts> fitted(const PairData& data, const std::string& model, const Attempt& attempt) {
  FitOptions options;
  options.model = model;
  options.no_split = attempt.no_split;
  if (attempt.alpha > 0) options.hold = {{"alpha", attempt.alpha}};
  if (attempt.bent) options.form = {Coefficient::constant, Coefficient::inverse_T};
  options.known = data.known(attempt);
  try {
    const Fit result = fit(data.sets(attempt), options);
    PairFromFacts one{.pair = result.pairs().front(), .alpha = attempt.alpha};
    one.pair.source = data.source();
    one.pair.T_range_K = data.T_range_K();
    FactJudge judge(result.mixture());
    auto& [coldest_K, hottest_K] = *one.pair.T_range_K;
    for (const Fact* fact : data.facts()) {
      one.held.push_back(judge.held(*fact));
      if (!one.held.back().judged() || one.held.back().fails() || fact->T_K == 0) continue;
      coldest_K = std::min(coldest_K, fact->T_K);
      hottest_K = std::max(hottest_K, fact->T_K);
    }
    return one;
  } catch (const std::runtime_error&) {
    return std::nullopt;  // not with these
  }
}

}  // namespace

bool PairFromFacts::sound() const {
  return std::none_of(held.begin(), held.end(),
                      [](const HeldFact& one) { return one.fails() && decides(*one.fact); });
}

std::optional<PairFromFacts> pair_from_facts(const Substance& first, const Substance& second,
                                             const std::string& model) {
  return pair_from_facts(first, second, model, KnownFacts::built_in().about(first.name, second.name));
}

std::optional<PairFromFacts> pair_from_facts(const Substance& first, const Substance& second,
                                             const std::string& model,
                                             const std::vector<const Fact*>& facts) {
  const PairData data(first, second, facts);
  if (!data.has_numbers()) return std::nullopt;
  std::optional<PairFromFacts> best;
  double least = HUGE_VAL;
  for (const Attempt& attempt : attempts(model == "nrtl", data.spans_temperatures(), data.one_liquid())) {
    auto one = fitted(data, model, attempt);
    if (!one) continue;
    constexpr double invented = 3;  // less than a fact that decides
    const double fails = failing(one->held) + (data.invents_a_split(one->pair) ? invented : 0);
    if (fails < least) {
      least = fails;
      best = std::move(one);
    }
    if (least == 0) break;
  }
  return best;
}

}  // namespace jampot
