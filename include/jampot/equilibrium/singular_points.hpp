#pragma once
// The singular points of residue curves at a pressure: pure substances and all azeotropes, of any number of
// components.
#include <optional>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/basis/progress.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Which way residue curves run about a singular point; they run towards higher boiling temperatures.
enum class Stability { unstable_node, saddle, stable_node };
/// "unstable node", "saddle", "stable node".
std::string_view name_of(Stability stability);

/// A composition at which boiling does not change the liquid.
struct SingularPoint {
  std::vector<std::size_t> members;          ///< components that are there
  std::vector<double> x;                     ///< mole fractions of the vapour and (over all) of the liquid
  double T_K = 0;                            ///< temperature, K
  bool heterogeneous = false;                ///< true where two liquids boil
  std::vector<std::vector<double>> liquids;  ///< the two or three liquids of a heterogeneous azeotrope
  Stability stability = Stability::saddle;   ///< node or saddle
  std::vector<double> eigenvalues;  ///< of d(x - y)/dx within the composition space, real parts, ascending
  double residual = 0;              ///< largest |ln K_i| of its members
};

/// All pure substances and azeotropes of a mixture at one pressure, with their index balance.
struct SingularPoints {
  double P_Pa = 0;                    ///< pressure, Pa
  std::vector<SingularPoint> points;  ///< pure substances first, then by number of members and temperature
  /// sum over all points of 2^members sign(det), which the topology of residue curves demands to be
  /// `index_expected`.
  int index_sum = 0,       ///< sum of the indices found
      index_expected = 0;  ///< sum the topology demands
  /// True where both sums agree: none is missing or false.
  bool balanced() const { return index_sum == index_expected; }
  Notices notices;  ///< what the reader must know
};

/// All singular points of 2 to 5 components at P_Pa.
///
/// Method: every pair by the sign changes of the logarithm of the relative volatility along the
/// whole edge, and by its parabola where two may hide between samples; every combination of more by Newton's
/// method on ln K_i = 0 from all points of a lattice, made finer twice where the index balance is not met.
/// The search has a budget of starting points, so that four and five components end in seconds; where it was
/// used up and the balance is not met, a notice says which lattices were left coarse. Heterogeneous
/// azeotropes of pairs from their three-phase lines. The balance is necessary, not sufficient; where it is
/// not met a notice says that the set is incomplete. Source of the balance: M. F. Doherty, J. D. Perkins,
/// Chem. Eng. Sci. 34 (1979) 1401-1414; written for any number of components as the Euler characteristic of
/// the sphere on which x_i = u_i^2 places the compositions.
/// @throws RequestError for more than five components; CalculationError where a substance has no vapour
/// pressure, where one equation of state describes both phases, or where two components are alike: then every
/// mixture of them is a singular point
SingularPoints singular_points(Mixture& mixture, double P_Pa, Progress* progress = nullptr);

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline SingularPoints singular_points(const Mixture& mixture, double P_Pa, Progress* progress = nullptr) {
  Mixture own = mixture;
  return singular_points(own, P_Pa, progress);
}

/// The same azeotrope where the parameters of the mixture or the pressure are a little different: its
/// composition, T and liquids; stability and eigenvalues are left as they were. Nothing where it is not
/// reached from there.
std::optional<SingularPoint> same_azeotrope(Mixture& mixture, double P_Pa, const SingularPoint& point);

}  // namespace jampot
