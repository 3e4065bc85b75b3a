#pragma once
// What is held and what is sought along a curve, and how much one request may ask for.
#include <string>
#include <vector>

#include "jampot/equilibrium/sought.hpp"

namespace jampot {

/// The held values, in SI: pressures where a temperature is sought, temperatures where a pressure is.
struct Held {
  Sought sought = Sought::temperature;  ///< what is computed: temperature or pressure
  std::vector<double> values{};         ///< of what is held, K or Pa

  /// True where pressure is held.
  bool isobaric() const { return sought == Sought::temperature; }
};

/// At these pressures, Pa.
inline Held at_pressures(std::vector<double> P_Pa) {
  return {Sought::temperature, std::move(P_Pa)};
}
/// At these temperatures, K.
inline Held at_temperatures(std::vector<double> T_K) {
  return {Sought::pressure, std::move(T_K)};
}

/// States of one request: what ranges and lists make together.
inline constexpr double most_states = 20000;
/// Substances of one mixture.
inline constexpr double most_substances = 40;

/// @throws RequestError where a request asks for more of something than is calculated in one go
void demand_count(const char* what, double wanted, double most);

}  // namespace jampot
