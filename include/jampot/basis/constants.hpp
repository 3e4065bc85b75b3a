#pragma once

namespace jampot {

inline constexpr double gas_constant = 8.314462618;      ///< J/(mol K), CODATA 2018, exact
inline constexpr double avogadro = 6.02214076e23;        ///< 1/mol, CODATA 2018, exact
inline constexpr double standard_atmosphere = 101325.0;  ///< Pa, by definition
inline constexpr double celsius_zero = 273.15;           ///< K, by definition
inline constexpr double room_T_K = 298.15;               ///< K, reference of thermochemical tables
inline constexpr double mmHg = 133.322387415;            ///< Pa, conventional millimetre of mercury

}  // namespace jampot
