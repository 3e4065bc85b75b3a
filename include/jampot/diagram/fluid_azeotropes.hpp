#pragma once
// Azeotropes of two substances where one equation of state describes both phases.
#include "jampot/equilibrium/singular_points.hpp"

namespace jampot {

/// The singular points of a binary at P_Pa, from its boiling curve: both pure substances and every azeotrope,
/// the heterogeneous ones on lines of three phases among them.
/// @pre mixture.one_equation()
/// @throws RequestError for more than two components; CalculationError where a pure substance is above its
/// critical point, so that the curve does not join both
SingularPoints fluid_singular_points(Mixture& mixture, double P_Pa);

}  // namespace jampot
