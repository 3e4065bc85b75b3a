#pragma once
// Azeotropes of a binary, located exactly, and how they move with the parameters of the liquid model.
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "jampot/equilibrium/incipient.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// What the azeotrope is on its boiling curve.
enum class Extremum { minimum_boiling, maximum_boiling };

/// "minimum-boiling (pressure maximum)" or "maximum-boiling (pressure minimum)".
std::string_view name_of(Extremum extremum);

/// A liquid that boils without changing, or two liquids that do so together.
struct Azeotrope {
  double T_K = 0,              ///< temperature, K
      P_Pa = 0;                ///< pressure, Pa
  double x1 = 0;               ///< mole fraction of component 1 in the vapour (and, overall, in the liquid)
  bool heterogeneous = false;  ///< true where two liquids boil
  Extremum extremum = Extremum::minimum_boiling;  ///< of the boiling point along the composition
  double residual = 0;  ///< |ln alpha_12| left (homogeneous), or residual of the three-phase equations
};

/// One state on a bubble curve, as a sample between which azeotropes are searched.
struct VolatilitySample {
  double x1,        ///< mole fraction of component 1
      T_K,          ///< temperature, K
      P_Pa;         ///< pressure, Pa
  double ln_alpha;  ///< ln of the relative volatility K_1/K_2
  double y1 = 0.5;  ///< of the vapour, where known: a start for vapours that are not ideal
};

/// The homogeneous azeotropes on the bubble curve at the held pressure (temperature sought) or temperature
/// (pressure sought): every sign change of the logarithm of the relative volatility
/// between samples, also a pair of them that hides between two samples (found at the extremum of the parabola
/// through three), is bracketed and solved to the last digits.
std::vector<Azeotrope> homogeneous_azeotropes(Mixture& mixture, Sought sought,
                                              std::span<const VolatilitySample> samples);

/// Derivatives of a homogeneous azeotrope with the terms of the liquid model, at constant P (temperature
/// sought) or T.
struct AzeotropeSensitivity {
  std::vector<double> dx1;    ///< per term
  std::vector<double> dheld;  ///< of T_K (temperature sought) or of ln P (pressure sought), per term
};
AzeotropeSensitivity azeotrope_sensitivity(Mixture& mixture, Sought sought, const Azeotrope& azeotrope);

/// Three phases in a binary: two liquids and a vapour.
struct ThreePhase {
  double T_K = 0,       ///< temperature, K
      P_Pa = 0;         ///< pressure, Pa
  double x1_alpha = 0,  ///< mole fraction of component 1 in the first liquid
      x1_beta = 0,      ///< mole fraction of component 1 in the second liquid
      y1 = 0;           ///< mole fraction of component 1 in the vapour
  double residual = 0;  ///< largest difference left in the equations
  /// A vapour between the two liquids makes a heterogeneous azeotrope.
  bool azeotropic() const { return y1 > x1_alpha && y1 < x1_beta; }
};

/// Three-phase equilibria of a binary at the held temperature (pressure sought).
std::vector<ThreePhase> three_phases_at_T(Mixture& mixture, double T_K);

/// Three-phase equilibria of a binary at P_Pa, searched from the temperature T_start_K (of an unstable
/// boiling liquid).
std::vector<ThreePhase> three_phases_at_P(Mixture& mixture, double P_Pa, double T_start_K);

/// Those of two components of a mixture at P_Pa, by its liquid and vapour model; component 1 is `i`.
std::vector<ThreePhase> three_phases_of_pair(Mixture& mixture, std::size_t i, std::size_t j, double P_Pa);

}  // namespace jampot
