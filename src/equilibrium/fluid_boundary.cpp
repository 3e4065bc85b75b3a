#include "jampot/equilibrium/fluid_boundary.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/equilibrium/tangent_search.hpp"

namespace jampot {
namespace {

constexpr double boundary_below = -1e-8;  // a distance that counts as below the plane

class BoundarySearch {
 public:
  BoundarySearch(Mixture& mixture, Sought sought, double held, std::span<const double> z, bool bubble)
      : mixture_(mixture),
        fluid_(static_cast<FluidPhase&>(*mixture.kinds().front())),
        sought_(sought),
        held_(held),
        z_(z),
        bubble_(bubble),
        search_({&fluid_}),
        values_(z.size()) {}

  std::optional<FluidBoundary> solve() {
    if (auto found = from_vapour_pressures()) return found;
    return from_stability();
  }

 private:
  double T_K(double q) const { return sought_ == Sought::temperature ? q : held_; }
  double P_Pa(double q) const { return sought_ == Sought::temperature ? held_ : std::exp(q); }

  // Vapour pressure by the correlation or, without one, by the rule of Wilson from the critical point.
  double ln_Psat(std::size_t i, double T) const {
    const Substance& s = mixture_.substances()[i];
    if (s.Tc_K && s.Pc_Pa && s.acentric_factor && (!s.vapour_pressure || T > *s.Tc_K))
      return std::log(*s.Pc_Pa) + 5.373 * (1 + *s.acentric_factor) * (1 - *s.Tc_K / T);
    return s.vapour_pressure ? s.vapour_pressure->ln_P(T) : std::log(1e5);
  }

  std::optional<FluidBoundary> from_vapour_pressures() {
    IncipientState state(z_.size());
    state.T_K = sought_ == Sought::temperature ? 0 : held_;
    state.P_Pa = held_;
    const auto ln_P = [&](double T) {  // Raoult's law
      double sum = 0;
      for (std::size_t i = 0; i < z_.size(); ++i)
        sum += z_[i] * std::exp(bubble_ ? ln_Psat(i, T) : -ln_Psat(i, T));
      return bubble_ ? std::log(sum) : -std::log(sum);
    };
    if (sought_ == Sought::temperature) {
      double low = 30, high = 2000;
      for (int k = 0; k < 30; ++k) {
        const double middle = (low + high) / 2;
        (ln_P(middle) < std::log(held_) ? low : high) = middle;
      }
      state.T_K = low;
    } else {
      state.P_Pa = std::exp(ln_P(held_));
    }
    double sum = 0;
    for (std::size_t i = 0; i < z_.size(); ++i)
      sum += state.w[i] =
          z_[i] * std::exp((bubble_ ? 1 : -1) * (ln_Psat(i, state.T_K) - std::log(state.P_Pa)));
    for (double& value : state.w) value /= sum;
    Phase &known = bubble_ ? mixture_.liquid() : mixture_.vapour(),
          &incipient = bubble_ ? mixture_.vapour() : mixture_.liquid();
    IncipientSolver solver(known, incipient);
    if (!solver.solve(sought_, z_, state)) return std::nullopt;
    return checked(state);
  }

  // Neither trivial nor above another vapour-liquid equilibrium.
  std::optional<FluidBoundary> checked(const IncipientState& state) {
    double most = 0;
    for (std::size_t i = 0; i < z_.size(); ++i) {
      if (z_[i] > 0) most = std::max(most, std::abs(state.ln_K[i]));
    }
    const double ratio = thinness(state.T_K, state.P_Pa, state.w) / thinness(state.T_K, state.P_Pa, z_);
    if (most < 1e-6 && std::abs(ratio - 1) < 1e-6) return std::nullopt;
    if ((ratio > 1) != bubble_) return std::nullopt;
    FluidBoundary found{state, false};
    bool undercut = false;
    for (const TangentCandidate& candidate : search_.all(fluid_, state.T_K, state.P_Pa, z_)) {
      if (!(candidate.minimum.distance < boundary_below)) break;
      (counts(state.T_K, state.P_Pa, candidate.minimum.composition) ? undercut : found.splits) = true;
    }
    // Beside a further liquid there may be its vapour too; without one this is not the boundary.
    if (undercut && !(bubble_ && found.splits)) return std::nullopt;
    return found;
  }

  double thinness(double T, double P, std::span<const double> x) {
    fluid_.evaluate(T, P, x, {}, values_);
    return fluid_.state().v_m3_mol;
  }

  // Whether a trial phase is of the kind that is looked for: lighter than z for a bubble, heavier for a dew.
  bool counts(double T, double P, std::span<const double> w) {
    const double v_z = thinness(T, P, z_), v_w = thinness(T, P, w);
    const bool vapour = mixture_.equation()->vapour_like(T, v_w, w);
    constexpr double clearly = 1.3;  // two liquids of one mixture differ by less
    return bubble_ ? v_w > v_z && (vapour || v_w > clearly * v_z)
                   : v_w < v_z && (!vapour || v_w < v_z / clearly);
  }

  // The lowest trial of the kind looked for; nothing where none lies below the plane.
  std::optional<std::vector<double>> incipient(double q) {
    const double T = T_K(q), P = P_Pa(q);
    for (const TangentCandidate& candidate : search_.all(fluid_, T, P, z_)) {
      if (!(candidate.minimum.distance < boundary_below)) break;
      if (counts(T, P, candidate.minimum.composition)) return candidate.minimum.composition;
    }
    return std::nullopt;
  }

  // From the side on which z is a liquid (bubble) or a vapour (dew) to the other.
  std::vector<double> grid() const {
    std::vector<double> list;
    if (sought_ == Sought::pressure) {
      for (double q = std::log(0.1); q < std::log(2e9); q += 0.2) list.push_back(q);
      if (bubble_) std::reverse(list.begin(), list.end());
      return list;
    }
    double coldest = HUGE_VAL, hottest = 0;
    for (const Substance& s : mixture_.substances()) {
      const double Tc = s.Tc_K ? s.Tc_K->value : s.Tb_K ? 1.5 * *s.Tb_K : 600;
      coldest = std::min(coldest, 0.25 * Tc);
      hottest = std::max(hottest, 1.3 * Tc);
    }
    for (double T = coldest; T < hottest; T *= 1.02) list.push_back(T);
    if (!bubble_) std::reverse(list.begin(), list.end());
    return list;
  }

  std::optional<FluidBoundary> from_stability() {
    std::optional<double> before;
    for (const double q : grid()) {
      auto w = incipient(q);
      if (!w) {
        before = q;
        continue;
      }
      if (!before) continue;  // no end of the region on this side
      double stable = *before, unstable = q;
      const double fine = 1e-4 * (sought_ == Sought::temperature ? q : 1);
      while (std::abs(unstable - stable) > fine) {
        const double middle = (stable + unstable) / 2;
        if (auto there = incipient(middle)) {
          unstable = middle;
          w = std::move(there);
        } else {
          stable = middle;
        }
      }
      IncipientState state(z_.size());
      state.T_K = T_K(unstable);
      state.P_Pa = P_Pa(unstable);
      state.w = *w;
      IncipientSolver solver(fluid_, fluid_);
      if (solver.solve(sought_, z_, state)) {
        if (auto found = checked(state)) return found;
      }
      return std::nullopt;
    }
    return std::nullopt;
  }

  Mixture& mixture_;
  FluidPhase& fluid_;
  Sought sought_;
  double held_;
  std::span<const double> z_;
  bool bubble_;
  TangentSearch search_;
  PhaseValues values_;
};

}  // namespace

std::optional<FluidBoundary> fluid_boundary(Mixture& mixture, Sought sought, double held,
                                            std::span<const double> z, bool bubble) {
  demand_positive(held, "the temperature or pressure");
  demand_fractions(z, mixture.size());
  return BoundarySearch(mixture, sought, held, z, bubble).solve();
}

}  // namespace jampot
