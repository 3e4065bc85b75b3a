#pragma once
// How a pair parameter depends on temperature.
#include <array>
#include <cmath>
#include <string_view>

namespace jampot {

/// The coefficients of a TemperatureFunction, in the order in which files and tables list them.
enum class Coefficient { constant, inverse_T, log_T, linear_T };
inline constexpr std::array<Coefficient, 4> all_coefficients{Coefficient::constant, Coefficient::inverse_T,
                                                             Coefficient::log_T, Coefficient::linear_T};

/// "constant", "inverse_T", "log_T" or "linear_T": the keys used in pairs files.
constexpr std::string_view name_of(Coefficient coefficient) {
  constexpr std::array<std::string_view, 4> names{"constant", "inverse_T", "log_T", "linear_T"};
  return names[static_cast<std::size_t>(coefficient)];
}

/// value(T) = constant + inverse_T / T + log_T ln T + linear_T T, with T in K.
struct TemperatureFunction {
  double constant = 0;   ///< a
  double inverse_T = 0;  ///< K
  double log_T = 0;      ///< coefficient of ln T
  double linear_T = 0;   ///< 1/K

  /// At a temperature.
  double value(double T_K) const {
    return constant + inverse_T / T_K + (log_T == 0 ? 0 : log_T * std::log(T_K)) + linear_T * T_K;
  }
  /// The same with 1/T and ln T at hand, for a model that asks many functions at one temperature.
  double value(double T_K, double inverse, double ln_T) const {
    return constant + inverse_T * inverse + log_T * ln_T + linear_T * T_K;
  }
  /// Derivative with T.
  double dT(double T_K) const { return (log_T - inverse_T / T_K) / T_K + linear_T; }

  /// One coefficient.
  double& operator[](Coefficient coefficient) {
    switch (coefficient) {
      case Coefficient::constant:
        return constant;
      case Coefficient::inverse_T:
        return inverse_T;
      case Coefficient::log_T:
        return log_T;
      case Coefficient::linear_T:
        break;
    }
    return linear_T;
  }
  /// One coefficient.
  double operator[](Coefficient coefficient) const {
    TemperatureFunction copy = *this;
    return copy[coefficient];
  }

  /// d value / d coefficient at T_K.
  static double basis(Coefficient coefficient, double T_K) {
    switch (coefficient) {
      case Coefficient::constant:
        return 1;
      case Coefficient::inverse_T:
        return 1 / T_K;
      case Coefficient::log_T:
        return std::log(T_K);
      case Coefficient::linear_T:
        break;
    }
    return T_K;
  }

  /// d2 value / d coefficient dT at T_K.
  static double basis_dT(Coefficient coefficient, double T_K) {
    switch (coefficient) {
      case Coefficient::constant:
        return 0;
      case Coefficient::inverse_T:
        return -1 / (T_K * T_K);
      case Coefficient::log_T:
        return 1 / T_K;
      case Coefficient::linear_T:
        break;
    }
    return 1;
  }

  /// All coefficients the same.
  bool operator==(const TemperatureFunction&) const = default;
};

}  // namespace jampot
