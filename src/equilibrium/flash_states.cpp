#include "jampot/equilibrium/flash_states.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "../basis/bracket.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

// Phases of both states, `share` of the second; those that are alike are one.
Flashed between(const Flashed& first, const Flashed& second, double share) {
  Flashed mixed;
  mixed.residual = std::max(first.residual, second.residual);
  mixed.distance = std::min(first.distance, second.distance);
  constexpr double same = 1e-5;
  for (const auto& [part, weight] : {std::pair(&first, 1 - share), std::pair(&second, share)}) {
    for (const FlashedPhase& phase : part->phases) {
      const double amount = weight * phase.amount;
      if (!(amount > 0)) continue;
      const auto alike =
          std::find_if(mixed.phases.begin(), mixed.phases.end(), [&](const FlashedPhase& other) {
            double most = 0;
            for (std::size_t i = 0; i < phase.x.size(); ++i)
              most = std::max(most, std::abs(phase.x[i] - other.x[i]));
            return other.kind == phase.kind && other.vapour == phase.vapour && most < same;
          });
      if (alike == mixed.phases.end()) {
        mixed.phases.push_back(phase);
        mixed.phases.back().amount = amount;
        continue;
      }
      const double total = alike->amount + amount;
      for (std::size_t i = 0; i < phase.x.size(); ++i)
        alike->x[i] = (alike->x[i] * alike->amount + phase.x[i] * amount) / total;
      alike->amount = total;
    }
  }
  return mixed;
}

// A quantity of the flashed feed that rises with q (T or -ln P), followed until it has the value wanted.
class Rising {
 public:
  struct Side {
    double q, value;
    FlashState state;
  };
  using Of = std::function<double(const FlashState&)>;

  Rising(Mixture& mixture, std::span<const double> z,
         std::function<std::pair<double, double>(double)> T_and_P, Of of)
      : mixture_(mixture), z_(z), T_and_P_(std::move(T_and_P)), of_(std::move(of)) {}

  Side at(double q) {
    const auto [T_K, P_Pa] = T_and_P_(q);
    Side side{q, 0, flash_at(mixture_, {Kelvin(T_K), Pascal(P_Pa)}, z_)};
    side.value = of_(side.state);
    return side;
  }

  // Between low and high, which are searched outwards from `start` in steps that grow.
  FlashState solve(double start, double step, double lowest, double highest, double wanted,
                   const char* what) {
    Side low = first(start, step, highest), high = low;
    for (double by = step; high.value < wanted; by *= 1.3) {
      if (high.q >= highest) fail(what, wanted, high);
      low = std::move(high);
      high = next(low.q, by, highest);
    }
    for (double by = step; low.value >= wanted; by *= 1.3) {
      if (low.q <= lowest) fail(what, wanted, low);
      high = std::move(low);
      low = next(high.q, -by, lowest);
    }
    const double scale = std::abs(low.value) + std::abs(high.value) + 1e-300;
    root_between(
        [&](double q) {
          Side side = at(q);
          const double rest = (side.value - wanted) / scale;
          (rest < 0 ? low : high) = std::move(side);
          return rest;
        },
        low.q, high.q, (low.value - wanted) / scale, (high.value - wanted) / scale, 53, 120);
    if (high.value == wanted || high.value == low.value) return high.state;
    const double share = (wanted - low.value) / (high.value - low.value);
    FlashState state = high.state;
    state.flashed = between(low.state.flashed, high.state.flashed, share);
    return state;
  }

 private:
  // Of light gases with heavy liquids the start can lie where the model breaks down: then a little further
  // up.
  Side first(double start, double step, double highest) {
    for (;; start += step) {
      try {
        return at(start);
      } catch (const CalculationError&) {
        if (start >= highest) throw;
      }
    }
  }

  // One step further. A model can break down far from where it was made for; then the step is shortened.
  Side next(double from, double by, double end) {
    constexpr int most = 6;
    for (int k = 0;; ++k, by /= 2) {
      try {
        return at(by > 0 ? std::min(end, from + by) : std::max(end, from + by));
      } catch (const CalculationError&) {
        if (k == most) throw;
      }
    }
  }

  [[noreturn]] void fail(const char* what, double wanted, const Side& end) const {
    throw CalculationError(
        fmt::format("no state has {} {:.6g}: at {:.2f} degC and {:.6g} kPa, as far as was searched, it "
                    "is {:.6g}",
                    what, wanted, end.state.T_K - celsius_zero, end.state.P_Pa / 1000, end.value));
  }

  Mixture& mixture_;
  std::span<const double> z_;
  std::function<std::pair<double, double>(double)> T_and_P_;
  Of of_;
};

double checked(double vapour_fraction) {
  if (!(vapour_fraction >= 0 && vapour_fraction <= 1))
    throw RequestError(fmt::format("a vapour fraction of {}: it must lie between 0 and 1", vapour_fraction));
  constexpr double trace = 1e-12;
  return std::clamp(vapour_fraction, trace, 1 - trace);
}

// Somewhere near boiling, for the search to begin.
double middle_T(const Mixture& mixture, double P_Pa, std::span<const double> z) {
  double inverse = 0, share = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    const Substance& s = mixture.substances()[i];
    double T = s.vapour_pressure ? s.vapour_pressure->T_K(P_Pa) : s.Tb_K ? s.Tb_K->value : 400;
    if (s.Tc_K) T = std::min(T, s.Tc_K->value);
    inverse += z[i] / T;
    share += z[i];
  }
  return share / inverse;
}

constexpr double coldest_K = 60, hottest_K = 1500;

}  // namespace

FlashState flash_at(Mixture& mixture, const State& at, std::span<const double> z) {
  const double T_K = at.T.value, P_Pa = at.P.value;
  demand_temperature(T_K);
  demand_pressure(P_Pa);
  demand_fractions(z, mixture.size());
  mixture.demand_volatilities();
  return {T_K, P_Pa, flash(mixture.kinds(), at, z)};
}

FlashState flash_at_P_and_vapour_fraction(Mixture& mixture, double P_Pa, double vapour_fraction,
                                          std::span<const double> z) {
  demand_pressure(P_Pa);
  demand_fractions(z, mixture.size());
  mixture.demand_volatilities();
  const double wanted = checked(vapour_fraction);
  Rising rising(
      mixture, z, [&](double q) { return std::pair(q, P_Pa); },
      [](const FlashState& state) { return state.flashed.vapour_fraction(); });
  return rising.solve(middle_T(mixture, P_Pa, z), 5, coldest_K, hottest_K, wanted, "a vapour fraction of");
}

FlashState flash_at_T_and_vapour_fraction(Mixture& mixture, double T_K, double vapour_fraction,
                                          std::span<const double> z) {
  demand_temperature(T_K);
  demand_fractions(z, mixture.size());
  mixture.demand_volatilities();
  const double wanted = checked(vapour_fraction);
  double ln_P = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    const Substance& s = mixture.substances()[i];
    ln_P += z[i] * (s.vapour_pressure ? std::clamp(s.vapour_pressure->ln_P(T_K), 0.0, 17.0) : 11.5);
  }
  Rising rising(
      mixture, z, [&](double q) { return std::pair(T_K, std::exp(-q)); },
      [](const FlashState& state) { return state.flashed.vapour_fraction(); });
  return rising.solve(-ln_P, 0.3, -std::log(5e8), -std::log(1e-3), wanted, "a vapour fraction of");
}

FlashState flash_at_P_and_enthalpy(Mixture& mixture, Energies& energies, double P_Pa, double h_J_mol,
                                   std::span<const double> z, double near_K) {
  demand_pressure(P_Pa);
  demand_finite(h_J_mol, "the enthalpy in J/mol");
  demand_fractions(z, mixture.size());
  mixture.demand_volatilities();
  Rising rising(
      mixture, z, [&](double q) { return std::pair(q, P_Pa); },
      [&](const FlashState& state) { return enthalpy(energies, state); });
  return rising.solve(near_K > 0 ? near_K : middle_T(mixture, P_Pa, z), 5, coldest_K, hottest_K, h_J_mol,
                      "an enthalpy in J/mol of");
}

double enthalpy(Energies& energies, const FlashState& state) {
  double h = 0;
  for (const FlashedPhase& phase : state.flashed.phases)
    h += phase.amount * energies.enthalpy(phase.kind, state.T_K, state.P_Pa, phase.x);
  return h;
}

}  // namespace jampot
