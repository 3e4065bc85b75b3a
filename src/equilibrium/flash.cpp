#include "jampot/equilibrium/flash.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/tangent_search.hpp"
#include "jampot/phase/fluid_phase.hpp"

namespace jampot {
namespace {

constexpr double below = -1e-9;  // a distance that counts as below the plane

class Flash {
 public:
  Flash(const std::vector<Phase*>& kinds, double T_K, double P_Pa, std::span<const double> z)
      : kinds_(kinds), T_K_(T_K), P_Pa_(P_Pa), z_(z.begin(), z.end()), search_(kinds) {}

  Flashed solve() {
    std::vector<PhaseAmounts> phases{{kinds_[best_single()], z_}};
    Flashed result;
    constexpr int most_rounds = 12;
    for (int round = 0; round < most_rounds; ++round) {
      const PhaseAmounts& first = phases.front();
      const TangentCandidate& lowest = search_.lowest(*first.phase, T_K_, P_Pa_, first.fractions());
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
      FlashedPhase flashed{static_cast<std::size_t>(kind), phase.fractions(), phase.total(), false};
      flashed.vapour = is_vapour(flashed);
      result.phases.push_back(std::move(flashed));
    }
    return result;
  }

 private:
  bool is_vapour(const FlashedPhase& phase) {
    if (kinds_.size() > 1) return phase.kind == 0;
    auto* fluid = dynamic_cast<FluidPhase*>(kinds_[phase.kind]);
    if (fluid == nullptr) return false;
    PhaseValues values(phase.x.size());
    fluid->evaluate(T_K_, P_Pa_, phase.x, {}, values);
    return fluid->equation().vapour_like(T_K_, fluid->untranslated_volume(), phase.x);
  }

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

  const std::vector<Phase*>& kinds_;
  double T_K_, P_Pa_;
  std::vector<double> z_;
  PartingSolver solver_;
  TangentSearch search_;
};

}  // namespace

double Flashed::vapour_fraction() const {
  double sum = 0;
  for (const FlashedPhase& phase : phases) sum += phase.vapour ? phase.amount : 0;
  return sum;
}

Flashed flash(const std::vector<Phase*>& kinds, double T_K, double P_Pa, std::span<const double> z) {
  return Flash(kinds, T_K, P_Pa, z).solve();
}

}  // namespace jampot
