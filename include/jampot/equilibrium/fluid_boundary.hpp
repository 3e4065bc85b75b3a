#pragma once
// Bubble and dew points where one equation of state describes both phases.
#include <optional>

#include "jampot/equilibrium/incipient.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Bubble and dew points of a mixture whose phases are one equation of state.
struct FluidBoundary {
  IncipientState state;  ///< of the incipient phase
  bool splits = false;   ///< a further liquid lies below the tangent plane: what was found is not stable
};

/// Where a liquid z begins to boil (`bubble`) or a vapour z begins to condense, at held pressure (temperature
/// sought) or temperature. First Newton's method from the vapour pressures; its solution is taken where it is
/// no trivial one and nothing but a further liquid lies below its tangent plane. Otherwise the boundary of
/// stability itself is looked for on a grid from the liquid's side (the vapour's side), bisected and solved.
/// No guess is needed. Nothing where there is no such boundary: beyond the critical point of the mixture, or
/// beyond the last temperature or pressure at which two phases exist.
/// @pre mixture.one_equation()
std::optional<FluidBoundary> fluid_boundary(Mixture& mixture, Sought sought, double held,
                                            std::span<const double> z, bool bubble);

}  // namespace jampot
