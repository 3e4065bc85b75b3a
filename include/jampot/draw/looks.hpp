#pragma once
// The looks that figures share: one name for each kind of line and symbol.
#include <string>
#include <utility>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// Colours by their part, as numbers of the palette.
namespace colours {
inline constexpr int liquid = 0,  ///< a liquid
    vapour = 1,                   ///< a vapour
    third = 2,                    ///< a third curve
    balance = 5,                  ///< lines of balance
    plain = 6,                    ///< text and plain lines
    grid = 8,                     ///< grid
    frame = 9;                    ///< frame
}

/// How a line is drawn.
struct Look {
  Stroke stroke = Stroke::solid;  ///< how it is drawn
  int colour = colours::plain;    ///< number of a colour in the palette
  double width = 2;               ///< pixels
};

/// The table of looks: change one here and every figure follows.
namespace looks {
inline constexpr Look liquid{Stroke::solid, colours::liquid, 2};       ///< curve of a liquid
inline constexpr Look vapour{Stroke::dashed, colours::vapour, 2};      ///< curve of a vapour
inline constexpr Look reference{Stroke::dotted, colours::plain, 1.2};  ///< a diagonal, a limit
inline constexpr Look zero{Stroke::solid, colours::plain, 1.0};        ///< where nothing deviates
inline constexpr Look three_phase{Stroke::solid, colours::plain,
                                  1.4};  ///< where three phases are in equilibrium
inline constexpr Look balance{Stroke::dashed, colours::balance, 1.8};    ///< line of balance
inline constexpr Look operating{Stroke::dashed, colours::balance, 1.2};  ///< operating line of stages
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
