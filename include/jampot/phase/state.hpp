#pragma once
// A temperature and a pressure that cannot be taken for each other.

namespace jampot {

/// A temperature in K.
struct Kelvin {
  /// From a number in K.
  explicit constexpr Kelvin(double T_K) : value(T_K) {}
  double value;  ///< K
};

/// A pressure in Pa.
struct Pascal {
  /// From a number in Pa.
  explicit constexpr Pascal(double P_Pa) : value(P_Pa) {}
  double value;  ///< Pa
};

/// State{Kelvin(353.15), Pascal(101325)}; the other way round does not compile.
struct State {
  Kelvin T;  ///< temperature
  Pascal P;  ///< pressure
};

}  // namespace jampot
