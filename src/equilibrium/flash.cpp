#include "jampot/equilibrium/flash.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/stability.hpp"

namespace jampot {
namespace {

constexpr double below = -1e-9;  // a distance that counts as below the plane

struct Candidate {
  std::size_t kind = 0;
  TangentMinimum minimum{{}, HUGE_VAL};
};

class Flash {
 public:
  Flash(const std::vector<Phase*>& kinds, double T_K, double P_Pa, std::span<const double> z)
      : kinds_(kinds), T_K_(T_K), P_Pa_(P_Pa), z_(z.begin(), z.end()) {}

  Flashed solve() {
    std::vector<PhaseAmounts> phases{{kinds_[best_single()], z_}};
    Flashed result;
    constexpr int most_rounds = 12;
    for (int round = 0; round < most_rounds; ++round) {
      const Candidate lowest = search(phases.front());
      result.distance = lowest.minimum.distance;
      if (!(lowest.minimum.distance < below)) break;
      solver_.begin_phase(phases, *kinds_[lowest.kind], lowest.minimum.composition, T_K_, P_Pa_);
      result.residual = solver_.settle(phases, T_K_, P_Pa_).residual;
    }
    if (result.distance < below)
      throw CalculationError(
          "the phases of this feed did not settle: a further one lowers the Gibbs energy again and again");
    for (const PhaseAmounts& phase : phases) {
      const auto kind = std::find(kinds_.begin(), kinds_.end(), phase.phase) - kinds_.begin();
      result.phases.push_back({static_cast<std::size_t>(kind), phase.fractions(), phase.total()});
    }
    return result;
  }

 private:
  std::vector<double> ln_fugacities(Phase& phase, const std::vector<double>& x) {
    PhaseValues values(x.size());
    phase.evaluate(T_K_, P_Pa_, x, {}, values);
    std::vector<double> ln_f(x.size());
    for (std::size_t i = 0; i < x.size(); ++i) ln_f[i] = std::log(x[i]) + values.ln_phi[i];
    return ln_f;
  }

  std::size_t best_single() {
    std::size_t best = 0;
    double least = HUGE_VAL;
    for (std::size_t k = 0; k < kinds_.size(); ++k) {
      const std::vector<double> ln_f = ln_fugacities(*kinds_[k], z_);
      double gibbs = 0;
      for (std::size_t i = 0; i < z_.size(); ++i) {
        if (z_[i] > 0) gibbs += z_[i] * ln_f[i];
      }
      if (gibbs < least) {
        least = gibbs;
        best = k;
      }
    }
    return best;
  }

  // The lowest point below the tangent plane of a phase, in every kind.
  Candidate search(const PhaseAmounts& phase) {
    const std::vector<double> x = phase.fractions(), ln_f = ln_fugacities(*phase.phase, x);
    Candidate lowest;
    for (std::size_t kind = 0; kind < kinds_.size(); ++kind) {
      for (const std::vector<double>& start : starts(x, ln_f)) {
        TangentMinimum found = plane_.descend(*kinds_[kind], T_K_, P_Pa_, ln_f, start);
        if (found.distance < lowest.minimum.distance) lowest = {kind, std::move(found)};
      }
    }
    return lowest;
  }

  // Every nearly pure component; what boils off first and what condenses first; the middle.
  static std::vector<std::vector<double>> starts(const std::vector<double>& x,
                                                 const std::vector<double>& ln_f) {
    std::vector<std::vector<double>> list;
    const std::size_t n = x.size();
    const auto add = [&](auto&& amount) {
      std::vector<double> start(n);
      double sum = 0;
      for (std::size_t i = 0; i < n; ++i) sum += start[i] = x[i] > 0 ? std::max(1e-300, amount(i)) : 0;
      for (double& value : start) value /= sum;
      list.push_back(std::move(start));
    };
    double highest = -HUGE_VAL;
    for (const double value : ln_f) highest = std::max(highest, value);
    add([&](std::size_t i) { return std::exp(ln_f[i] - highest); });
    double lightest = -HUGE_VAL;
    for (std::size_t i = 0; i < n; ++i) {
      if (x[i] > 0) lightest = std::max(lightest, 2 * std::log(x[i]) - ln_f[i]);
    }
    add([&](std::size_t i) { return std::exp(2 * std::log(x[i]) - ln_f[i] - lightest); });
    add([](std::size_t) { return 1.0; });
    for (std::size_t rich = 0; rich < n; ++rich) {
      if (x[rich] > 0) add([&](std::size_t i) { return i == rich ? 0.98 : 0.02 / static_cast<double>(n); });
    }
    return list;
  }

  const std::vector<Phase*>& kinds_;
  double T_K_, P_Pa_;
  std::vector<double> z_;
  PartingSolver solver_;
  TangentPlane plane_;
};

}  // namespace

Flashed flash(const std::vector<Phase*>& kinds, double T_K, double P_Pa, std::span<const double> z) {
  return Flash(kinds, T_K, P_Pa, z).solve();
}

}  // namespace jampot
