#pragma once
// The bank held against physics: what must agree if the constants of a substance belong together.
#include <string>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// One check of one substance.
struct BankFinding {
  std::string substance;  ///< its name
  std::string check;      ///< "boiling point", "enthalpy of vaporisation", ...
  double value = 0;       ///< what was found, as the check words it
  double low = 0,         ///< least value it should have
      high = 0;           ///< where it should lie
  std::string exempt;     ///< why a miss is expected; empty: it is not
  std::string says;       ///< one sentence
  /// True where it lies within.
  bool passed() const { return value >= low && value <= high; }
};

/// Every check for which the constants are known:
/// - vapour pressure at the boiling point over 101.325 kPa, within 1 %;
/// - enthalpy of vaporisation from the slope of the vapour pressure (with the second virial coefficient of
/// the
///   vapour and the volume of the liquid) over the known one, within 4 %; carboxylic acids are exempt, their
///   vapour associates;
/// - vapour pressure at the critical point over the critical pressure, within 0.1 %, where it is reached;
/// - critical compressibility between 0.19 and 0.32;
/// - molar mass over that of the formula, within 0.03 % (older atomic weights of sulphur);
/// - density at 25 degC times molar volume over molar mass, within 1 %;
/// - heat capacity of the ideal gas positive and rising, that of the liquid above it;
/// - molar volume over UNIQUAC r, which the group make-up gives, between 15 and 33 cm3/mol;
/// - MOSCED molar volume over the known one, within 2 % (water and light gases have fitted ones: exempt).
std::vector<BankFinding> check_substance(const Substance& substance);

}  // namespace jampot
