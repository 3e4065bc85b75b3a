#pragma once
// A bubble point written out.
#include <string>
#include <vector>

#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Vapour pressures, activity coefficients and partial pressures at a solved point, equation by equation.
std::vector<std::string> vle_working(Mixture& mixture, double T_K, double P_Pa, const std::vector<double>& x,
                                     const std::vector<double>& y);

}  // namespace jampot
