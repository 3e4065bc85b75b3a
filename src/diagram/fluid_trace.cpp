#include "fluid_trace.hpp"

#include <Eigen/Dense>
#include <cmath>

#include "jampot/fluid/pure_saturation.hpp"

namespace jampot {
namespace {

// x_1, y_1, and T (temperature sought) or ln P.
using State = Eigen::Vector3d;

class Tracer {
 public:
  Tracer(Mixture& mixture, Sought sought, double held)
      : liquid_(static_cast<FluidPhase&>(mixture.liquid())),
        vapour_(static_cast<FluidPhase&>(mixture.vapour())),
        sought_(sought),
        held_(held),
        values_{PhaseValues(2), PhaseValues(2)} {}

  double T_K(const State& s) const { return sought_ == Sought::temperature ? s[2] : held_; }
  double P_Pa(const State& s) const { return sought_ == Sought::temperature ? held_ : std::exp(s[2]); }

  // ln K_i - ln(y_i/x_i), which hold for both components also where one is nearly absent; rows of
  // derivatives.
  void equations(const State& s, Eigen::Vector2d& f, Eigen::Matrix<double, 2, 3>& J) {
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
  bool correct(State& s, const State& a, double value) {
    Eigen::Vector2d f;
    Eigen::Matrix<double, 2, 3> J;
    constexpr int most_steps = 25;
    for (int k = 0; k < most_steps; ++k) {
      equations(s, f, J);
      Eigen::Matrix3d full;
      Eigen::Vector3d rest;
      full << J, a.transpose();
      rest << f, a.dot(s) - value;
      const State step = full.fullPivLu().solve(rest);
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

  // Direction along the curve at the last corrected state.
  State tangent() const {
    const Eigen::FullPivLU<Eigen::Matrix<double, 2, 3>> lu(jacobian_);
    return lu.kernel().col(0).normalized();
  }

  BinaryPoint point(const State& s) const {
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
  void at(const State& s) {
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

}  // namespace

std::optional<FluidTrace> fluid_trace(Mixture& mixture, Sought sought, double held, std::size_t from,
                                      double step) {
  const auto saturated = sought == Sought::temperature ? pure_saturation_T(*mixture.equation(), from, held)
                                                       : pure_saturation_P(*mixture.equation(), from, held);
  if (!saturated) return std::nullopt;
  Tracer tracer(mixture, sought, held);
  const double end = from == 0 ? 1 : 0;
  State s(end, end, sought == Sought::temperature ? saturated->T_K : std::log(saturated->P_Pa));
  FluidTrace trace;
  // At the end itself the absent component has the limit of its K value.
  constexpr double trace_amount = 1e-9;
  State inside = s;
  inside[0] = end == 0 ? trace_amount : 1 - trace_amount;
  inside[1] = inside[0];
  tracer.at(inside);
  trace.points.push_back(tracer.point(s));

  const std::size_t other = 1 - from;
  const double K = std::exp(tracer.ln_K(other));
  // The first step: small in the phase that holds more of the other component.
  double first = std::min(1e-4, 1e-4 / K);
  const auto near_end = [&](double share) { return end == 0 ? share : 1 - share; };
  s[0] = near_end(first);
  s[1] = near_end(first * K);
  if (!tracer.correct(s, State(1, 0, 0), s[0])) return trace;
  trace.points.push_back(tracer.point(s));
  State direction = tracer.tangent();
  const double inwards = end == 0 ? 1 : -1;
  if (inwards * (std::abs(direction[0]) > std::abs(direction[1]) ? direction[0] : direction[1]) < 0)
    direction = -direction;

  double length = step / 10;
  const double scale = sought == Sought::temperature ? saturated->T_K : 1;
  constexpr int most_points = 4000;
  for (int k = 0; k < most_points; ++k) {
    // In units in which a composition, ten per cent of T and a factor in P count alike.
    const State units(1, 1, sought == Sought::temperature ? 0.2 * scale : 1.5);
    const State scaled = direction.cwiseQuotient(units);
    const double norm = scaled.norm();
    const BinaryPoint last = trace.points.back();
    const double gap = last.y[0] - last.x[0];
    State next = s + direction * (length / norm);
    const bool to_other_end = end == 0 ? std::max(next[0], next[1]) >= 1 : std::min(next[0], next[1]) <= 0;
    if (to_other_end) {
      const double room = end == 0 ? 1 - std::max(s[0], s[1]) : std::min(s[0], s[1]);
      if (room < 1e-5) {
        trace.complete = true;
        break;
      }
      length /= 3;
      continue;
    }
    // What changes fastest is held; close to the critical point the difference of the compositions.
    State held_direction = State::Zero();
    const double difference = (direction[1] - direction[0]);
    Eigen::Index fastest = 0;
    scaled.cwiseAbs().maxCoeff(&fastest);
    if (std::abs(difference) > std::abs(scaled[fastest])) {
      held_direction = State(-1, 1, 0);
    } else {
      held_direction[fastest] = 1;
    }
    State corrected = next;
    const bool solved = tracer.correct(corrected, held_direction, held_direction.dot(next)) &&
                        (corrected - next).cwiseQuotient(units).norm() < 0.5 * length;
    const double new_gap = corrected[1] - corrected[0];
    const bool merged = solved && std::abs(tracer.density_gap()) < 1e-5 && std::abs(new_gap) < 1e-7;
    const bool crossed = solved && gap * new_gap < 0 && std::abs(tracer.density_gap()) < 0.05;
    if (!solved || merged || crossed) {
      length /= 3;
      if (length > 1e-7) continue;
      break;
    }
    State ahead = tracer.tangent();
    if (ahead.cwiseQuotient(units).dot(scaled) < 0) ahead = -ahead;
    direction = ahead;
    s = corrected;
    trace.points.push_back(tracer.point(s));
    // Near the critical point both phases come together: two points of it give the rest.
    if (std::abs(tracer.density_gap()) < 0.35 && std::abs(new_gap) < 0.01 &&
        std::abs(new_gap) < std::abs(gap)) {
      const BinaryPoint& a = trace.points[trace.points.size() - 2];
      if (std::abs(a.y[0] - a.x[0]) < 0.05) {
        trace.critical = critical_point(a, trace.points.back());
        break;
      }
    }
    length = std::min(step, length * 1.6);
    if (std::abs(tracer.density_gap()) < 1) length = std::min(length, std::max(2e-3, std::abs(new_gap) / 2));
  }
  if (trace.critical) trace.points.push_back(*trace.critical);
  if (trace.complete) {
    const auto pure = sought == Sought::temperature ? pure_saturation_T(*mixture.equation(), other, held)
                                                    : pure_saturation_P(*mixture.equation(), other, held);
    if (pure) {
      State last(1 - end, 1 - end, sought == Sought::temperature ? pure->T_K : std::log(pure->P_Pa));
      State nearly = last;
      nearly[0] = nearly[1] = end == 0 ? 1 - trace_amount : trace_amount;
      tracer.at(nearly);
      trace.points.push_back(tracer.point(last));
    }
  }
  return trace;
}

}  // namespace jampot
