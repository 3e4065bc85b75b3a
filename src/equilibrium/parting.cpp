#include "jampot/equilibrium/parting.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "../basis/dense.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

struct PartingSolver::Work {
  Eigen::MatrixXd hessian;
  DownhillStep downhill;
  Eigen::VectorXd gradient, scale, step;
};
namespace {

// A phase of less than this, in moles per mole of the whole, is taken as gone.
constexpr double nothing = 1e-12;

}  // namespace

double PhaseAmounts::total() const {
  return std::accumulate(n.begin(), n.end(), 0.0);
}

std::vector<double> PhaseAmounts::fractions() const {
  std::vector<double> x = n;
  const double sum = total();
  for (double& value : x) value /= sum;
  return x;
}

// The Gibbs energy; keeps mole fractions and ln phi of every phase, with derivatives where wanted.
double PartingSolver::evaluate(std::span<PhaseAmounts> phases, double T_K, double P_Pa, bool derivatives) {
  const std::size_t components = phases.front().n.size();
  if (values_.size() < phases.size() || values_.front().ln_phi.size() != components) {
    values_.assign(phases.size(), PhaseValues(components));
    x_.assign(phases.size(), std::vector<double>(components));
    potential_ = x_;
    totals_.assign(phases.size(), 0);
  }
  Wanted wanted;
  wanted.composition = derivatives;
  double gibbs = 0;
  for (std::size_t p = 0; p < phases.size(); ++p) {
    totals_[p] = phases[p].total();
    for (std::size_t i = 0; i < components; ++i) x_[p][i] = phases[p].n[i] / totals_[p];
    phases[p].phase->evaluate(T_K, P_Pa, x_[p], wanted, values_[p]);
    for (std::size_t i = 0; i < components; ++i) {
      if (!(phases[p].n[i] > 0)) continue;
      potential_[p][i] = std::log(x_[p][i]) + values_[p].ln_phi[i];
      gibbs += phases[p].n[i] * potential_[p][i];
    }
  }
  return gibbs;
}

// Of each component the phase that holds most of it takes up the difference, so that small amounts keep their
// digits.
void PartingSolver::choose_variables(std::span<const PhaseAmounts> phases) {
  variables_.clear();
  const std::size_t components = phases.front().n.size();
  for (std::size_t i = 0; i < components; ++i) {
    std::size_t rest = 0;
    for (std::size_t p = 1; p < phases.size(); ++p) {
      if (phases[p].n[i] > phases[rest].n[i]) rest = p;
    }
    for (std::size_t p = 0; p < phases.size(); ++p) {
      if (p != rest && phases[p].n[i] > 0) variables_.push_back({i, p, rest});
    }
  }
}

// Gradient and Hessian of the Gibbs energy, each variable scaled by the root of its amount.
void PartingSolver::assemble(std::span<const PhaseAmounts> phases) {
  Work& work = *work_;
  const auto size = std::ssize(variables_);
  const std::size_t components = phases.front().n.size();
  work.gradient.resize(size);
  work.scale.resize(size);
  work.hessian.resize(size, size);
  const auto second = [&](std::size_t p, std::size_t i, std::size_t j) {
    return ((i == j ? 1 / x_[p][i] : 0) - 1 + values_[p].dn[i * components + j]) * by_total_[p];
  };
  by_total_.resize(phases.size());
  for (std::size_t p = 0; p < phases.size(); ++p) by_total_[p] = 1 / totals_[p];
  for (Eigen::Index a = 0; a < size; ++a) {
    const Variable& va = variables_[static_cast<std::size_t>(a)];
    work.scale[a] = std::sqrt(phases[va.phase].n[va.component]);
    work.gradient[a] = potential_[va.phase][va.component] - potential_[va.rest][va.component];
    for (Eigen::Index b = 0; b <= a; ++b) {
      const Variable& vb = variables_[static_cast<std::size_t>(b)];
      double sum = 0;
      if (va.phase == vb.phase) sum += second(va.phase, va.component, vb.component);
      if (va.rest == vb.rest) sum += second(va.rest, va.component, vb.component);
      if (va.phase == vb.rest) sum -= second(va.phase, va.component, vb.component);
      if (va.rest == vb.phase) sum -= second(va.rest, va.component, vb.component);
      work.hessian(a, b) = work.hessian(b, a) = sum * work.scale[a] * work.scale[b];
    }
  }
}

Parting PartingSolver::solve(std::span<PhaseAmounts> phases, double T_K, double P_Pa) {
  Work& work = *work_;
  Parting result;
  trial_.assign(phases.begin(), phases.end());
  result.gibbs = evaluate(phases, T_K, P_Pa, true);
  double before = HUGE_VAL;
  constexpr int most_iterations = 200;
  for (; result.iterations < most_iterations; ++result.iterations) {
    choose_variables(phases);
    assemble(phases);
    result.residual = work.gradient.size() == 0 ? 0 : work.gradient.cwiseAbs().maxCoeff();
    // Down to rounding: as long as a step still helps.
    if (result.residual < 1e-12 || (result.residual < 1e-11 && result.residual > 0.5 * before)) break;
    before = result.residual;

    work.step = -(work.scale.asDiagonal() * work.gradient);
    work.downhill.take(work.hessian, 1e-9, work.step);
    work.step.array() *= work.scale.array();
    if (!work.step.allFinite()) return result;
    double length = 1;
    constexpr double keep = 0.95;  // no amount loses more than this share of itself in one step
    for (std::size_t a = 0; a < variables_.size(); ++a) {
      const double change = work.step[static_cast<Eigen::Index>(a)];
      const auto& [i, p, rest] = variables_[a];
      if (change < 0) length = std::min(length, keep * phases[p].n[i] / -change);
    }
    // What `rest` gives away altogether.
    for (std::size_t a = 0; a < variables_.size(); ++a) {
      double given = 0;
      for (std::size_t b = 0; b < variables_.size(); ++b) {
        if (variables_[b].component == variables_[a].component)
          given += work.step[static_cast<Eigen::Index>(b)];
      }
      const double held = phases[variables_[a].rest].n[variables_[a].component];
      if (given > 0) length = std::min(length, keep * held / given);
    }
    const double slope = work.gradient.dot(work.step);
    bool moved = false;
    for (int halving = 0; halving < 40 && !moved; ++halving, length /= 2) {
      for (std::size_t p = 0; p < phases.size(); ++p) trial_[p].n = phases[p].n;
      for (std::size_t a = 0; a < variables_.size(); ++a) {
        const double change = length * work.step[static_cast<Eigen::Index>(a)];
        const auto& [i, p, rest] = variables_[a];
        trial_[p].n[i] += change;
        trial_[rest].n[i] -= change;
      }
      const double gibbs = evaluate(trial_, T_K, P_Pa, true);
      const double rounding = 1e-14 * (1 + std::abs(result.gibbs));
      if (!(gibbs <= result.gibbs + 1e-4 * length * slope + rounding)) continue;
      for (std::size_t p = 0; p < phases.size(); ++p) phases[p].n = trial_[p].n;
      result.gibbs = gibbs;
      moved = true;
    }
    if (!moved) break;
    for (std::size_t p = 0; p < phases.size(); ++p) {
      if (totals_[p] < nothing) {
        result.vanished = static_cast<int>(p);
        return result;
      }
    }
  }
  constexpr double accepted = 1e-10;
  result.converged = result.residual < accepted;
  return result;
}

void PartingSolver::begin_phase(std::vector<PhaseAmounts>& phases, Phase& kind, std::span<const double> w,
                                double T_K, double P_Pa) {
  std::vector<double> z(w.size());
  for (const PhaseAmounts& phase : phases) {
    for (std::size_t i = 0; i < z.size(); ++i) z[i] += phase.n[i];
  }
  double most = HUGE_VAL;
  for (std::size_t i = 0; i < z.size(); ++i) {
    if (w[i] > 0) most = std::min(most, z[i] / w[i]);
  }
  double least = evaluate(phases, T_K, P_Pa, false);
  const std::vector<PhaseAmounts> given = phases;
  std::vector<PhaseAmounts> best;
  for (double share = 0.8; share > 1e-9; share *= 0.4) {
    phases = given;
    PhaseAmounts fresh{&kind, std::vector<double>(z.size())};
    for (std::size_t i = 0; i < z.size(); ++i) {
      if (!(z[i] > 0)) continue;
      const double taken = share * most * w[i] / z[i];
      for (PhaseAmounts& phase : phases) phase.n[i] *= 1 - taken;
      fresh.n[i] = share * most * w[i];
    }
    phases.push_back(std::move(fresh));
    const double now = evaluate(phases, T_K, P_Pa, false);
    if (now < least) {
      least = now;
      best = phases;
    } else if (!best.empty()) {
      break;  // past the lowest of the shares tried
    }
  }
  if (!best.empty()) phases = std::move(best);  // otherwise the smallest share stands
}

Parting PartingSolver::settle(std::vector<PhaseAmounts>& phases, double T_K, double P_Pa) {
  constexpr double same = 1e-6;  // two phases whose fractions differ by less are one
  for (;;) {
    const Parting parting = solve(phases, T_K, P_Pa);
    std::size_t gone = phases.size();
    if (parting.vanished >= 0) {
      gone = static_cast<std::size_t>(parting.vanished);
    } else {
      for (std::size_t a = 0; a < phases.size(); ++a) {
        for (std::size_t b = a + 1; b < phases.size(); ++b) {
          double most = 0;
          for (std::size_t i = 0; i < x_[a].size(); ++i)
            most = std::max(
                most, std::abs(phases[a].n[i] / phases[a].total() - phases[b].n[i] / phases[b].total()));
          if (most < same && phases[a].phase == phases[b].phase) gone = b;
        }
      }
      if (gone == phases.size() && !parting.converged) {
        throw CalculationError(
            fmt::format("the phases of this mixture did not settle into an equilibrium: ln(x phi) still "
                        "differ by {:.1e} after {} steps",
                        parting.residual, parting.iterations));
      }
    }
    if (gone == phases.size()) return parting;
    std::size_t largest = gone == 0 ? 1 : 0;
    for (std::size_t p = 0; p < phases.size(); ++p) {
      if (p != gone && phases[p].total() > phases[largest].total()) largest = p;
    }
    for (std::size_t i = 0; i < phases[gone].n.size(); ++i) phases[largest].n[i] += phases[gone].n[i];
    phases.erase(phases.begin() + static_cast<std::ptrdiff_t>(gone));
    if (phases.size() == 1) {
      Parting single = parting;
      single.converged = true;
      single.residual = 0;
      return single;
    }
  }
}

}  // namespace jampot
