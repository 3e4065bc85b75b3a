#pragma once
// What is known in addition to the data, as people write it.
#include <array>
#include <map>
#include <string>
#include <vector>

#include "jampot/regression/fit.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// "alpha=0.3+-0.1"
std::vector<Prior> read_priors(const std::vector<std::string>& texts);

/// "azeotrope x1=0.89+-0.01, T=78.2+-0.1 degC, P=101.325 kPa", "critical T=320+-1 K", "plait x1=..., x2=...,
/// T=..."
/// @param sets  whose substances the fractions belong to, in their order
std::vector<KnownPoint> read_known(const std::vector<std::string>& texts, const std::vector<DataSet>& sets);

/// "alpha=0.2..0.47"
std::vector<Bound> read_bounds(const std::vector<std::string>& texts);

/// "T=0.2 K", "P=0.5 %"
void read_offsets(const std::vector<std::string>& texts, FitOptions& options);

/// "alpha=0.3": terms and the values they are held at
std::map<std::string, double> read_holds(const std::vector<std::string>& texts);

/// "tau_21=tau_12", or "alpha" alone: one value for all pairs
std::map<std::string, std::string> read_ties(const std::vector<std::string>& texts);

/// "constant, inverse_T": coefficients of a temperature dependence. @throws RequestError naming them
std::vector<Coefficient> read_form(const std::string& text);

/// "ethanol in water = 4.5, water in ethanol = 2.6": both infinite-dilution activity coefficients of a pair.
/// @return ln gamma of the first in the second, and of the second in the first
/// @throws RequestError for a word that is none, another pair, or one limit alone
std::array<double, 2> read_ln_gamma_inf(const std::string& text, const std::vector<Substance>& pair,
                                        const Bank& bank);

}  // namespace jampot
