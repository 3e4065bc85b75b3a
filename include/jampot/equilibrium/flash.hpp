#pragma once
// The phases of a feed at given temperature and pressure: one, two or three phases.
#include <memory>
#include <vector>

#include "jampot/phase/phase.hpp"
#include "jampot/phase/state.hpp"

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

/// The phases that a mixture is in at one state.
struct Flashed {
  std::vector<FlashedPhase> phases;  ///< in the order of the kinds of phase
  double residual = 0;               ///< largest difference of ln(x_i phi_i) between two phases
  /// Lowest distance from the common tangent plane that the last search found; negative only by rounding.
  double distance = 0;

  /// Moles of vapour per mole of feed.
  double vapour_fraction() const;
};

/// Flashes feeds with the same descriptions of phases: {vapour, liquid} of an activity model with its vapour,
/// or one equation of state for all phases (FluidPhase with the stable root). Keeps its scratch space between
/// calls; one object per thread. The phases are borrowed.
///
/// Method: the feed as the kind in which it has the lowest Gibbs energy; a search for a phase below its
/// tangent plane, in every kind; the amounts moved downhill (a few substitutions with the Rachford-Rice
/// equation, then PartingSolver); and again, until nothing lies below the common plane. No guess is needed
/// and none can lead to the trivial solution.
class FlashSolver {
 public:
  /// With the kinds of phase that may form; they must outlive the solver.
  explicit FlashSolver(std::vector<Phase*> kinds);
  ~FlashSolver();
  FlashSolver(const FlashSolver&) = delete;
  FlashSolver& operator=(const FlashSolver&) = delete;

  /// The phases of a feed z (mole fractions) at a state; valid until the next call.
  /// @throws CalculationError where the amounts do not settle
  const Flashed& flash(const State& at, std::span<const double> z);

 private:
  struct Work;
  std::unique_ptr<Work> work_;
};

/// One flash.
Flashed flash(const std::vector<Phase*>& kinds, const State& at, std::span<const double> z);

}  // namespace jampot
