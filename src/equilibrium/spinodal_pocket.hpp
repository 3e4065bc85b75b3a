#pragma once
// Pockets of the spinodal, those between the samples too.
#include <optional>
#include <vector>

#include "composition_samples.hpp"

namespace jampot {

/// Where the curvature of the Gibbs energy is smallest near a sample that is the lowest among its neighbours,
/// if it is negative there.
/// @param of_sample the curvature of a sample, by its number
/// @param at the curvature of any composition
template <class OfSample, class At>
std::optional<std::vector<double>> spinodal_pocket(const CompositionSamples& samples, std::size_t sample,
                                                   const OfSample& of_sample, const At& curvature_at) {
  const std::size_t n = samples.components();
  constexpr double suspicious = 0.35;  // a pocket between two samples does not begin higher
  double lowest = of_sample(sample);
  if (lowest > suspicious) return std::nullopt;
  for (const std::size_t other : samples.around(sample)) {
    if (of_sample(other) < lowest) return std::nullopt;
  }
  // Between the samples by steps along the directions of the lattice.
  std::vector<double> at(samples.x(sample).begin(), samples.x(sample).end()), trial(n);
  for (double step = samples.spacing() / 2; step > 1e-4 && lowest >= 0 && n <= 3;) {
    bool moved = false;
    for (std::size_t i = 0; i < n && !moved; ++i) {
      for (std::size_t j = 0; j < n && !moved; ++j) {
        if (i == j || at[j] < step) continue;
        trial = at;
        trial[i] += step;
        trial[j] -= step;
        const double value = curvature_at(trial);
        if (!(value < lowest)) continue;
        lowest = value;
        at = trial;
        moved = true;
      }
    }
    if (!moved) step /= 2;
  }
  if (lowest < 0) return at;
  return std::nullopt;
}

}  // namespace jampot
