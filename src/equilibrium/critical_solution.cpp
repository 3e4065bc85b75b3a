#include "jampot/equilibrium/critical_solution.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/bracket.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
namespace jampot {

namespace {

// In ln(x1/x2), so that dilute ends are as well seen as the middle.
LeastStable least_stable_between(ActivityModel& model, double low, double high) {
  const auto at = [&](double t) { return stability_function(model, 1 / (1 + std::exp(-t))); };
  constexpr int bits = 50;
  const auto [t, value] = minimum_between(at, low, high, bits);
  return {1 / (1 + std::exp(-t)), value};
}

}  // namespace

LeastStable least_stable(ActivityModel& model, double T_K) {
  demand_size(model.size(), 2, "substances of the model");
  model.set_temperature(T_K);
  constexpr double end = 14, step = 0.25;
  double best_t = 0, best = HUGE_VAL;
  for (double t = -end; t <= end; t += step) {
    const double value = stability_function(model, 1 / (1 + std::exp(-t)));
    if (value < best) {
      best = value;
      best_t = t;
    }
  }
  return least_stable_between(model, best_t - step, best_t + step);
}

LeastStable least_stable_near(ActivityModel& model, double T_K, double x1) {
  demand_size(model.size(), 2, "substances of the model");
  model.set_temperature(T_K);
  const double t = std::log(x1 / (1 - x1));
  constexpr double near = 0.02;
  return least_stable_between(model, t - near, t + near);
}

std::vector<CriticalSolution> critical_solutions(ActivityModel& model, double low_K, double high_K) {
  demand_size(model.size(), 2, "substances of the model");
  demand_temperature(low_K);
  demand_temperature(high_K);
  if (!(high_K > low_K)) throw RequestError("a range of temperatures goes from the lower to the higher");
  const auto stability = [&](double T_K) { return least_stable(model, T_K).value; };
  const int steps = std::max(40, static_cast<int>(std::ceil((high_K - low_K) / 5)));
  std::vector<double> T, value;
  for (int k = 0; k <= steps; ++k) {
    T.push_back(low_K + (high_K - low_K) * k / steps);
    value.push_back(stability(T.back()));
  }
  // A minimum above zero between neighbours, or a maximum below it, may hide a pair of critical points.
  for (std::size_t k = 1; k + 1 < T.size(); ++k) {
    const bool dips = value[k] > 0 && value[k] < value[k - 1] && value[k] < value[k + 1];
    const bool peaks = value[k] < 0 && value[k] > value[k - 1] && value[k] > value[k + 1];
    if (!dips && !peaks) continue;
    const auto [at, found] =
        minimum_between([&](double t) { return (dips ? 1 : -1) * stability(t); }, T[k - 1], T[k + 1], 30);
    const double there = dips ? found : -found;
    if ((there < 0) == (value[k] < 0)) continue;
    const auto place = std::upper_bound(T.begin(), T.end(), at) - T.begin();
    T.insert(T.begin() + place, at);
    value.insert(value.begin() + place, there);
  }
  std::vector<CriticalSolution> found;
  for (std::size_t k = 1; k < T.size(); ++k) {
    if ((value[k - 1] < 0) == (value[k] < 0)) continue;
    const auto bracket = bracketed_root(stability, T[k - 1], T[k], value[k - 1], value[k], 44);
    if (!bracket) continue;
    const auto [a, b] = *bracket;
    CriticalSolution critical;
    critical.T_K = (a + b) / 2;
    const LeastStable lowest = least_stable(model, critical.T_K);
    critical.x1 = lowest.x1;
    critical.curvature = lowest.value;
    critical.upper = value[k - 1] < 0;
    found.push_back(critical);
  }
  return found;
}

}  // namespace jampot
