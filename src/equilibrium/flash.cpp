#include "jampot/equilibrium/flash.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/parting.hpp"
#include "jampot/equilibrium/rachford_rice.hpp"
#include "jampot/equilibrium/tangent_search.hpp"
#include "jampot/phase/fluid_phase.hpp"

namespace jampot {
namespace {

constexpr double flash_below = -1e-9;  // a distance that counts as below the plane

}  // namespace

double Flashed::vapour_fraction() const {
  double sum = 0;
  for (const FlashedPhase& phase : phases) sum += phase.vapour ? phase.amount : 0;
  return sum;
}

struct FlashSolver::Work {
  explicit Work(std::vector<Phase*> list)
      : kinds(std::move(list)), search(kinds), values(size()), other(size()) {}

  std::size_t size() const { return kinds.front()->size(); }

  const Flashed& flash(double T, double P, std::span<const double> feed) {
    T_K = T;
    P_Pa = P;
    z.assign(feed.begin(), feed.end());
    phases.resize(1);
    phases[0].phase = kinds[best_single()];
    phases[0].n = z;
    result.residual = 0;
    constexpr int most_rounds = 12;
    int round = 0;
    for (; round < most_rounds; ++round) {
      const TangentCandidate& lowest = search.below(phases, T_K, P_Pa, flash_below);
      result.distance = lowest.minimum.distance;
      if (!(lowest.minimum.distance < flash_below)) break;
      Phase& kind = *kinds[lowest.kind];
      if (phases.size() > 1 || !part_in_two(kind, lowest.minimum.composition))
        solver.begin_phase(phases, kind, lowest.minimum.composition, T_K, P_Pa);
      result.residual = solver.settle(phases, T_K, P_Pa).residual;
    }
    if (round == most_rounds)
      throw CalculationError(
          "the phases of this feed did not settle: a further one lowers the Gibbs energy again and again");
    take();
    return result;
  }

  void take() {
    result.phases.resize(phases.size());
    for (std::size_t p = 0; p < phases.size(); ++p) {
      FlashedPhase& phase = result.phases[p];
      phase.kind =
          static_cast<std::size_t>(std::find(kinds.begin(), kinds.end(), phases[p].phase) - kinds.begin());
      phase.amount = phases[p].total();
      phase.x.assign(phases[p].n.begin(), phases[p].n.end());
      for (double& value : phase.x) value /= phase.amount;
      phase.vapour = is_vapour(phase, phases.size() == 1 ? search.values().v_m3_mol : solver.volume(p));
    }
  }

  bool is_vapour(const FlashedPhase& phase, double v_m3_mol) {
    if (kinds.size() > 1) return phase.kind == 0;
    auto* fluid = dynamic_cast<FluidPhase*>(kinds[phase.kind]);
    return fluid != nullptr && fluid->equation().vapour_like(T_K, v_m3_mol, phase.x);
  }

  std::size_t best_single() {
    if (kinds.size() == 1) return 0;
    std::size_t best = 0;
    double least = HUGE_VAL;
    for (std::size_t k = 0; k < kinds.size(); ++k) {
      kinds[k]->evaluate(T_K, P_Pa, z, {}, values);
      double gibbs = 0;
      for (std::size_t i = 0; i < z.size(); ++i) gibbs += z[i] > 0 ? z[i] * values.ln_phi[i] : 0;
      if (gibbs < least) {
        least = gibbs;
        best = k;
      }
    }
    return best;
  }

  // A feed and a phase w below its plane: substitution in the K values, as long as the Gibbs energy falls.
  // False where it does not come below that of the feed.
  bool part_in_two(Phase& kind, const std::vector<double>& w) {
    const std::size_t n = z.size();
    Phase& first = *phases[0].phase;
    const std::vector<double>& ln_phi = search.values().ln_phi;  // of the feed, whose plane was searched
    double least = 0;
    for (std::size_t i = 0; i < n; ++i) least += z[i] > 0 ? z[i] * (std::log(z[i]) + ln_phi[i]) : 0;
    K.resize(n);
    ln_K.resize(n);
    kind.evaluate(T_K, P_Pa, w, {}, other);
    for (std::size_t i = 0; i < n; ++i) K[i] = std::exp(ln_K[i] = ln_phi[i] - other.ln_phi[i]);
    bool better = false;
    constexpr int most = 5;
    for (int k = 0; k < most; ++k) {
      const double V = rachford_rice(z, K);
      if (!(V > 0 && V < 1)) return better;
      x.resize(n);
      y.resize(n);
      double sum_x = 0, sum_y = 0;
      for (std::size_t i = 0; i < n; ++i) {
        sum_x += x[i] = z[i] / (1 + V * (K[i] - 1));
        sum_y += y[i] = K[i] * x[i];
      }
      for (std::size_t i = 0; i < n; ++i) {
        x[i] /= sum_x;
        y[i] /= sum_y;
      }
      const double ln_sums = std::log(sum_x / sum_y);
      first.evaluate(T_K, P_Pa, x, {}, values);
      kind.evaluate(T_K, P_Pa, y, {}, other);
      double gibbs = 0;
      for (std::size_t i = 0; i < n; ++i) {
        if (!(z[i] > 0)) continue;
        const double ln_x = std::log(x[i]), ln_y = ln_x + ln_K[i] + ln_sums;
        gibbs += (1 - V) * x[i] * (ln_x + values.ln_phi[i]) + V * y[i] * (ln_y + other.ln_phi[i]);
      }
      if (!(gibbs < least)) return better;
      least = gibbs;
      better = true;
      phases.resize(2);
      phases[1].phase = &kind;
      phases[1].n.resize(n);
      for (std::size_t i = 0; i < n; ++i) {
        phases[1].n[i] = V * y[i];
        phases[0].n[i] = z[i] - phases[1].n[i];
        // What is nearly all in one phase keeps its digits in the other.
        if (phases[0].n[i] < 1e-3 * z[i]) phases[0].n[i] = (1 - V) * x[i];
        if (phases[0].n[i] < 1e-3 * z[i]) phases[1].n[i] = z[i] - phases[0].n[i];
        K[i] = std::exp(ln_K[i] = values.ln_phi[i] - other.ln_phi[i]);
      }
    }
    return better;
  }

  std::vector<Phase*> kinds;
  double T_K = 0, P_Pa = 0;
  std::vector<double> z, K, ln_K, x, y;
  std::vector<PhaseAmounts> phases;
  PartingSolver solver;
  TangentSearch search;
  PhaseValues values, other;
  Flashed result;
};

FlashSolver::FlashSolver(std::vector<Phase*> kinds) {
  if (kinds.empty()) throw RequestError("a flash needs at least one kind of phase");
  for (const Phase* kind : kinds) {
    if (kind == nullptr) throw RequestError("a kind of phase is a null pointer");
    demand_size(kind->size(), kinds.front()->size(), "substances of a kind of phase");
  }
  work_ = std::make_unique<Work>(std::move(kinds));
}
FlashSolver::~FlashSolver() = default;

const Flashed& FlashSolver::flash(const State& at, std::span<const double> z) {
  const double T_K = at.T.value, P_Pa = at.P.value;
  demand_temperature(T_K);
  demand_pressure(P_Pa);
  demand_fractions(z, work_->size());
  return work_->flash(T_K, P_Pa, z);
}

Flashed flash(const std::vector<Phase*>& kinds, const State& at, std::span<const double> z) {
  return FlashSolver(kinds).flash(at, z);
}

}  // namespace jampot
