#pragma once
// The calculation of an equation of state with the numbers put in.
#include <string>
#include <vector>

#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Parameters of the substances and of the mixture, the cubic with its roots or the steps to the packing
/// fractions, and ln phi, as one would write them by hand.
std::vector<std::string> fluid_working(EquationOfState& equation, const std::vector<Substance>& substances,
                                       double T_K, double P_Pa, const std::vector<double>& x);

}  // namespace jampot
