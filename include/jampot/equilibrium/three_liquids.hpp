#pragma once
// Three liquids of three components, at a temperature or boiling together at a pressure.
#include <array>
#include <optional>

#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Three liquids in equilibrium; every mixture inside their triangle parts into them.
using ThreeLiquids = std::array<std::array<double, 3>, 3>;

/// Newton's method on equal ln(x_i gamma_i) in all three, in the six independent logarithmic ratios. Unlike
/// the parting of a feed it does not need a feed inside the triangle, which may be too thin to hit.
/// @returns nothing where it does not converge to three distinct liquids
std::optional<ThreeLiquids> three_liquids_near(ActivityModel& model, double T_K, const ThreeLiquids& guess);

/// Three liquids and their vapour: at a pressure there is one such state, whatever the amounts.
struct ThreeBoilingLiquids {
  ThreeLiquids liquids{};     ///< the three liquids
  std::array<double, 3> y{};  ///< mole fractions of the vapour
  double T_K = 0;             ///< temperature, K

  /// The shares of the liquids in a whole of composition x; all positive inside their triangle.
  std::array<double, 3> shares(const std::array<double, 3>& x) const;
  /// True where the overall composition x lies in their triangle.
  bool contain(const std::array<double, 3>& x) const;
};

/// The boiling of three liquids at P_Pa from a guess of them and of the temperature, by the secant in T.
/// @returns nothing where it does not converge, or the three are no longer apart on the way
std::optional<ThreeBoilingLiquids> three_boiling_near(Mixture& mixture, double P_Pa, double T_K,
                                                      const ThreeLiquids& guess);

}  // namespace jampot
