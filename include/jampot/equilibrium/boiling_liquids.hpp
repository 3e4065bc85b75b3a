#pragma once
// Two liquids that boil together, at a given pressure.
#include <optional>
#include <span>
#include <vector>

#include "jampot/basis/hidden.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// Two liquids and the vapour in equilibrium with both.
struct BoilingLiquids {
  std::vector<double> alpha,  ///< mole fractions of the first liquid
      beta,                   ///< mole fractions of the second liquid
      y;                      ///< mole fractions of the vapour
  double T_K = 0;             ///< temperature, K
  double share = 0;           ///< of beta in the whole liquid
  double residual = 0;        ///< largest difference left in the equations
};

/// The equations ln(x phi) alike in both liquids and the vapour together with where the whole liquid lies on
/// the tie line, solved by Newton's method for all of them together. Components that are zero in the start
/// stay away. Allocates nothing once made.
class BoilingLiquidsSolver {
 public:
  static constexpr std::size_t most_components = 5;  ///< largest number of components

  /// The phases are borrowed and must outlive the solver. @pre liquid.size() <= most_components
  BoilingLiquidsSolver(Phase& liquid, Phase& vapour, double P_Pa);

  /// The tie line with its vapour on it, between the liquids: a heterogeneous azeotrope, from two liquids
  /// near their equilibrium. Nothing where none is reached, or the liquids become one.
  std::optional<BoilingLiquids> azeotrope(BoilingLiquids start);

  /// The tie line through a composition z, from one nearby. The share is below 0 or above 1 where z lies on
  /// its extension. False where none is reached, or the liquids become one; `state` is then of no use.
  /// @pre z is positive where the start is
  bool through(std::span<const double> z, BoilingLiquids& state);

  /// Eigenvalues of d(x - y)/dx at a solution, x the whole liquid at its boiling point.
  std::vector<double> eigenvalues(const BoilingLiquids& state);

 private:
  /// Without a whole liquid z it is the vapour's composition.
  void assemble(const BoilingLiquids& state, std::span<const double> z);
  bool newton(BoilingLiquids& state, std::span<const double> z);

  Phase &liquid_, &vapour_;
  double P_Pa_;
  PhaseValues a_, b_, v_;

  struct Work;  ///< scratch and its linear algebra
  Hidden<Work> work_;
};

}  // namespace jampot
