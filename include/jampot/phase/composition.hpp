#pragma once
// Compositions as people write them, and mole against mass.
#include <span>
#include <string_view>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

enum class Basis { mole, mass };
/// @throws RequestError unless the text is "mole" or "mass".
Basis parse_basis(std::string_view text);

/// Mass fractions of a composition given in mole fractions, and back.
std::vector<double> mass_fractions(std::span<const double> x, const std::vector<Substance>& substances);
std::vector<double> mole_fractions(std::span<const double> w, const std::vector<Substance>& substances);

/// A standard uncertainty of a mass fraction as one of the mole fraction of the first substance, the others
/// taken together in the proportions of `x`.
double mole_fraction_uncertainty(double u_w, std::span<const double> x,
                                 const std::vector<Substance>& substances);

/// Mole fractions of two substances from the moles of the one (number `solute`) for each mole of the other.
std::vector<double> from_mole_ratio(double ratio, std::size_t solute);

/// The substance by whose fraction a phase stands out most among others: what it is called rich in.
std::size_t rich_in(std::span<const double> x, const std::vector<std::vector<double>>& others);

/// Number of the substance of this name, alias, formula or CAS number in a mixture.
/// @throws RequestError naming the substances there are
std::size_t member_named(const std::string& name, const std::vector<Substance>& substances);

/// Reads "ethyl acetate=0.3, water=0.7" into mole fractions in the order of `substances`. Names may be
/// aliases, fractions may carry a percent sign, and one substance may be left out: it is then the rest.
/// Fractions are of moles or mass as `basis` says.
/// @throws RequestError for a name outside the mixture, one named twice, a fraction outside 0..1, or a sum
/// that is not 1.
std::vector<double> parse_composition(std::string_view text, const std::vector<Substance>& substances,
                                      Basis basis);

}  // namespace jampot
