#pragma once
// The looks that figures share: one name for each kind of line and symbol.
#include <string>
#include <utility>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// Colours by their part, as numbers of the palette.
namespace colours {
inline constexpr int liquid = 0, vapour = 1, third = 2, balance = 5, plain = 6, grid = 8, frame = 9;
}

/// How a line is drawn.
struct Look {
  Stroke stroke = Stroke::solid;
  int colour = colours::plain;
  double width = 2;
};

/// The table of looks: change one here and every figure follows.
namespace looks {
inline constexpr Look liquid{Stroke::solid, colours::liquid, 2};
inline constexpr Look vapour{Stroke::dashed, colours::vapour, 2};
inline constexpr Look reference{Stroke::dotted, colours::plain, 1.2};  ///< a diagonal, a limit
inline constexpr Look zero{Stroke::solid, colours::plain, 1.0};        ///< where nothing deviates
inline constexpr Look three_phase{Stroke::solid, colours::plain, 1.4};
inline constexpr Look balance{Stroke::dashed, colours::balance, 1.8};
inline constexpr Look guide{Stroke::dotted, colours::frame, 1.2};  ///< from a mark to the sides of a triangle
}  // namespace looks

/// A straight line with a look.
inline Series straight(const Look& look, Spot from, Spot to) {
  return {{from, to}, "", look.stroke, Mark::none, look.colour, look.width};
}

/// A curve with a look, still without its points.
inline Series curve_of(const Look& look, std::string label = {}) {
  return {{}, std::move(label), look.stroke, Mark::none, look.colour, look.width};
}

/// Points with a symbol, still without their places.
inline Series symbols(Mark mark, int colour, std::string label = {}) {
  return {{}, std::move(label), Stroke::none, mark, colour};
}

/// Measured points laid over curves.
inline Series measured_symbols() {
  return symbols(Mark::circle, colours::plain, "measured");
}

}  // namespace jampot
