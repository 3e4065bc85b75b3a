#include "jampot/equilibrium/decanter.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "../basis/bracket.hpp"
#include "../basis/integral.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/liquid_split.hpp"

namespace jampot {
namespace {

class Decanter {
 public:
  Decanter(const std::vector<Substance>& substances, ActivityModel& model, const Feed& feed,
           const DecanterConditions& conditions)
      : substances_(substances), model_(model), feed_(feed), z_(feed.fractions()), conditions_(conditions) {}

  Decanted at(double T_K) {
    Decanted result;
    result.T_K = T_K;
    LiquidSplitter splitter(model_, T_K);
    const LiquidSplit split = splitter.split(z_);
    result.residual = split.residual;
    result.distance = split.distance;
    const double total = feed_.total();
    for (std::size_t p = 0; p < split.phases(); ++p) {
      DecantedLiquid liquid;
      liquid.x = split.x[p];
      liquid.w = mass_fractions(liquid.x, substances_);
      liquid.n = total * split.amount[p];
      for (std::size_t i = 0; i < liquid.x.size(); ++i)
        liquid.m_kg += liquid.n * liquid.x[i] * substances_[i].molar_mass_kg_mol;
      liquid.density_kg_m3 = density(liquid.x, T_K);
      result.liquids.push_back(std::move(liquid));
    }
    for (std::size_t i = 0; i < z_.size(); ++i) {
      double sum = 0;
      for (const DecantedLiquid& liquid : result.liquids) sum += liquid.n * liquid.x[i];
      result.balance = std::max(result.balance, std::abs(sum - feed_.n[i]) / total);
    }
    name(result);
    order(result);
    vapour(result, splitter);
    if (conditions_.feed_T_K) result.duty = duty(result);
    return result;
  }

  /// Heat from the feed's temperature to liquids at another.
  Duty duty(const Decanted& out) {
    Duty duty;
    const double from = *conditions_.feed_T_K;
    std::vector<std::string> missing;
    for (std::size_t i = 0; i < substances_.size(); ++i) {
      if (feed_.n[i] == 0) continue;
      if (!liquid_heat_capacity(substances_[i], from).value ||
          !liquid_heat_capacity(substances_[i], out.T_K).value) {
        missing.push_back(substances_[i].name);
        continue;
      }
      const auto Cp = [&](double T) { return liquid_heat_capacity(substances_[i], T).value.value_or(0); };
      duty.sensible += feed_.n[i] * integral(Cp, from, out.T_K);
    }
    if (!missing.empty()) {
      duty.total.method = "no heat capacity of liquid " + joined(missing, ", ");
      return duty;
    }
    for (const DecantedLiquid& liquid : out.liquids)
      duty.mixing += liquid.n * excess_enthalpy(liquid.x, out.T_K);
    // The feed may be two liquids itself.
    LiquidSplitter before(model_, from);
    const LiquidSplit fed = before.split(z_);
    for (std::size_t p = 0; p < fed.phases(); ++p)
      duty.mixing -= feed_.total() * fed.amount[p] * excess_enthalpy(fed.x[p], from);
    duty.total.value = duty.sensible + duty.mixing;
    duty.total.method =
        "heat capacities of the liquids, and excess enthalpy from the temperature dependence of the model";
    return duty;
  }

 private:
  double excess_enthalpy(const std::vector<double>& x, double T_K) {
    std::vector<double> ln_gamma(x.size()), dT(x.size());
    model_.set_temperature(T_K);
    model_.evaluate(x, ln_gamma, dT);
    return -gas_constant * T_K * T_K * std::inner_product(x.begin(), x.end(), dT.begin(), 0.0);
  }

  Property density(const std::vector<double>& x, double T_K) const {
    double volume = 0, mass = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
      const Property V = liquid_molar_volume(substances_[i], T_K);
      if (x[i] > 0 && !V.value) return {std::nullopt, fmt::format("{}: {}", substances_[i].name, V.method)};
      volume += x[i] * V.value.value_or(0);
      mass += x[i] * substances_[i].molar_mass_kg_mol;
    }
    return {mass / volume, "volumes of the pure liquids added"};
  }

  // What each liquid is rich in: the substance by whose fraction it stands out most among the others.
  static void name(Decanted& result) {
    for (DecantedLiquid& liquid : result.liquids) {
      std::vector<std::vector<double>> others;
      for (const DecantedLiquid& other : result.liquids) {
        if (&other != &liquid) others.push_back(other.x);
      }
      liquid.rich_in = rich_in(liquid.x, others);
    }
  }

  void order(Decanted& result) const {
    auto& liquids = result.liquids;
    const bool known = std::all_of(liquids.begin(), liquids.end(),
                                   [](const DecantedLiquid& liquid) { return liquid.density_kg_m3.value; });
    if (known) {
      std::stable_sort(liquids.begin(), liquids.end(), [](const DecantedLiquid& a, const DecantedLiquid& b) {
        return *a.density_kg_m3.value < *b.density_kg_m3.value;
      });
      constexpr double close = 0.02;
      for (std::size_t p = 1; p < liquids.size(); ++p) {
        const double light = *liquids[p - 1].density_kg_m3.value, heavy = *liquids[p].density_kg_m3.value;
        if (heavy - light < close * heavy) {
          result.notices.add(
              "similar-densities",
              fmt::format("the liquids rich in {} and in {} differ in density by {:.1f} %: which is lighter "
                          "is uncertain, and they separate slowly",
                          substances_[liquids[p - 1].rich_in].name, substances_[liquids[p].rich_in].name,
                          100 * (heavy - light) / heavy));
        }
      }
    }
    if (!conditions_.rich_in) return;
    const std::size_t wanted = *conditions_.rich_in;
    const auto richest = std::max_element(
        liquids.begin(), liquids.end(),
        [&](const DecantedLiquid& a, const DecantedLiquid& b) { return a.x[wanted] < b.x[wanted]; });
    std::rotate(liquids.begin(), richest, richest + 1);
  }

  void vapour(Decanted& result, LiquidSplitter& splitter) const {
    const std::vector<double> ln_a = splitter.ln_activities(result.liquids.front().x);
    double P = 0;
    for (std::size_t i = 0; i < ln_a.size(); ++i) {
      if (substances_[i].vapour_pressure && std::isfinite(ln_a[i]))
        P += std::exp(ln_a[i]) * substances_[i].vapour_pressure->P_Pa(result.T_K);
    }
    if (P > 0) result.bubble_pressure_Pa = P;
    if (conditions_.P_Pa && P > *conditions_.P_Pa) {
      result.notices.add(
          "vapour-forms",
          fmt::format("at {:.2f} degC the liquids boil under {:.4g} kPa, more than the {:.4g} kPa given: "
                      "a vapour would form, and this is not the state of the feed",
                      result.T_K - celsius_zero, P / 1000, *conditions_.P_Pa / 1000));
    }
  }

  const std::vector<Substance>& substances_;
  ActivityModel& model_;
  const Feed& feed_;
  std::vector<double> z_;
  const DecanterConditions& conditions_;
};

}  // namespace

namespace {

void demand_feed(const std::vector<Substance>& substances, const ActivityModel& model, const Feed& feed,
                 const DecanterConditions& conditions) {
  demand_size(model.size(), substances.size(), "substances of the model");
  demand_size(feed.n.size(), substances.size(), "amounts");
  double total = 0;
  for (const double n : feed.n) {
    if (!(n >= 0 && std::isfinite(n)))
      throw RequestError(
          fmt::format("an amount of the feed is {}; expected a number that is not negative", n));
    total += n;
  }
  demand_positive(total, "the whole feed");
  if (conditions.feed_T_K) demand_temperature(*conditions.feed_T_K);
  if (conditions.P_Pa) demand_pressure(*conditions.P_Pa);
  if (conditions.rich_in && *conditions.rich_in >= substances.size())
    throw RequestError(
        fmt::format("substance {} is asked for of {}", *conditions.rich_in, substances.size()));
}

}  // namespace

Decanted decant(const std::vector<Substance>& substances, ActivityModel& model, const Feed& feed,
                const DecanterConditions& conditions) {
  demand_feed(substances, model, feed, conditions);
  return Decanter(substances, model, feed, conditions).at(conditions.T_K);
}

Decanted decant_with_duty(const std::vector<Substance>& substances, ActivityModel& model, const Feed& feed,
                          double duty, const DecanterConditions& conditions) {
  if (!conditions.feed_T_K) throw RequestError("a duty needs the temperature of the feed");
  demand_feed(substances, model, feed, conditions);
  demand_finite(duty, "the duty");
  Decanter decanter(substances, model, feed, conditions);
  const auto excess = [&](double T_K) {
    const Decanted out = decanter.at(T_K);
    if (!out.duty->total.value)
      throw CalculationError(
          fmt::format("no temperature can be found for the duty: {}", out.duty->total.method));
    return *out.duty->total.value - duty;
  };
  // Outwards from the feed in the direction of the duty, then between the last two.
  constexpr double lowest = 150, highest = 600, step = 5;
  double from = *conditions.feed_T_K, at_from = excess(from);
  const double direction = at_from < 0 ? step : -step;
  for (;;) {
    const double to = from + direction;
    if (to < lowest || to > highest) {
      throw CalculationError(fmt::format(
          "no liquid between {:.0f} and {:.0f} K matches this duty; check its unit", lowest, highest));
    }
    const double at_to = excess(to);
    if ((at_to < 0) != (at_from < 0)) {
      const bool up = to > from;
      const auto [a, b] = root_between(excess, up ? from : to, up ? to : from, up ? at_from : at_to,
                                       up ? at_to : at_from, 46);
      return decanter.at((a + b) / 2);
    }
    from = to;
    at_from = at_to;
  }
}

}  // namespace jampot
