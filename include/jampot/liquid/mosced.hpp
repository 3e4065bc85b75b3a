#pragma once
// MOSCED: limiting activity coefficients from parameters of the pure substances.
#include <string>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// ln gamma of a solute at infinite dilution in a solvent at T_K.
///
/// Source: M. J. Lazzaroni, D. Bush, C. A. Eckert, T. C. Frank, S. Gupta, J. D. Olson, Ind. Eng. Chem. Res.
/// 44 (2005) 4075-4083.
double mosced_ln_gamma_inf(const MoscedParameters& solute, const MoscedParameters& solvent, double T_K);

/// The same for substances of the bank.
/// @throws CalculationError naming the substance without MOSCED parameters
double mosced_ln_gamma_inf(const Substance& solute, const Substance& solvent, double T_K);

}  // namespace jampot
