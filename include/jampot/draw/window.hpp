#pragma once
// Part of a panel, magnified.
#include <array>
#include <optional>
#include <string>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// Ends of the axes, in the units shown; an axis that is not given stays.
struct Window {
  std::optional<std::array<double, 2>> x,  ///< ends of the horizontal axis
      y;                                   ///< ends of the vertical axis
};

/// "x=0 to 0.1, y=60 to 70", in the units shown. @throws RequestError saying what was expected
Window parse_window(const std::string& text);

/// The panel cut to the window: curves end at its frame, points and callouts outside are left out.
Panel windowed(const Panel& panel, const Window& window);

}  // namespace jampot
