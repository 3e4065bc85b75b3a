#pragma once
// Would a phase rather be two? The tangent-plane test of Michelsen.
#include <cmath>
#include <optional>
#include <span>
#include <vector>

#include "jampot/basis/hidden.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A composition whose phase would lower the Gibbs energy.
struct MoreStable {
  std::vector<double> composition;  ///< of the phase that is more stable
  double excess =
      0;  ///< sum of the unnormalised mole numbers minus one: positive where it lowers the Gibbs energy
};

/// Where one descent on the tangent-plane distance ended.
struct TangentMinimum {
  std::vector<double> composition;  ///< mole fractions at the minimum
  double distance = 0;  ///< sum w_i (ln w_i + ln phi_i(w) - ln f_i), in units of RT; negative: more stable
};

/// When a descent may end early.
struct DescentLimits {
  double enough = -HUGE_VAL;   ///< a distance below which it does not matter how deep it goes
  double hopeless = HUGE_VAL;  ///< a distance at the start above which it is not worth going
  /// Compositions that are known to lie on the plane; a descent that comes as near as this to one of them
  /// ends there.
  std::span<const std::vector<double>> known{};
  double near_known = 0;               ///< distance to a known composition below which a descent ends
  std::span<const double> ln_start{};  ///< logarithms of the start, where they are known already
};

/// Descends on the tangent-plane distance of a trial phase. Keeps its scratch space between calls.
///
/// Source: M. L. Michelsen, Fluid Phase Equilib. 9 (1982) 1-19: a few substitutions on the mole numbers W_i,
/// then Newton's method in 2 sqrt(W_i).
class TangentPlane {
 public:
  /// @param ln_f ln z_i + ln phi_i(z) of the phase under test; -infinity where a component is absent
  /// @param w where to start; every present component positive
  TangentMinimum descend(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f,
                         std::span<const double> w);
  /// The same into storage of the caller's.
  void descend(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f, std::span<const double> w,
               const DescentLimits& limits, TangentMinimum& out);

 private:
  double evaluate(Phase& trial, double T_K, double P_Pa, std::span<const double> ln_f, bool derivatives);
  bool beside_known(const DescentLimits& limits) const;

  PhaseValues values_;
  std::vector<double> W_, ln_W_, root_, w_, kept_, change_;
  double sum_ = 1;

  struct Work;  ///< scratch and its linear algebra
  Hidden<Work> work_;
};

/// Looks for a composition w of `trial` whose tangent-plane distance from the phase with ln f_i = `ln_f`
/// (logarithm of fugacity over pressure, i.e. ln z_i + ln phi_i) is negative at T_K, P_Pa. Starts from every
/// nearly pure component and from the middle. Components with ln_f = -infinity are absent.
std::optional<MoreStable> find_more_stable(Phase& trial, double T_K, double P_Pa,
                                           std::span<const double> ln_f);

/// Whether the liquid of composition x splits at T_K (the pressure has no influence on an activity model).
bool liquid_splits(Phase& liquid, double T_K, std::span<const double> x);

}  // namespace jampot
