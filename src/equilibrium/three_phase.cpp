#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/subsystem.hpp"

namespace jampot {
namespace {

// The boiling pressure of one split, checked on both of its liquids.
std::optional<ThreePhase> boil(Mixture& mixture, double T_K, const BinarySplit& split) {
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  std::array<IncipientState, 2> boiling{IncipientState(2), IncipientState(2)};
  for (const auto& [state, x] :
       {std::pair(&boiling[0], split.x1_alpha), std::pair(&boiling[1], split.x1_beta)}) {
    state->T_K = T_K;
    state->P_Pa = mixture.substances()[0].vapour_pressure->P_Pa(T_K);
    const std::array<double, 2> z{x, 1 - x};
    state->w.assign(z.begin(), z.end());
    if (!solver.solve(Sought::pressure, z, *state)) return std::nullopt;
  }
  const double mismatch = std::abs(std::log(boiling[0].P_Pa / boiling[1].P_Pa));
  return ThreePhase{
      T_K,           boiling[0].P_Pa, split.x1_alpha,
      split.x1_beta, boiling[0].w[0], std::max({split.residual, mismatch, boiling[0].residual})};
}

// Both liquids of a three-phase line boil, so both components must.
void demand_two_volatile(const Mixture& mixture) {
  mixture.demand_volatilities();
  for (const Substance& substance : mixture.substances()) {
    if (!substance.vapour_pressure)
      throw CalculationError(substance.name +
                             " is non-volatile; lines of three phases are for two that boil");
  }
}

// The split at T whose middle is nearest to `middle`.
std::optional<BinarySplit> split_near(Mixture& mixture, double T_K, double middle) {
  const std::vector<BinarySplit> splits = binary_splits(mixture.activity(), T_K);
  if (splits.empty()) return std::nullopt;
  return *std::min_element(splits.begin(), splits.end(), [&](const BinarySplit& a, const BinarySplit& b) {
    return std::abs((a.x1_alpha + a.x1_beta) / 2 - middle) < std::abs((b.x1_alpha + b.x1_beta) / 2 - middle);
  });
}

}  // namespace

std::vector<ThreePhase> three_phases_at_T(Mixture& mixture, double T_K) {
  demand_temperature(T_K);
  demand_two_volatile(mixture);
  std::vector<ThreePhase> found;
  for (const BinarySplit& split : binary_splits(mixture.activity(), T_K)) {
    if (const auto state = boil(mixture, T_K, split)) found.push_back(*state);
  }
  return found;
}

std::vector<ThreePhase> three_phases_at_P(Mixture& mixture, double P_Pa, double T_start_K) {
  demand_pressure(P_Pa);
  demand_temperature(T_start_K);
  demand_two_volatile(mixture);
  std::vector<ThreePhase> found;
  for (const BinarySplit& first : binary_splits(mixture.activity(), T_start_K)) {
    double T_K = T_start_K, middle = (first.x1_alpha + first.x1_beta) / 2;
    double slope = -5000;  // K; d ln P / d(1/T) of a typical liquid, replaced by the secant after one step
    std::optional<ThreePhase> before;
    constexpr int most_iterations = 40;
    for (int iteration = 0; iteration < most_iterations; ++iteration) {
      const auto split = split_near(mixture, T_K, middle);
      if (!split) break;  // at the temperature where it would boil the liquid no longer splits
      const auto state = boil(mixture, T_K, *split);
      if (!state) break;
      const double error = std::log(state->P_Pa / P_Pa);
      if (std::abs(error) < 1e-12) {
        found.push_back(*state);
        found.back().P_Pa = P_Pa;
        found.back().residual = std::max(state->residual, std::abs(error));
        break;
      }
      if (before && before->T_K != T_K) {
        slope = std::log(state->P_Pa / before->P_Pa) / (1 / T_K - 1 / before->T_K);
      }
      before = state;
      middle = (split->x1_alpha + split->x1_beta) / 2;
      T_K = 1 / (1 / T_K - error / slope);
      if (!(T_K > 0)) break;
    }
  }
  return found;
}

std::vector<ThreePhase> three_phases_of_pair(Mixture& mixture, std::size_t i, std::size_t j, double P_Pa) {
  demand_pressure(P_Pa);
  if (i >= mixture.size() || j >= mixture.size() || i == j)
    throw RequestError("a pair is two different substances of the mixture");
  mixture.demand_volatilities();
  const std::vector<Substance> two{mixture.substances()[i], mixture.substances()[j]};
  if (!two[0].vapour_pressure || !two[1].vapour_pressure) return {};  // one of them boils alone
  Mixture pair(two, std::make_unique<Subsystem>(mixture.activity(), std::vector<std::size_t>{i, j}), {},
               mixture.vapour_choice());
  // A pair that parts boils below both of its substances, by how much is not known.
  const double below = std::min(two[0].vapour_pressure->T_K(P_Pa), two[1].vapour_pressure->T_K(P_Pa)) - 5;
  for (const double T_K : {below, below - 15, below + 5}) {
    auto lines = three_phases_at_P(pair, P_Pa, T_K);
    if (!lines.empty()) return lines;
  }
  return {};
}

}  // namespace jampot
