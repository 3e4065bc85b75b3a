#include "density_roots.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include "../basis/bracket.hpp"

namespace jampot {
namespace {

constexpr double settled = 1e-14;

// A root between two densities, if it is mechanically stable.
std::optional<double> between(const PressureOfDensity& pressure, double P_Pa, double low, double high) {
  const auto rest = [&](double density) { return pressure(density, nullptr) - P_Pa; };
  const auto bracket = bracketed_root(rest, low, high, rest(low), rest(high), 53);
  if (!bracket) return std::nullopt;
  const double density = (bracket->first + bracket->second) / 2;
  double slope = 0;
  pressure(density, &slope);
  return slope > 0 ? std::optional(density) : std::nullopt;
}

// From one side; nothing where this branch ends before the pressure is reached.
std::optional<double> from(const PressureOfDensity& pressure, double P_Pa, double density, double densest,
                           bool down) {
  double before = density;
  constexpr int most_steps = 100;
  for (int k = 0; k < most_steps; ++k) {
    double slope = 0;
    const double rest = pressure(density, &slope) - P_Pa;
    if (rest == 0) return density;
    if (k > 0 && (rest < 0) == down) {
      // Over the root: the curve bends the other way here, or this is rounding.
      if (std::abs(density - before) < 1e-9 * density)
        return slope > 0 ? std::optional(density - rest / slope) : std::nullopt;
      return between(pressure, P_Pa, std::min(before, density), std::max(before, density));
    }
    if (!(slope > 0)) return std::nullopt;
    const double step = rest / slope;
    before = density;
    density = std::min(density - step, densest);
    if (!(density > 0)) return std::nullopt;
    if (std::abs(step) < settled * density) return density;
  }
  return density;
}

}  // namespace

std::optional<double> density_from_dense(const PressureOfDensity& pressure, double P_Pa, double densest) {
  if (!(pressure(densest, nullptr) > P_Pa)) return std::nullopt;
  return from(pressure, P_Pa, densest, densest, true);
}

std::optional<double> density_from_thin(const PressureOfDensity& pressure, double P_Pa, double RT,
                                        double densest) {
  const double thin = std::min(P_Pa / RT, densest);
  // At high pressure the ideal gas would be denser than the vapour: the search begins further down.
  for (double density = thin; density > 1e-6 * thin; density /= 8) {
    if (pressure(density, nullptr) > P_Pa) continue;
    return from(pressure, P_Pa, density, densest, false);
  }
  return std::nullopt;
}

std::vector<double> density_roots(const PressureOfDensity& pressure, double P_Pa, double RT, double densest) {
  std::vector<double> found;
  if (const auto liquid = density_from_dense(pressure, P_Pa, densest)) found.push_back(*liquid);
  const std::optional<double> vapour = density_from_thin(pressure, P_Pa, RT, densest);
  const bool same = vapour && !found.empty() && std::abs(*vapour / found.front() - 1) < 1e-6;
  if (vapour && !same) found.push_back(*vapour);
  if (!found.empty()) return found;
  constexpr int intervals = 200;
  double low = 0;
  for (int k = 1; k <= intervals; ++k) {
    const double high = densest * k / intervals;
    const bool rises = (low == 0 || pressure(low, nullptr) <= P_Pa) && pressure(high, nullptr) > P_Pa;
    const auto root = rises ? between(pressure, P_Pa, std::max(low, 1e-9 * densest), high) : std::nullopt;
    if (root) found.insert(found.begin(), *root);
    low = high;
  }
  if (found.size() > 2) found = {found.front(), found.back()};
  return found;
}

}  // namespace jampot
