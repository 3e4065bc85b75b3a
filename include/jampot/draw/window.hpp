#pragma once
// Part of a panel, magnified.
#include <array>
#include <optional>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// Ends of the axes, in the units shown; an axis that is not given stays.
struct Window {
  std::optional<std::array<double, 2>> x,  ///< ends of the horizontal axis
      y;                                   ///< ends of the vertical axis
};

/// The panel cut to the window: curves end at its frame, points and callouts outside are left out.
Panel windowed(const Panel& panel, const Window& window);

}  // namespace jampot
