#include "jampot/diagram/solubility.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

SolubilityCurve solubility(ActivityModel& model, const std::vector<double>& T_K, double beyond_K) {
  if (model.size() != 2) throw RequestError("mutual solubilities are those of two substances");
  if (T_K.empty()) throw RequestError("no temperature is given");
  SolubilityCurve curve;
  for (const double T : T_K) curve.points.push_back({T, binary_splits(model, T)});
  const auto [coldest, hottest] = std::minmax_element(T_K.begin(), T_K.end());
  const double low = std::max(1.0, *coldest - beyond_K), high = *hottest + beyond_K;
  if (high > low) curve.critical = critical_solutions(model, low, high);

  std::vector<double> drawn = T_K;
  for (const CriticalSolution& critical : curve.critical) {
    // The two ends of the gap meet like a parabola: steps that shrink towards the top make it round.
    for (double step = 1e-3; step < 8; step *= 1.8) {
      const double T = critical.T_K + (critical.upper ? -step : step);
      if (T >= *coldest && T <= *hottest) drawn.push_back(T);
    }
  }
  if (*hottest > *coldest) {
    constexpr int even = 60;
    for (int k = 0; k <= even; ++k) drawn.push_back(*coldest + (*hottest - *coldest) * k / even);
  }
  std::sort(drawn.begin(), drawn.end());
  drawn.erase(std::unique(drawn.begin(), drawn.end()), drawn.end());
  for (const double T : drawn) curve.drawn.push_back({T, binary_splits(model, T)});
  return curve;
}

std::string SolubilityCurve::description() const {
  const auto parts = [](const SolubilityPoint& point) { return !point.splits.empty(); };
  const auto in_words = [](const CriticalSolution& point) {
    return fmt::format("{:.2f} degC", point.T_K - celsius_zero);
  };
  if (critical.empty()) {
    if (std::all_of(drawn.begin(), drawn.end(), parts)) return "two liquids throughout this range";
    return "one liquid throughout this range";
  }
  std::string text;
  for (std::size_t k = 0; k < critical.size(); ++k) {
    if (!text.empty()) text += "; ";
    const bool loop = !critical[k].upper && k + 1 < critical.size() && critical[k + 1].upper;
    if (loop) {
      text += fmt::format("two liquids between {} and {}, a closed loop", in_words(critical[k]),
                          in_words(critical[k + 1]));
      ++k;
    } else {
      text += fmt::format("two liquids {} {} ({} critical solution temperature)",
                          critical[k].upper ? "below" : "above", in_words(critical[k]),
                          critical[k].upper ? "upper" : "lower");
    }
  }
  return text;
}

}  // namespace jampot
