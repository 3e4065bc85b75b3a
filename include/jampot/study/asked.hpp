#pragma once
// Compositions that a request points at.
#include <array>
#include <string>
#include <vector>

namespace jampot {

/// A composition of three, in mole fractions, and how it is called; empty: by its fractions.
struct AskedComposition {
  std::array<double, 3> x{};  ///< mole fractions
  std::string text{};         ///< as it was asked

  /// A name for tables.
  std::string name() const;
};

/// The first three of some fractions.
inline std::array<double, 3> three(const std::vector<double>& x) {
  return {x[0], x[1], x[2]};
}

}  // namespace jampot
