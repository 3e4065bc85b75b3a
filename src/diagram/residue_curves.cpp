#include "residue_curves.hpp"

#include <algorithm>

#include "../basis/dense.hpp"

namespace jampot {
namespace {

constexpr double tolerance = 5e-6, longest_step = 0.05;

Composition kept_inside(Composition x) {
  double sum = 0;
  for (double& value : x) sum += value = std::max(0.0, value);
  for (double& value : x) value /= sum;
  return x;
}

}  // namespace

ResidueCurves::ResidueCurves(Mixture& mixture, double P_Pa, const std::vector<SingularPoint>& singular,
                             const BoilingRegions& regions, bool exact)
    : stepper_(boost::numeric::odeint::make_controlled(tolerance, tolerance, Stepper())),
      singular_(singular),
      boiling_(mixture, P_Pa, regions),
      exact_(exact) {
  for (const SingularPoint& point : singular_) {
    constexpr double furthest = 0.004, share = 0.25;
    double reach = furthest;
    for (const SingularPoint& other : singular_) {
      if (&other != &point) reach = std::min(reach, share * distance(array_of(point.x), array_of(other.x)));
    }
    reach_.push_back(reach);
  }
}

void ResidueCurves::boil(const Composition& x) {
  if (exact_)
    boiling_.at(x);
  else
    boiling_.at_on_surface(x);
}

// Of length 1: the curve is followed in its own length, since in time it never arrives.
void ResidueCurves::slope(const Composition& x, Composition& out, int sense) {
  const Composition inside = kept_inside(x);
  boil(inside);
  out = difference(inside, boiling_.y());
  const double length = sense * norm(out);
  if (length == 0) return;
  for (double& value : out) value /= length;
}

void ResidueCurves::add_point(const Composition& x, ResidueCurve& curve) {
  curve.x.push_back(kept_inside(x));
  boil(curve.x.back());
  curve.T_K.push_back(boiling_.T_K());
}

std::optional<std::size_t> ResidueCurves::follow(Composition x, int sense, ResidueCurve& curve) {
  const Stability wanted = sense > 0 ? Stability::stable_node : Stability::unstable_node;
  const auto system = [&](const Composition& at, Composition& out, double) { slope(at, out, sense); };
  Composition here;
  slope(x, here, sense);
  stepper_.reset();
  double s = 0, h = 1e-3;
  constexpr int most_steps = 1000;
  for (int step = 0; step < most_steps; ++step) {
    double longest = longest_step;
    for (std::size_t k = 0; k < singular_.size(); ++k) {
      if (singular_[k].stability != wanted) continue;
      const double left = distance(x, array_of(singular_[k].x));
      if (left < reach_[k]) {
        curve.x.push_back(array_of(singular_[k].x));
        curve.T_K.push_back(singular_[k].T_K);
        return k;
      }
      longest = std::min(longest, std::max(0.5 * left, reach_[k] / 2));
    }
    h = std::min(h, longest);
    const Composition before = x, slope_before = here;
    const double s_before = s;
    if (stepper_.try_step(system, x, here, s, h) != boost::numeric::odeint::success) {
      if (h < 1e-12) return std::nullopt;
      continue;
    }
    const double arrived_K = boiling_.T_K();  // the last slope was taken here
    // Where the curve bends, points between keep it round: Hermite's cubic through both ends.
    const double bend = std::acos(std::clamp(inner(slope_before, here), -1.0, 1.0));
    const int pieces = std::clamp(static_cast<int>(std::ceil(bend / 0.06)), 1, 12);
    const double taken = s - s_before;
    for (int k = 1; k < pieces; ++k) {
      const double t = static_cast<double>(k) / pieces, u = 1 - t;
      Composition point{};
      for (std::size_t i = 0; i < 3; ++i) {
        point[i] = u * u * (1 + 2 * t) * before[i] + t * t * (3 - 2 * t) * x[i] +
                   taken * (t * u * u * slope_before[i] - t * t * u * here[i]);
      }
      add_point(point, curve);
    }
    x = kept_inside(x);
    curve.x.push_back(x);
    curve.T_K.push_back(arrived_K);
  }
  return std::nullopt;
}

ResidueCurve ResidueCurves::through(const Composition& x) {
  ResidueCurve curve;
  curve.begin = follow(x, -1, curve);
  std::reverse(curve.x.begin(), curve.x.end());
  std::reverse(curve.T_K.begin(), curve.T_K.end());
  add_point(x, curve);
  curve.end = follow(x, 1, curve);
  return curve;
}

void ResidueCurves::launch(std::size_t saddle, const Composition& direction, int sense,
                           std::vector<Separatrix>& list) {
  constexpr double away = 1e-4;
  const Composition from = array_of(singular_[saddle].x);
  Separatrix line;
  line.saddle = saddle;
  line.x.push_back(from);
  line.T_K.push_back(singular_[saddle].T_K);
  line.begin = saddle;
  const Composition first =
      kept_inside(combined(from, std::min(away, reach_[saddle] / 10) / norm(direction), direction));
  add_point(first, line);
  line.end = follow(first, sense, line);
  if (sense < 0) {
    std::reverse(line.x.begin(), line.x.end());
    std::reverse(line.T_K.begin(), line.T_K.end());
    std::swap(line.begin, line.end);
  }
  list.push_back(std::move(line));
}

std::vector<Separatrix> ResidueCurves::of_saddle(std::size_t number) {
  std::vector<Separatrix> list;
  const SingularPoint& saddle = singular_[number];
  if (saddle.stability != Stability::saddle || saddle.members.size() < 2) return list;
  const Composition at = array_of(saddle.x);
  if (saddle.members.size() == 2) {
    // Along the side the saddle draws in what its separatrix sends away, so any direction into the triangle
    // leads onto it.
    const std::size_t absent = 3 - saddle.members[0] - saddle.members[1];
    Composition direction{};
    direction[absent] = 1;
    direction = difference(direction, at);
    Composition moving;
    slope(combined(at, 1e-6, direction), moving, 1);
    launch(number, direction, moving[absent] > 0 ? 1 : -1, list);
    return list;
  }
  // Inside: along both eigenvectors of d(x - y)/dx, by central differences, both ways.
  constexpr double h = 1e-5;
  Eigen::Matrix2d M;
  for (std::size_t k = 0; k < 2; ++k) {
    Composition step{};
    step[k] = h;
    step[2] = -h;
    const auto column = static_cast<Eigen::Index>(k);
    boiling_.at(combined(at, 1, step));
    const Composition plus = difference(combined(at, 1, step), boiling_.y());
    boiling_.at(combined(at, -1, step));
    const Composition minus = difference(combined(at, -1, step), boiling_.y());
    for (std::size_t i = 0; i < 2; ++i)
      M(static_cast<Eigen::Index>(i), column) = (plus[i] - minus[i]) / (2 * h);
  }
  const auto [values, vectors] = eigen_of_two(M);
  for (Eigen::Index k = 0; k < 2; ++k) {
    const double first = vectors(0, k), second = vectors(1, k);
    const Composition direction{first, second, -first - second};
    const int sense = values[k] > 0 ? 1 : -1;
    launch(number, direction, sense, list);
    launch(number, {-direction[0], -direction[1], -direction[2]}, sense, list);
  }
  return list;
}

}  // namespace jampot
