// Where the likelihood leaves two parameters together: the edge of their joint 95 % region.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "../basis/side_by_side.hpp"
#include "fit_results.hpp"

namespace jampot {
namespace {

constexpr double both = 5.991464547107979;  // chi-square of two at 95 %
constexpr std::size_t directions = 72;

// From the fit in one direction: how far until the objective has risen by the allowed amount, all other
// parameters at their best. A step is one joint standard error.
class Ray {
 public:
  Ray(FitProblem& problem, const FitTask& task, const Descent& best, double da, double db, double rise)
      : problem_(problem), task_(task), best_(best), da_(da), db_(db), rise_(rise) {}

  // Nothing where the edge lies beyond a bound, or far away.
  std::optional<double> length() {
    const double wanted = std::sqrt(rise_), most = std::min(20.0, to_bound());
    double inside = 0, inside_root = 0, outside = HUGE_VAL, outside_root = 0;
    double t = std::min(std::sqrt(both), most);
    constexpr int most_tries = 25;
    for (int k = 0; k < most_tries; ++k) {
      const double root = root_of_rise(t);
      if (std::abs(root - wanted) < 2e-3 * wanted) return t;
      if (root < wanted) {
        if (t >= most) return std::nullopt;
        inside = t;
        inside_root = root;
      } else {
        outside = t;
        outside_root = root;
      }
      if (!std::isfinite(outside)) {
        t = std::min(most, t * std::clamp(wanted / std::max(inside_root, 1e-12), 1.1, 2.0));
        continue;
      }
      if (outside - inside < 1e-3 * outside) return (inside + outside) / 2;
      const bool straight = std::isfinite(outside_root) && k % 3 != 2;
      t = straight ? inside + (wanted - inside_root) / (outside_root - inside_root) * (outside - inside)
                   : (inside + outside) / 2;
    }
    return (inside + std::min(outside, most)) / 2;
  }

 private:
  double to_bound() const {
    double most = HUGE_VAL;
    for (std::size_t p = 0; p < 2; ++p) {
      const double d = p == 0 ? da_ : db_;
      const double bound = d > 0 ? task_.plan.highest[p] : task_.plan.lowest[p];
      if (d != 0) most = std::min(most, (bound - best_.scaled[p]) / d);
    }
    return most;
  }

  double root_of_rise(double t) {
    Descent start = state_ ? *state_ : best_;
    start.scaled[0] = best_.scaled[0] + t * da_;
    start.scaled[1] = best_.scaled[1] + t * db_;
    auto found = problem_.descend_held(start, {0, 1});
    if (!found) return HUGE_VAL;
    const double root = std::sqrt(std::max(0.0, found->objective - best_.objective));
    if (root < std::sqrt(rise_)) state_ = std::move(found);
    return root;
  }

  FitProblem& problem_;
  const FitTask& task_;
  const Descent& best_;
  double da_, db_, rise_;
  std::optional<Descent> state_;
};

}  // namespace

namespace {

struct Edge {
  double angle = 0;
  std::optional<double> length{};
};

// Between neighbours that lie far apart for the size of the region, one more.
std::vector<Edge> gaps(const std::vector<Edge>& edges) {
  double size = 0;
  for (const Edge& edge : edges) size = std::max(size, edge.length.value_or(0));
  std::vector<Edge> list;
  for (std::size_t k = 0; k < edges.size(); ++k) {
    const Edge &a = edges[k], &b = edges[(k + 1) % edges.size()];
    const double turn = b.angle - a.angle + (b.angle < a.angle ? 2 * std::numbers::pi : 0);
    constexpr double least_turn = 1e-4, close = 0.08;
    if (!a.length && !b.length) continue;
    const double apart = a.length && b.length
                             ? std::hypot(*a.length - *b.length * std::cos(turn), *b.length * std::sin(turn))
                             : size;
    if (apart > close * size && turn > least_turn) list.push_back({a.angle + turn / 2});
  }
  return list;
}

}  // namespace

void fill_region(Fit& result, const FitTask& task, const Descent& best) {
  if (!result.options.region || best.scaled.size() < 2) return;
  const double scale = scale_of(result);
  const auto& free = task.plan.free;
  const double sa = std::sqrt(result.covariance(0, 0) / scale) / std::abs(free[0].scale),
               sb = std::sqrt(result.covariance(1, 1) / scale) / std::abs(free[1].scale);
  const double r = result.correlation(0, 1) * (free[0].scale * free[1].scale < 0 ? -1 : 1);
  // Along the axes of the ellipse to first order.
  const auto direction = [&](double angle) {
    const double along = std::sqrt((1 + r) / 2) * std::cos(angle),
                 across = std::sqrt((1 - r) / 2) * std::sin(angle);
    return std::array{sa * (along + across), sb * (along - across)};
  };
  std::vector<Edge> edges, next;
  for (std::size_t k = 0; k < directions; ++k)
    next.push_back({2 * std::numbers::pi * static_cast<double>(k) / static_cast<double>(directions)});
  constexpr std::size_t most = 240;
  while (!next.empty() && edges.size() + next.size() <= most) {
    const std::size_t workers = workers_for(next.size());
    const auto share = [&](std::size_t worker) {
      const auto problem = task.problem();
      if (problem->needs_polish()) problem->polish(best);
      for (std::size_t k = worker; k < next.size(); k += workers) {
        const auto [da, db] = direction(next[k].angle);
        next[k].length = Ray(*problem, task, best, da, db, both * scale).length();
      }
    };
    side_by_side(workers, share);
    edges.insert(edges.end(), next.begin(), next.end());
    std::sort(edges.begin(), edges.end(), [](const Edge& a, const Edge& b) { return a.angle < b.angle; });
    next = gaps(edges);
  }
  for (const Edge& edge : edges) {
    RegionPoint point{{}, !edge.length};
    const auto [da, db] = direction(edge.angle);
    if (edge.length)
      point.values = {(best.scaled[0] + *edge.length * da) * free[0].scale,
                      (best.scaled[1] + *edge.length * db) * free[1].scale};
    result.region.push_back(point);
  }
}

}  // namespace jampot
