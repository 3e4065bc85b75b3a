#include "jampot/equilibrium/stability.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/basis/constants.hpp"

namespace jampot {

struct TangentPlane::Work {
  Eigen::VectorXd gradient, step;
  Eigen::MatrixXd hessian;
  DownhillStep downhill;
};
namespace {

constexpr double tolerance = 1e-9;

std::vector<std::vector<double>> starts(std::span<const double> ln_f) {
  const std::size_t n = ln_f.size();
  const auto present = static_cast<double>(
      std::count_if(ln_f.begin(), ln_f.end(), [](double value) { return std::isfinite(value); }));
  std::vector<std::vector<double>> list;
  for (std::size_t rich = 0; rich <= n; ++rich) {  // the last one is the middle
    if (rich < n && !std::isfinite(ln_f[rich])) continue;
    std::vector<double> w(n);
    for (std::size_t i = 0; i < n; ++i) {
      if (!std::isfinite(ln_f[i])) continue;
      const double poor = present > 1 ? 0.02 / (present - 1) : 1;
      w[i] = rich == n ? 1 / present : (i == rich ? 0.98 : poor);
    }
    list.push_back(std::move(w));
  }
  return list;
}

}  // namespace

// The function that has the minima of the distance without its constraint: 1 + sum W_i (ln W_i + ln phi_i -
// ln f_i
// - 1). Keeps the gradient with 2 sqrt(W_i), and the Hessian where wanted.
double TangentPlane::evaluate(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f,
                              bool derivatives) {
  Work& work = *work_;
  const std::size_t n = W_.size();
  sum_ = 0;
  for (const double value : W_) sum_ += value;
  for (std::size_t i = 0; i < n; ++i) w_[i] = W_[i] / sum_;
  Wanted wanted;
  wanted.composition = derivatives;
  trial.evaluate(T_K, P_Pa, w_, wanted, values_);
  double value = 1;
  for (std::size_t i = 0; i < n; ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    change_[i] = 0;
    work.gradient[row] = 0;
    if (!(W_[i] > 0)) continue;
    change_[i] = ln_W_[i] + values_.ln_phi[i] - ln_f[i];
    value += W_[i] * (change_[i] - 1);
    if (derivatives) {
      root_[i] = std::sqrt(W_[i]);
      work.gradient[row] = root_[i] * change_[i];
    }
  }
  if (!derivatives) return value;
  for (std::size_t i = 0; i < n; ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    for (std::size_t k = 0; k < n; ++k) {
      work.hessian(row, static_cast<Eigen::Index>(k)) =
          W_[i] > 0 && W_[k] > 0 ? root_[i] * root_[k] * values_.dn[i * n + k] / sum_ : 0;
    }
    work.hessian(row, row) += 1 + change_[i] / 2;
  }
  return value;
}

TangentMinimum TangentPlane::descend(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f,
                                     std::span<const double> w) {
  TangentMinimum minimum;
  descend(trial, T_K, P_Pa, ln_f, w, {}, minimum);
  return minimum;
}

bool TangentPlane::beside_known(const DescentLimits& limits) const {
  for (const std::vector<double>& x : limits.known) {
    double most = 0;
    for (std::size_t i = 0; i < x.size(); ++i) most = std::max(most, std::abs(x[i] - w_[i]));
    if (most < limits.near_known) return true;
  }
  return false;
}

void TangentPlane::descend(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f,
                           std::span<const double> w, const DescentLimits& limits, TangentMinimum& out) {
  Work& work = *work_;
  const std::size_t n = w.size();
  const auto N = static_cast<Eigen::Index>(n);
  if (W_.size() != n) {
    values_ = PhaseValues(n);
    w_.resize(n);
    kept_.resize(n);
    ln_W_.resize(n);
    root_.resize(n);
    change_.resize(n);
    work.gradient.resize(N);
    work.step.resize(N);
    work.hessian.resize(N, N);
  }
  W_.assign(w.begin(), w.end());
  if (limits.ln_start.empty()) {
    for (std::size_t i = 0; i < n; ++i) ln_W_[i] = std::log(W_[i]);
  } else {
    ln_W_.assign(limits.ln_start.begin(), limits.ln_start.end());
  }
  double value = evaluate(trial, T_K, P_Pa, ln_f, false);
  // At the normalised start the function is the distance itself.
  if (value > limits.hopeless) {
    out.composition = w_;
    out.distance = value;
    return;
  }
  // Substitution crosses great distances in few steps; it is kept up only as long as it leads downhill.
  constexpr int substitutions = 4;
  for (int k = 0; k < substitutions; ++k) {
    kept_ = W_;
    for (std::size_t i = 0; i < n; ++i) {
      if (!(W_[i] > 0)) continue;
      ln_W_[i] = ln_f[i] - values_.ln_phi[i];
      W_[i] = std::exp(ln_W_[i]);
    }
    const double next = evaluate(trial, T_K, P_Pa, ln_f, false);
    if (!(next <= value)) {
      W_ = kept_;
      for (std::size_t i = 0; i < n; ++i) ln_W_[i] = std::log(W_[i]);
      break;
    }
    value = next;
    if (value < limits.enough || beside_known(limits)) break;
  }
  constexpr int most_iterations = 60;
  for (int iteration = 0; iteration < most_iterations; ++iteration) {
    if (value < limits.enough || beside_known(limits)) break;
    if (iteration == 0) value = evaluate(trial, T_K, P_Pa, ln_f, true);
    if (work.gradient.cwiseAbs().maxCoeff() < 1e-9) break;
    work.step = -work.gradient;
    work.downhill.take(work.hessian, 1e-6, work.step);
    kept_ = W_;
    double length = 1;
    bool moved = false;
    for (int halving = 0; halving < 25 && !moved; ++halving, length /= 3) {
      for (std::size_t i = 0; i < n; ++i) {
        if (!(kept_[i] > 0)) continue;
        const double root = 2 * std::sqrt(kept_[i]);
        const double alpha = std::max(0.05 * root, root + length * work.step[static_cast<Eigen::Index>(i)]);
        W_[i] = 0.25 * alpha * alpha;
        ln_W_[i] = std::log(W_[i]);
      }
      const double next = evaluate(trial, T_K, P_Pa, ln_f, true);
      if (!(next <= value + 1e-15)) continue;
      moved = true;
      value = next;
    }
    if (!moved) break;
  }
  // Whether or not the search has settled, the distance from the tangent plane decides.
  out.composition = w_;
  out.distance = -std::log(sum_);
  for (std::size_t i = 0; i < n; ++i) out.distance += w_[i] * change_[i];
}

std::optional<MoreStable> find_more_stable(Phase& trial, double T_K, double P_Pa,
                                           std::span<const double> ln_f) {
  TangentPlane plane;
  MoreStable best;
  for (const std::vector<double>& start : starts(ln_f)) {
    TangentMinimum minimum = plane.descend(trial, T_K, P_Pa, ln_f, start);
    const double excess = std::exp(-minimum.distance) - 1;
    if (excess > std::max(tolerance, best.excess)) best = {std::move(minimum.composition), excess};
  }
  if (best.composition.empty()) return std::nullopt;
  return best;
}

bool liquid_splits(Phase& liquid, double T_K, std::span<const double> x) {
  PhaseValues values(x.size());
  liquid.evaluate(T_K, standard_atmosphere, x, {}, values);
  std::vector<double> ln_f(x.size());
  for (std::size_t i = 0; i < x.size(); ++i) ln_f[i] = std::log(x[i]) + values.ln_phi[i];
  return find_more_stable(liquid, T_K, standard_atmosphere, ln_f).has_value();
}

}  // namespace jampot
