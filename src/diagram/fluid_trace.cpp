#include "fluid_trace.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/equilibrium/fluid_boundary.hpp"
#include "jampot/fluid/pure_saturation.hpp"

namespace jampot {
namespace {

// x_1, y_1, and T (temperature sought) or ln P.
using Unknowns = Eigen::Vector3d;

class Tracer {
 public:
  Tracer(Mixture& mixture, Sought sought, double held)
      : liquid_(static_cast<FluidPhase&>(mixture.liquid())),
        vapour_(static_cast<FluidPhase&>(mixture.vapour())),
        sought_(sought),
        held_(held),
        values_{PhaseValues(2), PhaseValues(2)} {}

  double T_K(const Unknowns& s) const { return sought_ == Sought::temperature ? s[2] : held_; }
  double P_Pa(const Unknowns& s) const { return sought_ == Sought::temperature ? held_ : std::exp(s[2]); }

  // ln K_i - ln(y_i/x_i), which hold for both components also where one is nearly absent; rows of
  // derivatives.
  void equations(const Unknowns& s, Eigen::Vector2d& f, Eigen::Matrix<double, 2, 3>& J) {
    const bool T_sought = sought_ == Sought::temperature;
    const Wanted wanted{T_sought, !T_sought, true};
    const std::array<double, 2> x{s[0], 1 - s[0]}, y{s[1], 1 - s[1]};
    liquid_.evaluate(T_K(s), P_Pa(s), x, wanted, values_[0]);
    vapour_.evaluate(T_K(s), P_Pa(s), y, wanted, values_[1]);
    for (std::size_t i = 0; i < 2; ++i) {
      const auto row = static_cast<Eigen::Index>(i);
      const double sign = i == 0 ? 1 : -1;  // of d x_i/d x_1
      f[row] = std::log(x[i]) + values_[0].ln_phi[i] - std::log(y[i]) - values_[1].ln_phi[i];
      J(row, 0) = sign / x[i] + values_[0].dn[i * 2] - values_[0].dn[i * 2 + 1];
      J(row, 1) = -sign / y[i] - values_[1].dn[i * 2] + values_[1].dn[i * 2 + 1];
      J(row, 2) = T_sought ? values_[0].dT[i] - values_[1].dT[i] : values_[0].dln_P[i] - values_[1].dln_P[i];
    }
  }

  // Newton's method with a'.state held at `value`.
  bool correct(Unknowns& s, const Unknowns& a, double value) {
    Eigen::Vector2d f;
    Eigen::Matrix<double, 2, 3> J;
    constexpr int most_steps = 25;
    for (int k = 0; k < most_steps; ++k) {
      equations(s, f, J);
      bordered_.topRows<2>() = J;
      bordered_.row(2) = a;
      step_.head<2>() = f;
      step_[2] = a.dot(s) - value;
      newton_.factor(bordered_);
      newton_.solve(step_, step_);
      const Unknowns step = step_;
      if (!step.allFinite()) return false;
      double length = 1;
      for (int i = 0; i < 2; ++i) {  // no fraction leaves 0..1
        const double room = step[i] > 0 ? s[i] : 1 - s[i];
        length = std::min(length, 0.5 * room / std::max(1e-300, std::abs(step[i])));
      }
      const double most = sought_ == Sought::temperature ? 0.05 * s[2] : 0.5;
      length = std::min(length, most / std::max(1e-300, std::abs(step[2])));
      s -= length * step;
      if (!s.allFinite()) return false;
      const double scale = sought_ == Sought::temperature ? s[2] : 1;
      if (length == 1 && std::abs(step[0]) < 1e-12 * s[0] + 1e-14 &&
          std::abs(step[1]) < 1e-12 * s[1] + 1e-14 && std::abs(step[2]) < 1e-12 * scale)
        break;
    }
    equations(s, f, J);
    jacobian_ = J;
    residual_ = f.lpNorm<Eigen::Infinity>();
    return residual_ < 1e-8;
  }

  // Direction along the curve at the last corrected state: across both rows of derivatives.
  Unknowns tangent() const {
    const auto& J = jacobian_;
    const auto minor = [&](int a, int b) { return J(0, a) * J(1, b) - J(0, b) * J(1, a); };
    return Unknowns(minor(1, 2), minor(2, 0), minor(0, 1)).normalized();
  }

  BinaryPoint point(const Unknowns& s) const {
    BinaryPoint p;
    p.T_K = T_K(s);
    p.P_Pa = P_Pa(s);
    p.x = {s[0], 1 - s[0]};
    p.y = {s[1], 1 - s[1]};
    for (std::size_t i = 0; i < 2; ++i) p.K[i] = std::exp(values_[0].ln_phi[i] - values_[1].ln_phi[i]);
    p.residual = residual_;
    return p;
  }

  // How far apart the densities of the two phases are at the last corrected state.
  double density_gap() const { return std::log(vapour_.state().v_m3_mol / liquid_.state().v_m3_mol); }
  double ln_K(std::size_t i) const { return values_[0].ln_phi[i] - values_[1].ln_phi[i]; }
  void at(const Unknowns& s) {
    Eigen::Vector2d f;
    equations(s, f, jacobian_);
    residual_ = 0;
  }

 private:
  FluidPhase &liquid_, &vapour_;
  Sought sought_;
  double held_;
  std::array<PhaseValues, 2> values_;
  Eigen::Matrix<double, 2, 3> jacobian_;
  double residual_ = 0;
  LuSolver newton_{3};
  Eigen::MatrixXd bordered_{3, 3};
  Eigen::VectorXd step_{3};
};

// Near the critical point T, P and the mean composition are even in y - x: two points give the limit to
// fourth order.
BinaryPoint critical_point(const BinaryPoint& a, const BinaryPoint& b) {
  const auto square = [](const BinaryPoint& p) { return (p.y[0] - p.x[0]) * (p.y[0] - p.x[0]); };
  const double share = square(b) / (square(b) - square(a));  // of a; the rest of b, negative
  const auto limit = [&](double at_a, double at_b) { return share * at_a + (1 - share) * at_b; };
  BinaryPoint c;
  c.T_K = limit(a.T_K, b.T_K);
  c.P_Pa = limit(a.P_Pa, b.P_Pa);
  c.x[0] = c.y[0] = limit((a.x[0] + a.y[0]) / 2, (b.x[0] + b.y[0]) / 2);
  c.x[1] = c.y[1] = 1 - c.x[0];
  c.K = {1, 1};
  return c;
}

// One run along the curve.
class Run {
 public:
  Run(Tracer& tracer, Sought sought, double step, double scale)
      : tracer_(tracer),
        step_(step),
        // A composition, a fifth of T and a factor in P count alike.
        units_(1, 1, sought == Sought::temperature ? 0.2 * scale : 1.5) {}

  /// From a corrected state in a direction, to a pure end or the critical point.
  void follow(Unknowns s, Unknowns direction, double first_step, FluidTrace& trace) {
    double length = first_step;
    constexpr int most_points = 4000;
    for (int k = 0; k < most_points; ++k) {
      const Unknowns scaled = direction.cwiseQuotient(units_);
      const double gap = s[1] - s[0];
      Unknowns next = s + direction * (length / scaled.norm());
      if (next.head<2>().maxCoeff() >= 1 || next.head<2>().minCoeff() <= 0) {
        const double room = std::min(1 - s.head<2>().maxCoeff(), s.head<2>().minCoeff());
        if (room < 1e-5) {
          trace.complete = true;
          return;
        }
        length /= 3;
        continue;
      }
      const Unknowns held = held_direction(direction, scaled);
      Unknowns corrected = next;
      const bool solved = tracer_.correct(corrected, held, held.dot(next)) &&
                          (corrected - next).cwiseQuotient(units_).norm() < 0.5 * length;
      const double new_gap = corrected[1] - corrected[0], thinness = std::abs(tracer_.density_gap());
      const bool merged = solved && thinness < 1e-5 && std::abs(new_gap) < 1e-7;
      const bool crossed = solved && gap * new_gap < 0 && thinness < 0.05;
      if (!solved || merged || crossed) {
        length /= 3;
        if (length > 1e-7) continue;
        return;
      }
      Unknowns ahead = tracer_.tangent();
      if (ahead.cwiseQuotient(units_).dot(scaled) < 0) ahead = -ahead;
      const BinaryPoint before = trace.points.back();
      const BinaryPoint reached = tracer_.point(corrected);
      add_even(s, corrected, trace);
      trace.points.push_back(reached);
      direction = ahead;
      s = corrected;
      // Near the critical point both phases come together: two points of it give the rest.
      if (thinness < 0.35 && std::abs(new_gap) < 0.01 && std::abs(new_gap) < std::abs(gap) &&
          std::abs(gap) < 0.05) {
        trace.critical = critical_point(before, trace.points.back());
        trace.points.push_back(*trace.critical);
        return;
      }
      length = std::min(step_, length * 1.6);
      if (thinness < 1) length = std::min(length, std::max(2e-3, std::abs(new_gap) / 2));
    }
  }

 private:
  // What changes fastest is held; close to the critical point the difference of the compositions.
  static Unknowns held_direction(const Unknowns& direction, const Unknowns& scaled) {
    Eigen::Index fastest = 0;
    scaled.cwiseAbs().maxCoeff(&fastest);
    if (std::abs(direction[1] - direction[0]) > std::abs(scaled[fastest])) return {-1, 1, 0};
    Unknowns held = Unknowns::Zero();
    held[fastest] = 1;
    return held;
  }

  // The points at even distances in x that lie between two states: those that tables and comparisons share.
  void add_even(const Unknowns& from, const Unknowns& to, FluidTrace& trace) {
    const double even = step_ / 2;
    const bool rises = to[0] > from[0];
    const double low = std::min(from[0], to[0]), high = std::max(from[0], to[0]);
    std::vector<double> list;
    for (double k = std::ceil(low / even); k * even < high; ++k) {
      if (k * even > low) list.push_back(k * even);
    }
    if (!rises) std::reverse(list.begin(), list.end());
    for (const double x : list) {
      Unknowns state = from + (to - from) * ((x - from[0]) / (to[0] - from[0]));
      if (tracer_.correct(state, Unknowns(1, 0, 0), x)) trace.points.push_back(tracer_.point(state));
    }
  }

  Tracer& tracer_;
  double step_;
  Unknowns units_;
};

std::optional<PureSaturation> saturation(Mixture& mixture, Sought sought, double held, std::size_t of) {
  return sought == Sought::temperature ? pure_saturation_T(*mixture.equation(), of, held)
                                       : pure_saturation_P(*mixture.equation(), of, held);
}

double third(Sought sought, double T_K, double P_Pa) {
  return sought == Sought::temperature ? T_K : std::log(P_Pa);
}

// A pure substance, with the limit of the K value of the absent one.
BinaryPoint pure_point(Tracer& tracer, Sought sought, const PureSaturation& saturated, double x1) {
  constexpr double nothing = 1e-9;
  Unknowns nearly(0, 0, third(sought, saturated.T_K, saturated.P_Pa));
  nearly[0] = nearly[1] = std::clamp(x1, nothing, 1 - nothing);
  tracer.at(nearly);
  Unknowns exact = nearly;
  exact[0] = exact[1] = x1;
  return tracer.point(exact);
}

}  // namespace

std::optional<FluidTrace> fluid_trace(Mixture& mixture, Sought sought, double held, std::size_t from,
                                      double step) {
  const auto saturated = saturation(mixture, sought, held, from);
  if (!saturated) return std::nullopt;
  Tracer tracer(mixture, sought, held);
  const double end = from == 0 ? 1 : 0;
  FluidTrace trace;
  trace.points.push_back(pure_point(tracer, sought, *saturated, end));
  // The first step: small in the phase that holds more of the other component.
  const double K = std::exp(tracer.ln_K(1 - from)), first = std::min(1e-4, 1e-4 / K);
  const auto near_end = [&](double share) { return end == 0 ? share : 1 - share; };
  Unknowns s(near_end(first), near_end(first * K), third(sought, saturated->T_K, saturated->P_Pa));
  if (!tracer.correct(s, Unknowns(1, 0, 0), s[0])) return trace;
  trace.points.push_back(tracer.point(s));
  Unknowns direction = tracer.tangent();
  const double inwards = end == 0 ? 1 : -1;
  if (inwards * (std::abs(direction[0]) > std::abs(direction[1]) ? direction[0] : direction[1]) < 0)
    direction = -direction;
  Run(tracer, sought, step, saturated->T_K).follow(s, direction, step / 10, trace);
  if (trace.complete) {
    if (const auto other = saturation(mixture, sought, held, 1 - from))
      trace.points.push_back(pure_point(tracer, sought, *other, 1 - end));
  }
  return trace;
}

std::vector<FluidTrace> inner_fluid_trace(Mixture& mixture, Sought sought, double held, double step) {
  for (const double x1 : {0.5, 0.3, 0.7, 0.15, 0.85, 0.05, 0.95}) {
    const std::array<double, 2> z{x1, 1 - x1};
    const auto found = fluid_boundary(mixture, sought, held, z, true);
    if (!found) continue;
    Tracer tracer(mixture, sought, held);
    Unknowns s(x1, found->state.w[0], third(sought, found->state.T_K, found->state.P_Pa));
    if (!tracer.correct(s, Unknowns(1, 0, 0), x1)) continue;
    const Unknowns direction = tracer.tangent() * (tracer.tangent()[0] < 0 ? -1 : 1);
    std::vector<FluidTrace> both(2);
    Run run(tracer, sought, step, found->state.T_K);
    for (std::size_t k = 0; k < 2; ++k) {
      both[k].points.push_back(tracer.point(s));
      run.follow(s, k == 0 ? Unknowns(-direction) : direction, step / 10, both[k]);
      tracer.at(s);
    }
    return both;
  }
  return {};
}

}  // namespace jampot
