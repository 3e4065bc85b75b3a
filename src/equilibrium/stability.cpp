#include "jampot/equilibrium/stability.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"

namespace jampot {
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

std::optional<MoreStable> find_more_stable(Phase& trial, double T_K, double P_Pa,
                                           std::span<const double> ln_f) {
  const std::size_t n = ln_f.size();
  PhaseValues values(n);
  MoreStable best;
  for (std::vector<double>& w : starts(ln_f)) {
    double damping = 1, last_change = HUGE_VAL;
    constexpr int most_iterations = 300;
    for (int iteration = 0; iteration < most_iterations; ++iteration) {
      trial.evaluate(T_K, P_Pa, w, {}, values);
      std::vector<double> next(n);
      double sum = 0;
      for (std::size_t i = 0; i < n; ++i) {
        next[i] = std::isfinite(ln_f[i]) ? std::exp(ln_f[i] - values.ln_phi[i]) : 0;
        sum += next[i];
      }
      double change = 0;
      for (std::size_t i = 0; i < n; ++i) {
        next[i] = w[i] + damping * (next[i] / sum - w[i]);
        change = std::max(change, std::abs(next[i] - w[i]));
      }
      w = std::move(next);
      if (change < 1e-12) break;
      // Where the liquid is far more stable than an ideal one, plain substitution swings ever wider.
      if (change > 0.9 * last_change) damping = std::max(0.1, 0.7 * damping);
      last_change = change;
    }
    // Whether or not the search has settled, the distance from the tangent plane decides.
    trial.evaluate(T_K, P_Pa, w, {}, values);
    double distance = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (w[i] > 0) distance += w[i] * (std::log(w[i]) + values.ln_phi[i] - ln_f[i]);
    }
    const double excess = std::exp(-distance) - 1;
    if (excess > std::max(tolerance, best.excess)) best = {w, excess};
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
