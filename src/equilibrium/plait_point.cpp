#include "jampot/equilibrium/plait_point.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/bracket.hpp"
#include "jampot/equilibrium/liquid_surface.hpp"

namespace jampot {
namespace {

using Vector = std::vector<double>;

// A walk over the spinodal near its plait point: `s` along the tie lines, and outwards as far as the
// spinodal.
class Spinodal {
 public:
  Spinodal(ActivityModel& model, std::span<const double> middle, std::span<const double> along,
           std::span<const double> outward, double reach)
      : model_(model),
        middle_(middle.begin(), middle.end()),
        along_(unit(along)),
        outward_(unit(outward)),
        reach_(reach) {}

  // The point of the spinodal at s; empty where it is not met within reach.
  std::optional<Vector> at(double s) {
    const auto curvature = [&](double r) { return smallest_curvature(model_, point(s, r)).value; };
    double inside = 0, step = reach_ / 64;
    // At the side of the dome the spinodal may lie behind the middle of the tie line.
    while (inside > -reach_ && !(valid(s, inside) && curvature(inside) < 0)) inside -= step;
    if (!valid(s, inside) || !(curvature(inside) < 0)) return std::nullopt;
    double outside = inside;
    do {
      inside = outside;
      outside += step;
      if (outside > reach_ || !valid(s, outside)) return std::nullopt;
    } while (curvature(outside) < 0);
    const auto bracket =
        bracketed_root(curvature, inside, outside, curvature(inside), curvature(outside), 53);
    if (!bracket) return std::nullopt;
    const auto [a, b] = *bracket;
    return point(s, std::abs(curvature(a)) < std::abs(curvature(b)) ? a : b);
  }

  // The third derivative there, in the measure in which curvatures are compared.
  std::optional<double> third(double s) {
    const auto x = at(s);
    if (!x) return std::nullopt;
    return mixing_third_derivative(model_, *x, direction(*x));
  }

  // Of the smallest curvature, from the same liquid to the other everywhere.
  Vector direction(const Vector& x) {
    Vector u = smallest_curvature(model_, x, true).direction;
    double inner = 0;
    for (std::size_t i = 0; i < u.size(); ++i) inner += u[i] * along_[i];
    if (inner < 0) {
      for (double& value : u) value = -value;
    }
    return u;
  }

 private:
  static Vector unit(std::span<const double> u) {
    double square = 0;
    for (const double value : u) square += value * value;
    Vector v(u.begin(), u.end());
    for (double& value : v) value /= std::sqrt(square);
    return v;
  }
  Vector point(double s, double r) const {
    Vector x = middle_;
    for (std::size_t i = 0; i < x.size(); ++i) x[i] += s * along_[i] + r * outward_[i];
    return x;
  }
  bool valid(double s, double r) const {
    const Vector x = point(s, r);
    return std::all_of(x.begin(), x.end(), [](double value) { return value > 0; });
  }

  ActivityModel& model_;
  Vector middle_, along_, outward_;
  double reach_;
};

}  // namespace

double mixing_third_derivative(ActivityModel& model, std::span<const double> x, std::span<const double> u) {
  double sum = model.third_derivative(x, u);
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (u[i] != 0) sum -= u[i] * u[i] * u[i] / (x[i] * x[i]);
  }
  return sum;
}

std::optional<PlaitPoint> plait_point_near(ActivityModel& model, double T_K, std::span<const double> middle,
                                           std::span<const double> along, std::span<const double> outward,
                                           double reach) {
  model.set_temperature(T_K);
  Spinodal spinodal(model, middle, along, outward, reach);
  const auto here = spinodal.third(0);
  if (!here) return std::nullopt;
  // Outwards on both sides until the third derivative changes its sign.
  for (double step = reach / 64; step < reach; step *= 1.5) {
    for (const double end : {step, -step}) {
      const auto there = spinodal.third(end);
      if (!there || (*there < 0) == (*here < 0)) continue;
      bool lost = false;
      const auto third = [&](double s) {
        const auto value = spinodal.third(s);
        lost = lost || !value;
        return value.value_or(0);
      };
      const auto bracket = end > 0 ? bracketed_root(third, 0.0, end, *here, *there, 53)
                                   : bracketed_root(third, end, 0.0, *there, *here, 53);
      if (lost || !bracket) return std::nullopt;
      const double s = (bracket->first + bracket->second) / 2;
      PlaitPoint plait;
      plait.x = *spinodal.at(s);
      plait.direction = spinodal.direction(plait.x);
      plait.curvature = smallest_curvature(model, plait.x).value;
      plait.third = mixing_third_derivative(model, plait.x, plait.direction);
      return plait;
    }
  }
  return std::nullopt;
}

}  // namespace jampot
