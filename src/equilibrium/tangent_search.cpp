#include "jampot/equilibrium/tangent_search.hpp"

#include <algorithm>
#include <cmath>

namespace jampot {

void TangentSearch::set_plane(Phase& of, double T_K, double P_Pa, std::span<const double> x) {
  const std::size_t n = x.size();
  if (ln_f_.size() != n) {
    values_ = PhaseValues(n);
    ln_f_.resize(n);
  }
  of.evaluate(T_K, P_Pa, x, {}, values_);
  for (std::size_t i = 0; i < n; ++i) ln_f_[i] = std::log(x[i]) + values_.ln_phi[i];
}

void TangentSearch::set_starts(std::span<const double> x) {
  const std::size_t n = x.size();
  // The nearly pure starts are the same as long as the same components are there.
  const bool same = starts_.size() > 3 && starts_.front().size() == n &&
                    std::equal(x.begin(), x.end(), starts_.front().begin(),
                               [](double now, double before) { return (now > 0) == (before > 0); });
  if (!same) starts_.resize(n + 3);
  std::size_t count = 0;
  const auto add = [&](auto&& amount) {
    std::vector<double>& start = starts_[count++];
    start.resize(n);
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) sum += start[i] = x[i] > 0 ? std::max(1e-300, amount(i)) : 0;
    for (double& value : start) value /= sum;
  };
  // What boils off first, x phi; what condenses first, x/phi.
  double heaviest = -HUGE_VAL, lightest = -HUGE_VAL;
  for (std::size_t i = 0; i < n; ++i) {
    if (!(x[i] > 0)) continue;
    heaviest = std::max(heaviest, values_.ln_phi[i]);
    lightest = std::max(lightest, -values_.ln_phi[i]);
  }
  add([&](std::size_t i) { return x[i] * std::exp(values_.ln_phi[i] - heaviest); });
  add([&](std::size_t i) { return x[i] * std::exp(-values_.ln_phi[i] - lightest); });
  add([](std::size_t) { return 1.0; });
  thorough_ = count;
  if (same) return;
  rich_.clear();
  for (std::size_t rich = 0; rich < n; ++rich) {
    if (!(x[rich] > 0)) continue;
    add([&](std::size_t i) { return i == rich ? 0.98 : 0.02 / static_cast<double>(n); });
    rich_.push_back(rich);
  }
  starts_.resize(count);
  ln_starts_ = starts_;
  for (std::vector<double>& start : ln_starts_) {
    for (double& value : start) value = std::log(value);
  }
}

const std::vector<TangentCandidate>& TangentSearch::all(Phase& of, double T_K, double P_Pa,
                                                        std::span<const double> x) {
  set_plane(of, T_K, P_Pa, x);
  set_starts(x);
  found_.clear();
  for (std::size_t kind = 0; kind < kinds_.size(); ++kind) {
    for (const std::vector<double>& start : starts_)
      found_.push_back({kind, plane_.descend(*kinds_[kind], T_K, P_Pa, ln_f_, start)});
  }
  std::sort(found_.begin(), found_.end(), [](const TangentCandidate& a, const TangentCandidate& b) {
    return a.minimum.distance < b.minimum.distance;
  });
  return found_;
}

const TangentCandidate& TangentSearch::below(std::span<const PhaseAmounts> phases, double T_K, double P_Pa,
                                             double below) {
  known_.resize(phases.size());
  for (std::size_t p = 0; p < phases.size(); ++p) {
    const double total = phases[p].total();
    known_[p].resize(phases[p].n.size());
    for (std::size_t i = 0; i < known_[p].size(); ++i) known_[p][i] = phases[p].n[i] / total;
  }
  set_plane(*phases[0].phase, T_K, P_Pa, known_[0]);
  set_starts(known_[0]);
  constexpr double clearly = -0.01, too_little = 1.9;
  DescentLimits limits;
  limits.enough = clearly;
  limits.known = known_;
  // So near to a phase the distance is under 1e-9 even where the mixture is about to part: it grows with the
  // fourth power. Phases that have parted are further from parting again.
  limits.near_known = phases.size() == 1 ? 3e-3 : 0.01;
  best_.minimum.distance = HUGE_VAL;
  const auto follow = [&](const std::vector<double>& start, std::optional<std::size_t> rich = std::nullopt) {
    for (std::size_t kind = 0; kind < kinds_.size(); ++kind) {
      if (rich) {
        const auto pure = kinds_[kind]->ln_phi_pure(*rich, T_K, P_Pa);
        if (pure && *pure - ln_f_[*rich] > limits.hopeless) continue;
      }
      trial_.kind = kind;
      plane_.descend(*kinds_[kind], T_K, P_Pa, ln_f_, start, limits, trial_.minimum);
      if (trial_.minimum.distance < best_.minimum.distance) std::swap(best_, trial_);
      if (best_.minimum.distance < below) return true;
    }
    return false;
  };
  for (std::size_t s = 0; s < starts_.size(); ++s) {
    limits.hopeless = s < thorough_ ? HUGE_VAL : too_little;
    limits.ln_start = s < thorough_ ? std::span<const double>() : std::span<const double>(ln_starts_[s]);
    if (follow(starts_[s], s < thorough_ ? std::nullopt : std::optional(rich_[s - thorough_]))) return best_;
  }
  // A third phase may lie in a hollow between two.
  limits.hopeless = HUGE_VAL;
  limits.ln_start = {};
  for (std::size_t p = 0; p < known_.size(); ++p) {
    for (std::size_t q = p + 1; q < known_.size(); ++q) {
      between_.resize(known_[p].size());
      for (std::size_t i = 0; i < between_.size(); ++i) between_[i] = (known_[p][i] + known_[q][i]) / 2;
      if (follow(between_)) return best_;
    }
  }
  return best_;
}

}  // namespace jampot
