#include "jampot/diagram/binary_vle.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "fluid_trace.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/equilibrium/fluid_boundary.hpp"
#include "jampot/equilibrium/tangent_search.hpp"

namespace jampot {
namespace {

// What is extrapolated from point to point; ln P because a pressure changes by factors.
double unknown(Sought sought, const BinaryPoint& point) {
  return sought == Sought::temperature ? point.T_K : std::log(point.P_Pa);
}

// The polynomial through the last (up to four) equally spaced points, one step further.
double extrapolated(Sought sought, const std::vector<BinaryPoint>& points) {
  const std::size_t n = points.size();
  const auto u = [&](std::size_t back) { return unknown(sought, points[n - back]); };
  if (n >= 4) return 4 * u(1) - 6 * u(2) + 4 * u(3) - u(4);
  if (n == 3) return 3 * u(1) - 3 * u(2) + u(3);
  if (n == 2) return 2 * u(1) - u(2);
  return u(1);
}

class Sweep {
 public:
  Sweep(Mixture& mixture, Sought sought, double held)
      : mixture_(mixture), sought_(sought), solver_(mixture.liquid(), mixture.vapour()), state_(2) {
    state_.w = {0, 1};
    const VapourPressure& second = *mixture.substances()[1].vapour_pressure;
    state_.T_K = sought == Sought::temperature ? std::min(second.T_K(held), 2000.0) : held;
    state_.P_Pa = sought == Sought::temperature ? held : second.P_Pa(held);
  }

  void add(double x1, BinaryCurve& curve) {
    if (!curve.points.empty()) {
      const double guess = extrapolated(sought_, curve.points);
      (sought_ == Sought::temperature ? state_.T_K : state_.P_Pa) =
          sought_ == Sought::temperature ? guess : std::exp(guess);
    }
    curve.points.push_back(at(x1));
  }

  BinaryPoint at(double x1) {
    const std::array<double, 2> x{x1, 1 - x1};
    if (!solver_.solve(sought_, x, state_)) {
      throw CalculationError(
          fmt::format("no bubble point was found at x({}) = {:.4f}; the pressure or temperature asked "
                      "for may lie beyond what the vapour pressures can describe",
                      mixture_.substances()[0].name, x1));
    }
    BinaryPoint point;
    point.T_K = state_.T_K;
    point.P_Pa = state_.P_Pa;
    point.residual = state_.residual;
    for (std::size_t i = 0; i < 2; ++i) {
      point.x[i] = x[i];
      point.y[i] = state_.w[i];
      point.K[i] = std::exp(state_.ln_K[i]);
      point.gamma[i] =
          point.K[i] * point.P_Pa / std::exp(mixture_.substances()[i].vapour_pressure->ln_P(point.T_K));
    }
    if (mixture_.vapour_model() != "ideal") {
      mixture_.activity().set_temperature(point.T_K);
      mixture_.activity().evaluate(x, point.gamma);
      for (double& gamma : point.gamma) gamma = std::exp(gamma);
    }
    return point;
  }

 private:
  Mixture& mixture_;
  Sought sought_;
  IncipientSolver solver_;
  IncipientState state_;
};

// Replaces the liquids inside the gap of a three-phase line by the two ends of the line.
void cut_gap(BinaryCurve& curve, const ThreePhase& line, Sweep& sweep) {
  std::erase_if(curve.points, [&](const BinaryPoint& point) {
    return point.x[0] > line.x1_alpha && point.x[0] < line.x1_beta;
  });
  for (const double x1 : {line.x1_alpha, line.x1_beta}) {
    const auto after = std::find_if(curve.points.begin(), curve.points.end(),
                                    [&](const BinaryPoint& point) { return point.x[0] > x1; });
    curve.points.insert(after, sweep.at(x1));
  }
}

// A gap leaves a liquid branch with few points where it is short and steep; it gets its share.
void fill_branches(BinaryCurve& curve, Sweep& sweep) {
  std::vector<double> ends{0};
  for (const ThreePhase& line : curve.three_phases) ends.insert(ends.end(), {line.x1_alpha, line.x1_beta});
  ends.push_back(1);
  constexpr std::size_t enough = 20;
  for (std::size_t k = 0; k + 1 < ends.size(); k += 2) {
    const double from = ends[k], to = ends[k + 1];
    const auto inside = [&](const BinaryPoint& point) { return point.x[0] > from && point.x[0] < to; };
    if (static_cast<std::size_t>(std::count_if(curve.points.begin(), curve.points.end(), inside)) >= enough)
      continue;
    std::erase_if(curve.points, inside);
    auto place = std::find_if(curve.points.begin(), curve.points.end(),
                              [&](const BinaryPoint& point) { return point.x[0] >= to; });
    for (std::size_t step = 1; step <= enough; ++step) {
      const double x1 = from + (to - from) * static_cast<double>(step) / static_cast<double>(enough + 1);
      place = curve.points.insert(place, sweep.at(x1)) + 1;
    }
  }
}

// Three-phase lines, wherever a boiling liquid of the curve comes near to being unstable.
void add_three_phases(Mixture& mixture, BinaryCurve& curve, double held, Sweep& sweep) {
  constexpr double suspicious = 0.1;  // the stability function of an ideal liquid is 1
  const BinaryPoint* least = nullptr;
  double lowest = suspicious;
  for (const BinaryPoint& point : curve.points) {
    mixture.activity().set_temperature(point.T_K);
    const double stability = stability_function(mixture.activity(), point.x[0]);
    if (stability < lowest) {
      lowest = stability;
      least = &point;
    }
  }
  curve.evaluations += static_cast<long>(curve.points.size());
  if (least == nullptr) return;
  curve.three_phases = curve.sought == Sought::temperature ? three_phases_at_P(mixture, held, least->T_K)
                                                           : three_phases_at_T(mixture, held);
  for (const ThreePhase& line : curve.three_phases) {
    cut_gap(curve, line, sweep);
    if (line.azeotropic()) {
      curve.azeotropes.push_back(
          {line.T_K, line.P_Pa, line.y1, true, Extremum::minimum_boiling, line.residual});
    }
  }
  if (!curve.three_phases.empty()) fill_branches(curve, sweep);
  std::erase_if(
      curve.azeotropes, [&](const Azeotrope& azeotrope) {  // azeotropes of liquids that do not exist
        return !azeotrope.heterogeneous &&
               std::any_of(curve.three_phases.begin(), curve.three_phases.end(), [&](const ThreePhase& line) {
                 return azeotrope.x1 > line.x1_alpha && azeotrope.x1 < line.x1_beta;
               });
      });
  if (curve.three_phases.empty() && lowest < 0) {
    curve.notices.add(
        "unstable-liquid",
        fmt::format("the {} model makes the boiling liquid unstable near x({}) = {:.3f}, but no "
                    "three-phase line was found; the curve there is not an equilibrium",
                    mixture.liquid_model(), mixture.substances()[0].name, least->x[0]));
  }
}

// Two liquids and a vapour where one equation of state describes all: the temperature (pressure) at which a
// feed between the liquids goes over from two liquids to liquid and vapour, found by a flash.
std::optional<ThreePhase> fluid_three_phases(Mixture& mixture, Sought sought, double held,
                                             const BinaryPoint& unstable) {
  constexpr double little = 1e-4;  // of vapour: on the three-phase line the vapour fraction jumps over it
  const FlashState state = sought == Sought::temperature
                               ? flash_at_P_and_vapour_fraction(mixture, held, little, unstable.x)
                               : flash_at_T_and_vapour_fraction(mixture, held, little, unstable.x);
  const FlashedPhase* vapour = nullptr;
  std::vector<const FlashedPhase*> liquids;
  for (const FlashedPhase& phase : state.flashed.phases) {
    if (phase.vapour) {
      vapour = &phase;
    } else {
      liquids.push_back(&phase);
    }
  }
  if (vapour == nullptr || liquids.size() != 2) return std::nullopt;
  if (liquids[0]->x[0] > liquids[1]->x[0]) std::swap(liquids[0], liquids[1]);
  return ThreePhase{state.T_K,        state.P_Pa,   liquids[0]->x[0],
                    liquids[1]->x[0], vapour->x[0], state.flashed.residual};
}

// The line with its two liquids as points of the curve; what lies between them is no equilibrium.
void add_three_phases(const ThreePhase& line, BinaryCurve& curve) {
  curve.three_phases.push_back(line);
  std::erase_if(curve.points, [&](const BinaryPoint& point) {
    return point.x[0] > line.x1_alpha && point.x[0] < line.x1_beta;
  });
  std::erase_if(curve.azeotropes, [&](const Azeotrope& azeotrope) {
    return azeotrope.x1 > line.x1_alpha && azeotrope.x1 < line.x1_beta;
  });
  for (const double x1 : {line.x1_alpha, line.x1_beta}) {
    BinaryPoint end;
    end.T_K = line.T_K;
    end.P_Pa = line.P_Pa;
    end.x = {x1, 1 - x1};
    end.y = {line.y1, 1 - line.y1};
    end.K = {end.y[0] / end.x[0], end.y[1] / end.x[1]};
    end.residual = line.residual;
    const auto after = std::find_if(curve.points.begin(), curve.points.end(),
                                    [&](const BinaryPoint& point) { return point.x[0] > x1; });
    curve.points.insert(after, end);
  }
  if (line.azeotropic())
    curve.azeotropes.push_back(
        {line.T_K, line.P_Pa, line.y1, true, Extremum::minimum_boiling, line.residual});
}

// Where the curve consists of two branches a liquid between them may be two, on the line of three phases: it
// is looked for below the coldest (above the highest) state of the branches.
std::optional<ThreePhase> line_between_branches(Mixture& mixture, double held, const BinaryCurve& curve) {
  const bool T_sought = curve.sought == Sought::temperature;
  double T_K = held, P_Pa = held;
  for (const BinaryPoint& point : curve.points) {
    if (T_sought) T_K = &point == curve.points.data() ? point.T_K : std::min(T_K, point.T_K);
    if (!T_sought) P_Pa = &point == curve.points.data() ? point.P_Pa : std::max(P_Pa, point.P_Pa);
  }
  for (const double x1 : {0.5, 0.2, 0.8, 0.05, 0.95}) {
    BinaryPoint feed;
    feed.x = {x1, 1 - x1};
    try {
      const FlashState cold = T_sought ? flash_at(mixture, {Kelvin(0.98 * T_K), Pascal(held)}, feed.x)
                                       : flash_at(mixture, {Kelvin(held), Pascal(1.2 * P_Pa)}, feed.x);
      const auto liquids = std::count_if(cold.flashed.phases.begin(), cold.flashed.phases.end(),
                                         [](const FlashedPhase& phase) { return !phase.vapour; });
      if (liquids < 2) continue;
      if (auto line = fluid_three_phases(mixture, curve.sought, held, feed)) return line;
    } catch (const CalculationError&) {
      continue;  // the model breaks down there
    }
  }
  return std::nullopt;
}

// Keeps of two branches what lies outside of the line of three phases that joins them.
void cut_branches(const ThreePhase& line, BinaryCurve& curve) {
  const std::size_t middle = curve.breaks.front();
  std::vector<BinaryPoint> kept;
  for (std::size_t k = 0; k < middle && curve.points[k].x[0] < line.x1_alpha; ++k)
    kept.push_back(curve.points[k]);
  std::size_t k = curve.points.size();
  while (k > middle && curve.points[k - 1].x[0] > line.x1_beta) --k;
  kept.insert(kept.end(), curve.points.begin() + static_cast<std::ptrdiff_t>(k), curve.points.end());
  curve.points = std::move(kept);
  curve.breaks.clear();
  curve.critical.clear();
}

// A branch that is too steep in x to be followed (water with a trace of a hydrocarbon) is filled from its
// vapour: dew points at even steps between the line of three phases and the pure end.
void fill_short_branches(Mixture& mixture, double held, const ThreePhase& line, BinaryCurve& curve) {
  constexpr std::ptrdiff_t enough = 6;
  constexpr int steps = 20;
  for (const double end : {0.0, 1.0}) {
    const auto there = std::count_if(curve.points.begin(), curve.points.end(), [&](const BinaryPoint& point) {
      return end == 0 ? point.x[0] < line.x1_alpha : point.x[0] > line.x1_beta;
    });
    if (there == 0 || there >= enough) continue;
    for (int k = 1; k < steps; ++k) {
      const double y1 = line.y1 + (end - line.y1) * k / steps;
      const std::array<double, 2> y{y1, 1 - y1};
      const auto found = fluid_boundary(mixture, curve.sought, held, y, false);
      if (!found) continue;
      BinaryPoint point;
      point.T_K = found->state.T_K;
      point.P_Pa = found->state.P_Pa;
      point.x = {found->state.w[0], found->state.w[1]};
      point.y = y;
      for (std::size_t i = 0; i < 2; ++i) point.K[i] = std::exp(-found->state.ln_K[i]);
      point.residual = found->state.residual;
      curve.points.push_back(point);
    }
  }
  std::stable_sort(curve.points.begin(), curve.points.end(),
                   [](const BinaryPoint& a, const BinaryPoint& b) { return a.x[0] < b.x[0]; });
}

// Where a further liquid lies below the tangent plane the boiling curve is no equilibrium: it is replaced by
// the line of three phases.
void part_fluid_curve(Mixture& mixture, double held, BinaryCurve& curve) {
  if (!curve.breaks.empty()) {
    const auto line = line_between_branches(mixture, held, curve);
    if (!line) return;
    cut_branches(*line, curve);
    fill_short_branches(mixture, held, *line, curve);
    add_three_phases(*line, curve);
    return;
  }
  Phase& fluid = *mixture.kinds().front();
  TangentSearch search({&fluid});
  double lowest = -1e-7, from = 1, to = 0;
  const BinaryPoint* worst = nullptr;
  constexpr std::size_t most = 60;
  const std::size_t every = std::max<std::size_t>(1, curve.points.size() / most);
  for (std::size_t k = 0; k < curve.points.size(); k += every) {
    const BinaryPoint& point = curve.points[k];
    if (!(point.x[0] > 0 && point.x[1] > 0)) continue;
    const double distance = search.lowest(mixture.liquid(), point.T_K, point.P_Pa, point.x).minimum.distance;
    if (distance >= -1e-7) continue;
    from = std::min(from, point.x[0]);
    to = std::max(to, point.x[0]);
    if (distance < lowest) worst = &point;
    lowest = std::min(lowest, distance);
  }
  if (worst == nullptr) return;
  std::optional<ThreePhase> line;
  try {
    line = fluid_three_phases(mixture, curve.sought, held, *worst);
  } catch (const CalculationError&) {
    line.reset();  // said below
  }
  if (!line || line->x1_alpha > from || line->x1_beta < to) {
    curve.notices.add(
        "unstable-liquid",
        fmt::format("{} makes the boiling liquid unstable between x({}) = {:.3f} and {:.3f}: two liquids "
                    "form there, and the curve drawn is not an equilibrium; 'jampot flash' gives the phases",
                    mixture.vapour_model(), mixture.substances()[0].name, from, to));
    return;
  }
  add_three_phases(*line, curve);
}

std::vector<VolatilitySample> volatilities(const BinaryCurve& curve) {
  std::vector<VolatilitySample> samples;
  samples.reserve(curve.points.size());
  for (const BinaryPoint& point : curve.points)
    samples.push_back({point.x[0], point.T_K, point.P_Pa, std::log(point.relative_volatility()), point.y[0]});
  return samples;
}

void add_ranges(const Mixture& mixture, BinaryCurve& curve) {
  const auto [coldest, hottest] =
      std::minmax_element(curve.points.begin(), curve.points.end(),
                          [](const BinaryPoint& a, const BinaryPoint& b) { return a.T_K < b.T_K; });
  curve.notices.add(mixture.range_notices(coldest->T_K, hottest->T_K));
}

// One equation of state: followed from a pure end, where it does not arrive from both.
BinaryCurve fluid_curve(Mixture& mixture, Sought sought, double held, const CurveOptions& options) {
  BinaryCurve curve;
  curve.sought = sought;
  const long before = mixture.evaluations();
  const double step = 2.0 / static_cast<double>(options.points - 1);
  const auto from_second = fluid_trace(mixture, sought, held, 1, step);
  if (from_second) curve.points = from_second->points;
  if (from_second && from_second->critical) curve.critical.push_back(*from_second->critical);
  if (!from_second || !from_second->complete) {
    if (auto from_first = fluid_trace(mixture, sought, held, 0, step)) {
      curve.breaks.push_back(curve.points.size());
      curve.points.insert(curve.points.end(), from_first->points.rbegin(), from_first->points.rend());
      if (from_first->critical) curve.critical.push_back(*from_first->critical);
    }
  }
  if (curve.points.empty()) {
    for (const FluidTrace& half : inner_fluid_trace(mixture, sought, held, step)) {
      if (curve.points.empty()) {
        curve.points.assign(half.points.rbegin(), half.points.rend());
      } else {
        curve.points.insert(curve.points.end(), half.points.begin() + 1, half.points.end());
      }
      if (half.critical) curve.critical.push_back(*half.critical);
    }
  }
  if (curve.points.empty()) {
    throw CalculationError(
        fmt::format("neither {} nor {} boils at {} by {}, nor does a mixture of them: that is beyond their "
                    "critical points",
                    mixture.substances()[0].name, mixture.substances()[1].name,
                    sought == Sought::temperature ? fmt::format("{:.6g} kPa", held / 1000)
                                                  : fmt::format("{:.2f} degC", held - celsius_zero),
                    mixture.vapour_model()));
  }
  curve.evaluations = mixture.evaluations() - before;
  std::vector<VolatilitySample> samples = volatilities(curve);
  std::erase_if(samples, [](const VolatilitySample& sample) { return sample.ln_alpha == 0; });
  curve.azeotropes = homogeneous_azeotropes(mixture, sought, samples);
  curve.search_evaluations = mixture.evaluations() - before - curve.evaluations;
  part_fluid_curve(mixture, held, curve);
  add_ranges(mixture, curve);
  return curve;
}

BinaryCurve curve_of(Mixture& mixture, Sought sought, double held, const CurveOptions& options) {
  if (mixture.size() != 2) {
    throw RequestError(fmt::format("this diagram is for two substances; {} were given", mixture.size()));
  }
  if (options.points < 3) throw RequestError("a curve needs at least 3 points");
  if (mixture.one_equation()) return fluid_curve(mixture, sought, held, options);
  mixture.demand_volatilities();
  for (const Substance& substance : mixture.substances()) {
    if (substance.vapour_pressure) continue;
    throw CalculationError(
        fmt::format("{} is non-volatile: this diagram runs to the pure substance, which does not boil. "
                    "'jampot bubble' gives boiling points of solutions",
                    substance.name));
  }
  BinaryCurve curve;
  curve.sought = sought;
  curve.points.reserve(options.points + 2);
  const long before = mixture.evaluations();
  Sweep sweep(mixture, sought, held);
  for (std::size_t k = 0; k < options.points; ++k) {
    sweep.add(static_cast<double>(k) / static_cast<double>(options.points - 1), curve);
  }
  curve.evaluations = mixture.evaluations() - before;

  curve.azeotropes = homogeneous_azeotropes(mixture, sought, volatilities(curve));
  curve.search_evaluations = mixture.evaluations() - before - curve.evaluations;
  add_three_phases(mixture, curve, held, sweep);
  add_ranges(mixture, curve);
  return curve;
}

}  // namespace

BinaryCurve txy(Mixture& mixture, double P_Pa, const CurveOptions& options) {
  demand_pressure(P_Pa);
  return curve_of(mixture, Sought::temperature, P_Pa, options);
}

BinaryCurve pxy(Mixture& mixture, double T_K, const CurveOptions& options) {
  demand_temperature(T_K);
  return curve_of(mixture, Sought::pressure, T_K, options);
}

}  // namespace jampot
