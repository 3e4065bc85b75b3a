#include "jampot/equilibrium/incipient.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "../basis/bracket.hpp"
#include "../basis/dense.hpp"

namespace jampot {

struct IncipientSolver::Work {
  Eigen::MatrixXd jacobian, right_side, sensitivity;
  Eigen::VectorXd residual, step;
  LuSolver lu;
};
namespace {

// No liquid-vapour equilibrium of interest lies outside; a solver that wants to go there has lost its way.
constexpr double lowest_T_K = 20, highest_T_K = 5000;

double limited(double step, double most) {
  return std::clamp(step, -most, most);
}

}  // namespace

IncipientSolver::IncipientSolver(Phase& known, Phase& incipient)
    : known_(known),
      incipient_(incipient),
      n_(known.size()),
      incipient_values_(n_),
      previous_w_(n_),
      attempt_(n_) {
  // No derivatives with the composition of the known phase: it is held, but for `sensitivity`.
  for (auto* values : {&known_values_.ln_phi, &known_values_.dT, &known_values_.dln_P}) values->resize(n_);
  const auto rows = static_cast<Eigen::Index>(n_ + 1);
  work_->jacobian.resize(rows, rows);
  work_->residual.resize(rows);
  work_->step.resize(rows);
  work_->lu = LuSolver(rows);
}

void IncipientSolver::evaluate(std::span<const double> z, const IncipientState& state, Wanted wanted) {
  known_.evaluate(state.T_K, state.P_Pa, z, {wanted.T, wanted.ln_P, false}, known_values_);
  incipient_.evaluate(state.T_K, state.P_Pa, state.w, wanted, incipient_values_);
}

// ln sum_i z_i K_i with K from the phases; sets ln K. Written so that no exponential overflows.
double IncipientSolver::log_sum(std::span<const double> z, IncipientState& state) {
  Work& work = *work_;
  double largest = -HUGE_VAL, sum = 0;
  for (std::size_t i = 0; i < n_; ++i) {
    state.ln_K[i] = known_values_.ln_phi[i] - incipient_values_.ln_phi[i];
    if (z[i] > 0) largest = std::max(largest, state.ln_K[i]);
  }
  for (std::size_t i = 0; i < n_; ++i) {
    work.step[static_cast<Eigen::Index>(i)] = z[i] == 0 ? 0 : z[i] * std::exp(state.ln_K[i] - largest);
    sum += work.step[static_cast<Eigen::Index>(i)];
  }
  work.step /= sum;  // the incipient composition, normalised
  return largest + std::log(sum);
}

// Whether every K is one over P but for a factor, as over an ideal gas.
bool IncipientSolver::reciprocal_in_P() const {
  for (std::size_t i = 0; i < n_; ++i) {
    if (known_values_.dln_P[i] != -1 || incipient_values_.dln_P[i] != 0) return false;
  }
  return true;
}

bool IncipientSolver::solve_with_fixed_w(Sought sought, std::span<const double> z, IncipientState& state) {
  Work& work = *work_;
  const bool T_sought = sought == Sought::temperature;
  constexpr int most_iterations = 60;
  work.step.setZero();
  for (int iteration = 0; iteration < most_iterations; ++iteration) {
    evaluate(z, state, {T_sought, !T_sought, false});
    const double f = log_sum(z, state);
    if (!std::isfinite(f)) return false;
    state.residual = std::abs(f);
    if (state.residual < tolerance) {
      for (std::size_t i = 0; i < n_; ++i) state.w[i] = work.step[static_cast<Eigen::Index>(i)];
      return true;
    }
    const auto& from = T_sought ? known_values_.dT : known_values_.dln_P;
    const auto& to = T_sought ? incipient_values_.dT : incipient_values_.dln_P;
    double slope = 0;
    for (std::size_t i = 0; i < n_; ++i) slope += work.step[static_cast<Eigen::Index>(i)] * (from[i] - to[i]);
    if (T_sought) {  // ln P is nearly linear in 1/T
      if (slope == 0) return bracketed(sought, z, state);
      const double change = limited(f / (slope * state.T_K), 0.2);
      state.T_K /= 1 + change;
      if (state.T_K < lowest_T_K || state.T_K > highest_T_K) return false;
    } else {
      const double change = limited(f / slope, 5.0);
      state.P_Pa *= std::exp(-change);
      if (change == f / slope && reciprocal_in_P()) {  // then this was the solution
        for (std::size_t i = 0; i < n_; ++i) {
          state.ln_K[i] -= f;
          state.w[i] = work.step[static_cast<Eigen::Index>(i)];
        }
        state.residual = 0;
        return true;
      }
    }
  }
  return bracketed(sought, z, state);
}

bool IncipientSolver::bracketed(Sought sought, std::span<const double> z, IncipientState& state) {
  Work& work = *work_;
  if (sought != Sought::temperature) return false;
  const auto f = [&](double T_K) {
    state.T_K = T_K;
    evaluate(z, state, {});
    return log_sum(z, state);
  };
  constexpr double ratio = 1.05;
  double low = std::clamp(state.T_K, 2 * lowest_T_K, highest_T_K / 2), high = low;
  const double cold = f(lowest_T_K) < 0 ? 1 : -1;  // below a bubble point f < 0, below a dew point f > 0
  while (cold * f(low) > 0) {
    if ((low /= ratio) < lowest_T_K) return false;
  }
  while (cold * f(high) < 0) {
    if ((high *= ratio) > highest_T_K) return false;
  }
  if (low == high) high *= ratio;
  const auto root = bracketed_root(f, low, high, f(low), f(high), 53, 200);
  if (!root) return false;
  state.residual = std::abs(f(std::midpoint(root->first, root->second)));
  for (std::size_t i = 0; i < n_; ++i) state.w[i] = work.step[static_cast<Eigen::Index>(i)];
  return state.residual < tolerance;
}

bool IncipientSolver::solve(Sought sought, std::span<const double> z, IncipientState& state) {
  if (!incipient_.depends_on_composition()) return solve_with_fixed_w(sought, z, state);
  // Successive substitution brings w near; Newton finishes. Where substitution is slow, Newton is tried on
  // the way.
  constexpr int most_rounds = 40;
  for (int round = 0; round < most_rounds; ++round) {
    previous_w_ = state.w;
    if (!solve_with_fixed_w(sought, z, state)) return false;
    double change = 0;
    for (std::size_t i = 0; i < n_; ++i) change = std::max(change, std::abs(state.w[i] - previous_w_[i]));
    if (change < 1e-3 || round % 10 == 9) {
      attempt_ = state;
      if (newton(sought, z, attempt_)) {
        state = attempt_;
        return true;
      }
    }
  }
  return false;
}

void IncipientSolver::fill_jacobian(Sought sought, std::span<const double> z, const IncipientState& state) {
  Work& work = *work_;
  const auto& known = sought == Sought::temperature ? known_values_.dT : known_values_.dln_P;
  const auto& incipient = sought == Sought::temperature ? incipient_values_.dT : incipient_values_.dln_P;
  const Eigen::Index last = static_cast<Eigen::Index>(n_);
  for (std::size_t i = 0; i < n_; ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    for (std::size_t k = 0; k < n_; ++k) {
      const double w_k = z[k] * std::exp(state.ln_K[k]);
      work.jacobian(row, static_cast<Eigen::Index>(k)) =
          (i == k ? 1 : 0) +
          (incipient_.depends_on_composition() ? incipient_values_.dn[i * n_ + k] * w_k : 0);
    }
    work.jacobian(row, last) = incipient[i] - known[i];
    work.jacobian(last, row) = z[i] * std::exp(state.ln_K[i]);
  }
  work.jacobian(last, last) = 0;
}

bool IncipientSolver::newton(Sought sought, std::span<const double> z, IncipientState& state) {
  Work& work = *work_;
  const bool T_sought = sought == Sought::temperature;
  const Eigen::Index last = static_cast<Eigen::Index>(n_);
  constexpr int most_iterations = 40;
  for (int iteration = 0; iteration < most_iterations; ++iteration) {
    for (std::size_t i = 0; i < n_; ++i) state.w[i] = z[i] * std::exp(state.ln_K[i]);
    evaluate(z, state, {T_sought, !T_sought, true});
    double sum = 0;
    for (std::size_t i = 0; i < n_; ++i) {
      work.residual[static_cast<Eigen::Index>(i)] =
          state.ln_K[i] + incipient_values_.ln_phi[i] - known_values_.ln_phi[i];
      sum += state.w[i];
    }
    work.residual[last] = sum - 1;
    state.residual = work.residual.lpNorm<Eigen::Infinity>();
    if (!std::isfinite(state.residual)) return false;
    if (state.residual < tolerance) return true;
    fill_jacobian(sought, z, state);
    work.lu.factor(work.jacobian);
    work.lu.solve(work.residual, work.step);
    // The step is shortened as a whole, so that it keeps its direction.
    double factor = 1;
    for (Eigen::Index i = 0; i < last; ++i)
      factor = std::min(factor, 1.0 / std::max(1e-300, std::abs(work.step[i])));
    const double other = T_sought ? std::abs(work.step[last]) / (0.1 * state.T_K) : std::abs(work.step[last]);
    factor = std::min(factor, 1.0 / std::max(1e-300, other));
    for (std::size_t i = 0; i < n_; ++i) state.ln_K[i] -= factor * work.step[static_cast<Eigen::Index>(i)];
    if (T_sought) {
      state.T_K -= factor * work.step[last];
      if (!(state.T_K > lowest_T_K) || state.T_K > highest_T_K) return false;
    } else {
      state.P_Pa *= std::exp(-factor * work.step[last]);
    }
  }
  return false;
}

MatrixView IncipientSolver::sensitivity(Sought sought, std::span<const double> z,
                                        const IncipientState& state) {
  Work& work = *work_;
  known_values_.dn.resize(n_ * n_);
  known_.evaluate(state.T_K, state.P_Pa, z, {true, true, true}, known_values_);
  incipient_.evaluate(state.T_K, state.P_Pa, state.w, {true, true, true}, incipient_values_);
  fill_jacobian(sought, z, state);

  ActivityModel* model = known_.activity();
  const std::size_t terms = model == nullptr ? 0 : model->terms().size();
  term_derivatives_.resize(n_ * terms);
  if (terms > 0) model->term_derivatives(z, term_derivatives_);

  const Eigen::Index n = static_cast<Eigen::Index>(n_);
  work.right_side.setZero(n + 1, n + 1 + static_cast<Eigen::Index>(terms));
  const auto& known_held = sought == Sought::temperature ? known_values_.dln_P : known_values_.dT;
  const auto& incipient_held = sought == Sought::temperature ? incipient_values_.dln_P : incipient_values_.dT;
  for (Eigen::Index i = 0; i < n; ++i) {
    const std::size_t row = static_cast<std::size_t>(i) * n_;
    for (Eigen::Index k = 0; k < n; ++k) {
      const auto column = static_cast<std::size_t>(k);
      const double K = std::exp(state.ln_K[column]);
      work.right_side(i, k) =
          known_values_.dn[row + column] -
          (incipient_.depends_on_composition() ? incipient_values_.dn[row + column] * K : 0);
    }
    const auto component = static_cast<std::size_t>(i);
    work.right_side(n, i) = -std::exp(state.ln_K[component]);
    work.right_side(i, n) = known_held[component] - incipient_held[component];
    for (std::size_t t = 0; t < terms; ++t) {
      work.right_side(i, n + 1 + static_cast<Eigen::Index>(t)) = term_derivatives_[component * terms + t];
    }
  }
  if (incipient_.depends_on_composition()) {
    work.lu.factor(work.jacobian);
    work.lu.solve(work.right_side, work.sensitivity);
  } else {
    eliminate();
  }
  return {work.sensitivity.data(), static_cast<std::size_t>(work.sensitivity.rows()),
          static_cast<std::size_t>(work.sensitivity.cols())};
}

// Where w does not act back on K the Jacobian is [I b; w' 0]: its last row minus w' times the others gives T
// or ln P.
void IncipientSolver::eliminate() {
  Work& work = *work_;
  const Eigen::Index n = static_cast<Eigen::Index>(n_);
  work.sensitivity.resize(work.right_side.rows(), work.right_side.cols());
  double pivot = 0;
  for (Eigen::Index i = 0; i < n; ++i) pivot -= work.jacobian(n, i) * work.jacobian(i, n);
  for (Eigen::Index column = 0; column < work.right_side.cols(); ++column) {
    double last = work.right_side(n, column);
    for (Eigen::Index i = 0; i < n; ++i) last -= work.jacobian(n, i) * work.right_side(i, column);
    last /= pivot;
    work.sensitivity(n, column) = last;
    for (Eigen::Index i = 0; i < n; ++i)
      work.sensitivity(i, column) = work.right_side(i, column) - work.jacobian(i, n) * last;
  }
}

}  // namespace jampot
