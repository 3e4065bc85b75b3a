#pragma once
// Boiling and dew curves of a binary from one equation of state, followed by continuation up to the critical
// point.
#include <optional>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"

namespace jampot {

struct FluidTrace {
  std::vector<BinaryPoint> points;      ///< from the pure substance where it began
  bool complete = false;                ///< the other pure substance was reached
  std::optional<BinaryPoint> critical;  ///< or the critical point of the mixture, where x = y
};

/// Follows the curve from pure component `from` (0 or 1) at held pressure (temperature sought) or
/// temperature: Newton's method on equal fugacities in x_1, y_1 and T or ln P, with the one of them, or y_1 -
/// x_1, as parameter that changes fastest. No guess is needed beyond the pure substance. Nothing where that
/// does not boil there.
std::optional<FluidTrace> fluid_trace(Mixture& mixture, Sought sought, double held, std::size_t from,
                                      double step);

/// Where neither pure substance boils the curve may close upon itself between two critical points: from a
/// bubble point inside towards less and towards more of component 1. Empty where there is none.
std::vector<FluidTrace> inner_fluid_trace(Mixture& mixture, Sought sought, double held, double step);

}  // namespace jampot
