#include "jampot/equilibrium/liquid_split.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"

namespace jampot {
namespace {

constexpr double below = -1e-10;      // a distance that counts as below the plane
constexpr double same_liquid = 1e-6;  // two liquids that differ by less are one

double difference(std::span<const double> a, std::span<const double> b) {
  double most = 0;
  for (std::size_t i = 0; i < a.size(); ++i) most = std::max(most, std::abs(a[i] - b[i]));
  return most;
}

}  // namespace

LiquidSplitter::LiquidSplitter(ActivityModel& model, double T_K)
    : surface_(model, (demand_temperature(T_K), T_K)), liquid_(model), ln_gamma_(model.size()) {}

std::vector<double> LiquidSplitter::ln_activities(std::span<const double> x) {
  demand_size(x.size(), ln_gamma_.size(), "mole fractions");
  surface_.model().set_temperature(surface_.T_K());
  surface_.model().evaluate(x, ln_gamma_);
  std::vector<double> ln_a(x.size());
  for (std::size_t i = 0; i < x.size(); ++i) ln_a[i] = std::log(x[i]) + ln_gamma_[i];
  return ln_a;
}

// Descends from a composition; whether it ended below the plane.
bool LiquidSplitter::descend(std::span<const double> ln_a, std::span<const double> from,
                             TangentMinimum& lowest) {
  constexpr double trace = 1e-7;  // an absent component needs a first amount to grow from
  std::vector<double> start(from.size());
  double sum = 0;
  for (std::size_t i = 0; i < from.size(); ++i) {
    start[i] = std::isfinite(ln_a[i]) ? std::max(from[i], trace) : 0;
    sum += start[i];
  }
  for (double& value : start) value /= sum;
  TangentMinimum found = plane_.descend(liquid_, surface_.T_K(), standard_atmosphere, ln_a, start);
  if (found.distance < lowest.distance) lowest = std::move(found);
  return lowest.distance < below;
}

std::optional<std::vector<double>> LiquidSplitter::more_stable(std::span<const double> x, double& distance) {
  demand_size(x.size(), ln_gamma_.size(), "mole fractions");
  const std::vector<double> ln_a = ln_activities(x);
  const std::size_t n = x.size();
  TangentMinimum lowest{{}, HUGE_VAL};
  const auto result = [&]() -> std::optional<std::vector<double>> {
    distance = lowest.distance;
    return lowest.distance < below ? std::optional(lowest.composition) : std::nullopt;
  };
  const std::size_t most = n <= 3 ? 6 : 2 * n;
  for (const std::size_t sample : surface_.lowest(ln_a, most)) {
    bool possible = true;  // a sample with something that is not there tells nothing
    for (std::size_t i = 0; i < n; ++i)
      possible = possible && (std::isfinite(ln_a[i]) || surface_.x(sample)[i] == 0);
    if (possible && descend(ln_a, surface_.x(sample), lowest)) return result();
  }
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> pure(n, 0.01 / static_cast<double>(n - 1));
    pure[i] = 0.99;
    if (descend(ln_a, pure, lowest)) return result();
  }
  // Both sides of what cannot exist: of its own first.
  const Curvature own = smallest_curvature(surface_.model(), x, true);
  const auto both_sides = [&](std::span<const double> at, std::span<const double> direction, double length) {
    for (const double sign : {1.0, -1.0}) {
      std::vector<double> side(n);
      for (std::size_t i = 0; i < n; ++i) side[i] = std::max(0.0, at[i] + sign * length * direction[i]);
      if (descend(ln_a, side, lowest)) return true;
    }
    return false;
  };
  if (own.value < 0 && (both_sides(x, own.direction, 0.01) || both_sides(x, own.direction, 0.1)))
    return result();
  // Only what lies near the plane can hide a liquid below it.
  constexpr double near = 0.05;
  for (const std::vector<double>& pocket : surface_.pockets_near(ln_a, near)) {
    const Curvature curvature = smallest_curvature(surface_.model(), pocket, true);
    if (both_sides(pocket, curvature.direction, 0.02)) return result();
  }
  return result();
}

LiquidSplit LiquidSplitter::split(std::span<const double> z) {
  demand_fractions(z, ln_gamma_.size());
  LiquidSplit result;
  result.x = {{z.begin(), z.end()}};
  result.amount = {1};
  std::vector<PhaseAmounts> phases{{&liquid_, {z.begin(), z.end()}}};
  constexpr int most_rounds = 12;
  for (int round = 0; round < most_rounds; ++round) {
    const auto fresh = more_stable(result.x.front(), result.distance);
    if (!fresh) return result;
    solver_.begin_phase(phases, liquid_, *fresh, surface_.T_K(), standard_atmosphere);
    result.residual = solver_.settle(phases, surface_.T_K(), standard_atmosphere).residual;
    result.x.clear();
    result.amount.clear();
    for (const PhaseAmounts& phase : phases) {
      result.x.push_back(phase.fractions());
      result.amount.push_back(phase.total());
    }
  }
  return result;
}

std::optional<LiquidSplit> LiquidSplitter::two_near(std::span<const double> z, std::span<const double> alpha,
                                                    std::span<const double> beta) {
  for (const auto& fractions : {z, alpha, beta})
    demand_size(fractions.size(), ln_gamma_.size(), "mole fractions");
  // The share of beta that puts the feed nearest to the line between the two.
  const std::size_t n = z.size();
  double along = 0, square = 0;
  for (std::size_t i = 0; i < n; ++i) {
    along += (z[i] - alpha[i]) * (beta[i] - alpha[i]);
    square += (beta[i] - alpha[i]) * (beta[i] - alpha[i]);
  }
  const double share = std::clamp(along / square, 1e-6, 1 - 1e-6);
  // Each component of the feed shared out as the two liquids hold it.
  std::vector<PhaseAmounts> phases{{&liquid_, std::vector<double>(n)}, {&liquid_, std::vector<double>(n)}};
  for (std::size_t i = 0; i < n; ++i) {
    const double in_beta = share * beta[i], in_alpha = (1 - share) * alpha[i];
    const double part = in_alpha + in_beta > 0 ? in_beta / (in_alpha + in_beta) : 0;
    phases[1].n[i] = z[i] * part;
    phases[0].n[i] = z[i] - phases[1].n[i];
  }
  const Parting parting = solver_.solve(phases, surface_.T_K(), standard_atmosphere);
  if (!parting.converged || parting.vanished >= 0) return std::nullopt;
  LiquidSplit split;
  for (const PhaseAmounts& phase : phases) {
    split.x.push_back(phase.fractions());
    split.amount.push_back(phase.total());
  }
  if (difference(split.x[0], split.x[1]) < same_liquid) return std::nullopt;
  split.residual = parting.residual;
  return split;
}

}  // namespace jampot
