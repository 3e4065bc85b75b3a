#include "jampot/equilibrium/tangent_search.hpp"

#include <algorithm>
#include <cmath>

namespace jampot {

void TangentSearch::set_starts(std::span<const double> x) {
  starts_.clear();
  const std::size_t n = x.size();
  const auto add = [&](auto&& amount) {
    std::vector<double> start(n);
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) sum += start[i] = x[i] > 0 ? std::max(1e-300, amount(i)) : 0;
    for (double& value : start) value /= sum;
    starts_.push_back(std::move(start));
  };
  double highest = -HUGE_VAL, lightest = -HUGE_VAL;
  for (std::size_t i = 0; i < n; ++i) {
    if (!(x[i] > 0)) continue;
    highest = std::max(highest, ln_f_[i]);
    lightest = std::max(lightest, 2 * std::log(x[i]) - ln_f_[i]);
  }
  add([&](std::size_t i) { return std::exp(ln_f_[i] - highest); });
  add([&](std::size_t i) { return std::exp(2 * std::log(x[i]) - ln_f_[i] - lightest); });
  add([](std::size_t) { return 1.0; });
  for (std::size_t rich = 0; rich < n; ++rich) {
    if (x[rich] > 0) add([&](std::size_t i) { return i == rich ? 0.98 : 0.02 / static_cast<double>(n); });
  }
}

const std::vector<TangentCandidate>& TangentSearch::all(Phase& of, double T_K, double P_Pa,
                                                        std::span<const double> x) {
  const std::size_t n = x.size();
  if (ln_f_.size() != n) {
    values_ = PhaseValues(n);
    ln_f_.resize(n);
  }
  of.evaluate(T_K, P_Pa, x, {}, values_);
  for (std::size_t i = 0; i < n; ++i) ln_f_[i] = std::log(x[i]) + values_.ln_phi[i];
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

}  // namespace jampot
