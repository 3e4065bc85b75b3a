#pragma once
// Compositions of three substances in a triangle.
#include <array>
#include <span>
#include <string>

#include "jampot/draw/figure.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// From fractions to a place in a triangle, equilateral or right-angled.
class Triangle {
 public:
  /// Which triangle, and who stands at which corner.
  struct Options {
    std::array<std::size_t, 3> corners{0, 1, 2};  ///< which substance stands at the top, left and right
    bool right_angled = false;                    ///< the right angle on the left, else equilateral
  };
  /// With the places of its corners.
  explicit Triangle(const Options& options) : options_(options) {}

  /// Where a composition stands, in the units of the panel.
  Spot at(std::span<const double> fractions) const;

  /// The empty triangle: frame, thin grid, numbers at the sides (each rises to the corner of its substance)
  /// and the names at the corners.
  Panel panel(const std::array<std::string, 3>& names) const;

  /// As it was made.
  const Options& options() const { return options_; }

 private:
  Options options_;
};

/// The footer's explanation of the numbers at the sides.
inline constexpr const char* triangle_note = "edge numbers increase towards their corner";

}  // namespace jampot
