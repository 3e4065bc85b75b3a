#include "jampot/equilibrium/bubble_dew.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/bubble_series.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/equilibrium/fluid_boundary.hpp"
#include "jampot/equilibrium/incipient.hpp"
#include "jampot/equilibrium/stability.hpp"
#include "jampot/phase/saturation_correction.hpp"
#include "jampot/phase/virial_vapour.hpp"

namespace jampot {
namespace {

std::vector<double> normalised(std::span<const double> fractions) {
  std::vector<double> result(fractions.begin(), fractions.end());
  const double sum = std::accumulate(result.begin(), result.end(), 0.0);
  for (double& value : result) value /= sum;
  return result;
}

// Starting temperature: the boiling points of the components at P, weighted in 1/T.
double starting_T(const Mixture& mixture, double P_Pa, std::span<const double> z) {
  double inverse = 0, share = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    const auto& curve = mixture.substances()[i].vapour_pressure;
    if (!(z[i] > 0) || !curve) continue;  // what does not boil has no say
    inverse += z[i] / std::min(1e4, curve->T_K(P_Pa));
    share += z[i];
  }
  return share / inverse;
}

// Starting pressure: Raoult's law, for the liquid (sum of x Psat) or the vapour (harmonic mean).
double starting_P(const Mixture& mixture, double T_K, std::span<const double> z, bool vapour_known) {
  double sum = 0;
  for (std::size_t i = 0; i < z.size(); ++i) {
    const auto& curve = mixture.substances()[i].vapour_pressure;
    if (!curve) continue;
    sum += vapour_known ? z[i] / curve->P_Pa(T_K) : z[i] * curve->P_Pa(T_K);
  }
  return vapour_known ? 1 / sum : sum;
}

// Fugacity coefficients of a vapour that is not ideal, and a word where it is too dense for its model.
void add_vapour(Mixture& mixture, VlePoint& point) {
  if (mixture.vapour_model() == "ideal") return;
  PhaseValues values(mixture.size());
  mixture.vapour().evaluate(point.T_K, point.P_Pa, point.y, {false, true, false}, values);
  double Z = 1;
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    point.phi.push_back(std::exp(values.ln_phi[i]));
    Z += point.y[i] * values.dln_P[i];
  }
  if (const SaturationCorrection* correction = mixture.correction(point.T_K)) {
    for (std::size_t i = 0; i < mixture.size(); ++i) {
      point.phi_saturated.push_back(std::exp(correction->ln_phi(i)));
      point.poynting.push_back(std::exp(correction->ln_poynting(i, point.P_Pa)));
    }
  }
  const auto* virial = dynamic_cast<const VirialVapour*>(&mixture.vapour());
  constexpr double dense =
      0.8;  // cut after its second coefficient the virial equation holds while Z is near one
  if (virial != nullptr && !virial->coefficients().dimers() && Z < dense) {
    point.notices.add(
        "dense-vapour",
        fmt::format("the vapour is dense (Z = {:.2f}): the virial equation with its second coefficient "
                    "alone does not hold there; an equation of state does (`vapour` pr)",
                    Z));
  }
}

VlePoint to_point(Mixture& mixture, const IncipientState& state, std::span<const double> known,
                  bool vapour_known) {
  const std::size_t n = mixture.size();
  VlePoint point{state.T_K,
                 state.P_Pa,
                 {known.begin(), known.end()},
                 state.w,
                 std::vector<double>(n),
                 {},
                 {},
                 {},
                 {},
                 state.residual,
                 {}};
  for (std::size_t i = 0; i < n; ++i) {
    point.K[i] = std::exp(vapour_known ? -state.ln_K[i] : state.ln_K[i]);
    if (!mixture.one_equation() && !mixture.is_solute(i) && !mixture.substances()[i].vapour_pressure)
      point.K[i] = (vapour_known ? point.x : point.y)[i] = 0;  // exactly
  }
  if (vapour_known) std::swap(point.x, point.y);
  point.notices = mixture.range_notices(state.T_K, state.T_K);
  add_vapour(mixture, point);
  if (mixture.one_equation()) return point;
  point.gamma.resize(n);
  mixture.activity().set_temperature(state.T_K);
  mixture.activity().evaluate(point.x, point.gamma);
  for (std::size_t i = 0; i < n; ++i) point.gamma[i] = mixture.is_solute(i) ? 1 : std::exp(point.gamma[i]);
  if (!vapour_known && liquid_splits(mixture.liquid(), state.T_K, point.x)) {
    point.notices.add("liquid-splits",
                      fmt::format("at {:.2f} degC the {} model splits a liquid of this composition into two; "
                                  "the bubble point is that of the single, unstable liquid",
                                  state.T_K - celsius_zero, mixture.liquid_model()));
  }
  return point;
}

[[noreturn]] void give_up(const char* what, const char* held, double value, const char* unit) {
  throw CalculationError(
      fmt::format("no {} was found at {} {:.6g} {}: Newton's method and a bracketing search from "
                  "20 to 5000 K both failed. Is the {} one at which this mixture boils?",
                  what, held, value, unit, held));
}

// Where the liquid is two before it boils: the first vapour beside both, by a flash with next to none of it.
// The liquid of the point is the whole of both. Nothing where there are not two.
std::optional<VlePoint> bubble_of_two_liquids(Mixture& mixture, Sought sought, double held,
                                              const std::vector<double>& z) {
  constexpr double next_to_none = 1e-9;
  FlashState state;
  try {
    state = sought == Sought::temperature ? flash_at_P_and_vapour_fraction(mixture, held, next_to_none, z)
                                          : flash_at_T_and_vapour_fraction(mixture, held, next_to_none, z);
  } catch (const CalculationError&) {
    return std::nullopt;
  }
  const auto vapour = std::find_if(state.flashed.phases.begin(), state.flashed.phases.end(),
                                   [](const FlashedPhase& phase) { return phase.vapour; });
  if (vapour == state.flashed.phases.end() || state.flashed.phases.size() < 3) return std::nullopt;
  VlePoint point;
  point.T_K = state.T_K;
  point.P_Pa = state.P_Pa;
  point.x = z;
  point.y = vapour->x;
  point.residual = state.flashed.residual;
  for (std::size_t i = 0; i < z.size(); ++i) point.K.push_back(z[i] > 0 ? point.y[i] / z[i] : 0);
  point.notices = mixture.range_notices(state.T_K, state.T_K);
  std::vector<std::string> liquids;
  for (const FlashedPhase& phase : state.flashed.phases) {
    if (!phase.vapour) liquids.push_back(fmt::format("{:.4g}", phase.x[0]));
  }
  point.notices.add(
      "two-boiling-liquids",
      fmt::format("at {:.2f} degC two liquids boil together (with {} of {}); the liquid shown, and "
                  "the K values, are of both together",
                  point.T_K - celsius_zero, joined(liquids, " and "), mixture.substances()[0].name));
  add_vapour(mixture, point);
  return point;
}

VlePoint boundary(Mixture& mixture, Sought sought, double held, const std::vector<double>& z, bool bubble) {
  const auto found = fluid_boundary(mixture, sought, held, z, bubble);
  const char* const what = bubble ? "bubble" : "dew";
  if (bubble && (!found || found->splits)) {
    if (auto point = bubble_of_two_liquids(mixture, sought, held, z)) return std::move(*point);
  }
  if (!found) {
    throw CalculationError(fmt::format(
        "{} finds no {} point of this composition at {}: it is one phase on both sides, as beyond the "
        "critical point of "
        "the mixture. A lower {} may have one; 'jampot {}' shows where the curves of a binary end",
        mixture.vapour_model(), what,
        sought == Sought::temperature ? fmt::format("{:.6g} kPa", held / 1000)
                                      : fmt::format("{:.2f} degC", held - celsius_zero),
        sought == Sought::temperature ? "pressure" : "temperature",
        sought == Sought::temperature ? "txy" : "pxy"));
  }
  VlePoint point = to_point(mixture, found->state, z, !bubble);
  if (found->splits) {
    point.notices.add("liquid-splits",
                      fmt::format("at {:.2f} degC {} splits a liquid of this composition into two; the {} "
                                  "point is that of the single, unstable liquid",
                                  point.T_K - celsius_zero, mixture.vapour_model(), what));
  }
  return point;
}

// The state of Raoult's law, to set out from.
IncipientState raoult(const Mixture& mixture, Sought sought, double held, const std::vector<double>& x) {
  IncipientState state(mixture.size());
  state.P_Pa = sought == Sought::temperature ? held : starting_P(mixture, held, x, false);
  state.T_K = sought == Sought::temperature ? starting_T(mixture, held, x) : held;
  state.w = x;
  return state;
}

// `before`: a neighbour to set out from, and what is found; nothing: from Raoult's law.
VlePoint bubble(Mixture& mixture, Sought sought, double held, std::span<const double> composition,
                std::optional<IncipientState>& before) {
  check_composition(mixture, composition);
  mixture.demand_volatilities();
  const std::vector<double> x = normalised(composition);
  if (mixture.one_equation()) return boundary(mixture, sought, held, x, true);
  double volatile_share = 0;
  for (std::size_t i = 0; i < x.size(); ++i)
    volatile_share += mixture.substances()[i].vapour_pressure ? x[i] : 0;
  if (!(volatile_share > 0))
    throw CalculationError("nothing in this liquid is volatile, so it does not boil");
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  if (!before || !solver.solve(sought, x, *before)) {
    before = raoult(mixture, sought, held, x);
    if (!solver.solve(sought, x, *before)) {
      if (sought == Sought::temperature) give_up("bubble temperature", "pressure", held, "Pa");
      give_up("bubble pressure", "temperature", held, "K");
    }
  }
  return to_point(mixture, *before, x, false);
}

VlePoint bubble(Mixture& mixture, Sought sought, double held, std::span<const double> composition) {
  std::optional<IncipientState> nothing;
  return bubble(mixture, sought, held, composition, nothing);
}

std::vector<VlePoint> bubbles(const Mixture& mixture, Sought sought, double held,
                              std::span<const std::vector<double>> compositions) {
  Mixture own = mixture;
  std::optional<IncipientState> before;
  std::vector<VlePoint> points;
  points.reserve(compositions.size());
  for (const std::vector<double>& x : compositions) points.push_back(bubble(own, sought, held, x, before));
  return points;
}

// Liquids to start a dew point from: the ideal one, and one rich in each component, because a liquid that
// splits has several solutions and each must be given its chance.
std::vector<std::vector<double>> liquid_starts(const Mixture& mixture, double T_K,
                                               std::span<const double> y) {
  const std::size_t n = y.size();
  std::vector<std::vector<double>> starts(1, std::vector<double>(n));
  for (std::size_t i = 0; i < n; ++i) {
    starts[0][i] = y[i] / mixture.substances()[i].vapour_pressure->P_Pa(T_K);
  }
  starts[0] = normalised(starts[0]);
  for (std::size_t rich = 0; rich < n; ++rich) {
    if (y[rich] == 0) continue;
    std::vector<double> start = starts[0];
    for (double& value : start) value *= 0.05;
    start[rich] += 0.95;
    starts.push_back(std::move(start));
  }
  return starts;
}

VlePoint dew(Mixture& mixture, Sought sought, double held, std::span<const double> composition) {
  check_composition(mixture, composition);
  if (mixture.one_equation()) return boundary(mixture, sought, held, normalised(composition), false);
  mixture.demand_volatilities();
  for (const Substance& substance : mixture.substances()) {
    if (substance.vapour_pressure) continue;
    throw CalculationError(
        fmt::format("{} is non-volatile, so no vapour holds it and no dew point can be computed with it; "
                    "leave it out",
                    substance.name));
  }
  const std::vector<double> y = normalised(composition);
  const bool T_sought = sought == Sought::temperature;
  IncipientSolver solver(mixture.vapour(), mixture.liquid());
  const double P0 = T_sought ? held : starting_P(mixture, held, y, true);
  const double T0 = T_sought ? starting_T(mixture, held, y) : held;

  std::optional<IncipientState> first;
  const auto try_from = [&](const std::vector<double>& start) {
    IncipientState state(mixture.size());
    state.T_K = T0;
    state.P_Pa = P0;
    state.w = start;
    if (!solver.solve(sought, y, state)) return;
    // The dew point is where the first liquid forms: the hottest on cooling, the lowest pressure on
    // compression.
    if (!first || (T_sought ? state.T_K > first->T_K : state.P_Pa < first->P_Pa)) first = state;
  };
  for (const std::vector<double>& start : liquid_starts(mixture, T0, y)) try_from(start);

  std::vector<double> ln_f(mixture.size());
  constexpr int most_corrections = 5;
  for (int correction = 0; first; ++correction) {
    PhaseValues values(mixture.size());
    mixture.vapour().evaluate(first->T_K, first->P_Pa, y, {}, values);
    for (std::size_t i = 0; i < y.size(); ++i) ln_f[i] = std::log(y[i]) + values.ln_phi[i];
    const auto earlier = find_more_stable(mixture.liquid(), first->T_K, first->P_Pa, ln_f);
    if (!earlier) break;
    if (correction == most_corrections) {
      throw CalculationError(
          "the dew point found is not the first one: another liquid would form before it, and its "
          "own dew point was not reached");
    }
    try_from(earlier->composition);
  }
  if (!first) {
    if (T_sought) give_up("dew temperature", "pressure", held, "Pa");
    give_up("dew pressure", "temperature", held, "K");
  }
  return to_point(mixture, *first, y, true);
}

}  // namespace

void check_composition(const Mixture& mixture, std::span<const double> x) {
  demand_size(x.size(), mixture.size(), "mole fractions");
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (!(x[i] >= 0 && x[i] <= 1)) {
      throw RequestError(
          fmt::format("the fraction of {} is {}; it must lie in 0..1", mixture.substances()[i].name, x[i]));
    }
  }
  demand_fractions(x, mixture.size());
}

VlePoint bubble_temperature(Mixture& mixture, double P_Pa, std::span<const double> x) {
  demand_pressure(P_Pa);
  return bubble(mixture, Sought::temperature, P_Pa, x);
}

VlePoint bubble_pressure(Mixture& mixture, double T_K, std::span<const double> x) {
  demand_temperature(T_K);
  return bubble(mixture, Sought::pressure, T_K, x);
}

std::vector<VlePoint> bubble_temperatures(const Mixture& mixture, double P_Pa,
                                          std::span<const std::vector<double>> compositions) {
  demand_pressure(P_Pa);
  return bubbles(mixture, Sought::temperature, P_Pa, compositions);
}

std::vector<VlePoint> bubble_pressures(const Mixture& mixture, double T_K,
                                       std::span<const std::vector<double>> compositions) {
  demand_temperature(T_K);
  return bubbles(mixture, Sought::pressure, T_K, compositions);
}

VlePoint dew_temperature(Mixture& mixture, double P_Pa, std::span<const double> y) {
  demand_pressure(P_Pa);
  return dew(mixture, Sought::temperature, P_Pa, y);
}

VlePoint dew_pressure(Mixture& mixture, double T_K, std::span<const double> y) {
  demand_temperature(T_K);
  return dew(mixture, Sought::pressure, T_K, y);
}

}  // namespace jampot
