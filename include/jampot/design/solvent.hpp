#pragma once
// What a third substance does for the separation of two: the numbers by which solvents are compared.
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "jampot/phase/mixture.hpp"

namespace jampot {

/// What the third substance is for: to take the first out of the second as a liquid of its own, to change
/// their relative volatility in a column, or to take the first out of a gas.
enum class SolventRole { extraction, entrainer, absorbent };
/// "extraction", "entrainer", "absorbent".
std::string_view name_of(SolventRole role);
/// @throws RequestError naming them
SolventRole parse_solvent_role(const std::string& text);

/// A solvent at infinite dilution of what it is to separate.
struct DiluteInSolvent {
  std::array<double, 2> gamma{};  ///< limiting activity coefficients of first and second in it
  /// gamma of the second over that of the first: above 1 it prefers the first.
  double selectivity = 1;
  /// 1/gamma of the one it prefers: how much of that it takes up.
  double capacity = 1;
};
/// @param mixture of first, second and solvent, in this order
DiluteInSolvent dilute_in_solvent(const Mixture& mixture, double T_K);

/// Two liquids of carrier and solvent, and what they do with a little of the solute.
struct ExtractionFigures {
  double distribution =
      0;                   ///< mass fraction of the solute in the solvent's liquid over that in the carrier's
  double selectivity = 0;  ///< the same over that of the carrier
  double loss = 0;         ///< mass fraction of solvent in the carrier's liquid
  double carrier = 0;      ///< mass fraction of carrier in the solvent's liquid
};
/// Nothing where carrier and solvent are one liquid at T_K.
/// @param mixture of solute, carrier and solvent, in this order
std::optional<ExtractionFigures> extraction_figures(const Mixture& mixture, double T_K);

/// First and second in a column with much solvent.
struct VolatilityFigures {
  double with_solvent =
      1;  ///< relative volatility of the first over the second, both infinitely dilute in it
  double without_solvent = 1;  ///< the one nearest to 1 of the pair itself between its two pure ends
};
/// @param mixture of first, second and solvent, in this order; T_K as at the middle of the column
VolatilityFigures volatility_figures(const Mixture& mixture, double T_K);

/// A gas that dissolves in a solvent.
struct AbsorptionFigures {
  double solubility_per_Pa = 0;  ///< mole fraction of the first in the solvent for each pascal of it
  double selectivity = 0;        ///< the same over that of the second
  double loss = 0;               ///< mole fraction of solvent in the gas at P_Pa
};
/// @param mixture of first, second and solvent, in this order
AbsorptionFigures absorption_figures(const Mixture& mixture, double T_K, double P_Pa);

}  // namespace jampot
