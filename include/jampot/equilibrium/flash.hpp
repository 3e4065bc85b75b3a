#pragma once
// What a feed becomes at given temperature and pressure: one, two or three phases.
#include <vector>

#include "jampot/equilibrium/parting.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A phase of a flashed feed.
struct FlashedPhase {
  std::size_t kind = 0;   ///< number of its description among those given
  std::vector<double> x;  ///< mole fractions
  double amount = 0;      ///< moles per mole of feed
  /// Whether it is a vapour: of the description that comes first of two, or thinner than at the critical
  /// point of its equation of state.
  bool vapour = false;
};

struct Flashed {
  std::vector<FlashedPhase> phases;
  double residual = 0;  ///< largest difference of ln(x_i phi_i) between two phases
  /// Lowest distance from the common tangent plane that the last search found; negative only by rounding.
  double distance = 0;

  double vapour_fraction() const;
};

/// The phases of a feed at T_K and P_Pa, each described by one of `kinds`: {vapour, liquid} of an activity
/// model with its vapour, or one equation of state for all of them (FluidPhase with the stable root).
///
/// Method: the feed as the kind in which it has the lowest Gibbs energy; a tangent-plane search in every kind
/// for a phase that lowers it; the amounts moved downhill (PartingSolver); and again, until nothing lies
/// below the common plane. No guess is needed and none can lead to the trivial solution.
/// @throws CalculationError where the amounts do not settle
Flashed flash(const std::vector<Phase*>& kinds, double T_K, double P_Pa, std::span<const double> z);

}  // namespace jampot
