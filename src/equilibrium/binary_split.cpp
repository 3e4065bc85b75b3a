#include "jampot/equilibrium/binary_split.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "../basis/bracket.hpp"
#include "jampot/basis/demand.hpp"

namespace jampot {
namespace {

struct GridPoint {
  double x;          ///< of component 1
  double g;          ///< Gibbs energy of mixing / (RT)
  double curvature;  ///< stability function
};

struct Activities {
  double ln_a1, ln_a2;  ///< ln(x_i gamma_i)
  double d1, d2;        ///< their derivatives with x1
};

// Both fractions are given: beside one, what is left would not keep the digits of a trace.
Activities activities(ActivityModel& model, const std::array<double, 2>& x) {
  std::array<double, 2> ln_gamma{};
  std::array<double, 4> dn{};
  model.evaluate(x, ln_gamma, {}, dn);
  return {std::log(x[0]) + ln_gamma[0], std::log(x[1]) + ln_gamma[1], 1 / x[0] + dn[0] - dn[1],
          -1 / x[1] + dn[2] - dn[3]};
}

GridPoint grid_point(ActivityModel& model, double x1) {
  const Activities a = activities(model, {x1, 1 - x1});
  return {x1, x1 * a.ln_a1 + (1 - x1) * a.ln_a2, x1 * (1 - x1) * (a.d1 - a.d2)};
}

double logistic(double t) {
  return 1 / (1 + std::exp(-t));
}

std::vector<GridPoint> make_grid(ActivityModel& model) {
  std::vector<double> xs;
  for (double t = -20; t <= -4; t += 0.5) xs.push_back(logistic(t));
  for (double t = 4; t <= 20; t += 0.5) xs.push_back(logistic(t));
  for (int k = 2; k <= 98; ++k) xs.push_back(0.01 * k);
  std::sort(xs.begin(), xs.end());
  std::vector<GridPoint> grid;
  for (const double x : xs) grid.push_back(grid_point(model, x));
  return grid;
}

// Where the curvature has a minimum near zero between grid points, points are added around that minimum.
void refine(ActivityModel& model, std::vector<GridPoint>& grid) {
  constexpr double suspicious = 0.2;
  std::vector<double> added;
  for (std::size_t k = 1; k + 1 < grid.size(); ++k) {
    const bool lowest =
        grid[k].curvature <= grid[k - 1].curvature && grid[k].curvature <= grid[k + 1].curvature;
    if (!lowest || grid[k].curvature > suspicious) continue;
    const auto curvature = [&](double x) { return stability_function(model, x); };
    const auto [x, value] = minimum_between(curvature, grid[k - 1].x, grid[k + 1].x, 30);
    if (value > 0) continue;
    const double width = grid[k + 1].x - grid[k - 1].x;
    for (double step = 1e-6; step < 1; step *= 2) {
      added.push_back(x - step * width);
      added.push_back(x + step * width);
    }
    added.push_back(x);
  }
  for (const double x : added) {
    if (x > 0 && x < 1) grid.push_back(grid_point(model, x));
  }
  std::sort(grid.begin(), grid.end(), [](const GridPoint& a, const GridPoint& b) { return a.x < b.x; });
}

std::vector<std::pair<double, double>> hull_gaps(const std::vector<GridPoint>& grid) {
  std::vector<std::size_t> hull;
  const auto above = [&](std::size_t a, std::size_t b,
                         std::size_t c) {  // b on or above the chord from a to c
    return (grid[b].g - grid[a].g) * (grid[c].x - grid[a].x) >=
           (grid[c].g - grid[a].g) * (grid[b].x - grid[a].x);
  };
  for (std::size_t k = 0; k < grid.size(); ++k) {
    while (hull.size() >= 2 && above(hull[hull.size() - 2], hull.back(), k)) hull.pop_back();
    hull.push_back(k);
  }
  std::vector<std::pair<double, double>> gaps;
  for (std::size_t h = 0; h + 1 < hull.size(); ++h) {
    // Rounding can lift a point off a straight stretch of the hull; a real gap has negative curvature inside.
    const auto from = grid.begin() + static_cast<std::ptrdiff_t>(hull[h]);
    const auto to = grid.begin() + static_cast<std::ptrdiff_t>(hull[h + 1]);
    if (std::any_of(from, to + 1, [](const GridPoint& point) { return point.curvature < 0; })) {
      gaps.emplace_back(from->x, to->x);
    }
  }
  return gaps;
}

// Newton on ln(x_i gamma_i) equal in both liquids, in the logits of the two compositions.
bool polish(ActivityModel& model, BinarySplit& split) {
  const auto logit = [](double x) { return std::log(x) - std::log1p(-x); };
  double alpha = logit(split.x1_alpha), beta = logit(split.x1_beta);
  double best = HUGE_VAL;
  constexpr int most_iterations = 60;
  for (int iteration = 0; iteration < most_iterations; ++iteration) {
    const std::array<double, 2> xa{logistic(alpha), logistic(-alpha)}, xb{logistic(beta), logistic(-beta)};
    const Activities a = activities(model, xa), b = activities(model, xb);
    const double f1 = a.ln_a1 - b.ln_a1, f2 = a.ln_a2 - b.ln_a2;
    split = {xa[0], xb[0], std::max(std::abs(f1), std::abs(f2))};
    if (split.residual < 1e-14 || (split.residual < 1e-11 && split.residual >= best)) break;
    best = std::min(best, split.residual);
    const double wa = xa[0] * xa[1], wb = xb[0] * xb[1];
    const double j11 = a.d1 * wa, j12 = -b.d1 * wb, j21 = a.d2 * wa, j22 = -b.d2 * wb;
    const double determinant = j11 * j22 - j12 * j21;
    if (determinant == 0) return false;
    const double sa = (f1 * j22 - f2 * j12) / determinant, sb = (j11 * f2 - j21 * f1) / determinant;
    const double factor = std::min(1.0, 1.0 / std::max({1e-300, std::abs(sa), std::abs(sb)}));
    alpha -= factor * sa;
    beta -= factor * sb;
  }
  return split.residual < 1e-10 && split.x1_beta - split.x1_alpha > 1e-7;
}

}  // namespace

double stability_function(ActivityModel& model, double x1) {
  demand_size(model.size(), 2, "substances of the model");
  const std::array<double, 2> x{x1, 1 - x1};
  std::array<double, 2> ln_gamma{};
  std::array<double, 4> dn{};
  model.evaluate(x, ln_gamma, {}, dn);
  return 1 + x[0] * x[1] * (dn[0] - dn[1] - dn[2] + dn[3]);
}

std::vector<BinarySplit> binary_splits(ActivityModel& model, double T_K) {
  demand_size(model.size(), 2, "substances of the model");
  demand_temperature(T_K);
  model.set_temperature(T_K);
  std::vector<GridPoint> grid = make_grid(model);
  refine(model, grid);
  std::vector<BinarySplit> splits;
  for (const auto& [from, to] : hull_gaps(grid)) {
    BinarySplit split{from, to, 0};
    if (polish(model, split)) splits.push_back(split);
  }
  return splits;
}

}  // namespace jampot
