#pragma once
// Candidates of a screening in one picture.
#include <string>
#include <vector>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// One candidate.
struct ScreenedSpot {
  std::string name;       ///< written where there is room
  double capacity = 0,    ///< to the right
      selectivity = 0;    ///< upwards
  bool on_front = false;  ///< no other has more of both
  bool doubted = false;   ///< its two liquids may be one
};

/// Selectivity against capacity on logarithmic axes; the best of both joined by a line, names where they
/// cover nothing.
/// @param spots  the best first: their names find room first
/// @param named  how many get a name besides those on the front
Figure screen_figure(const std::vector<ScreenedSpot>& spots, const std::string& capacity,
                     const std::string& selectivity, std::size_t named = 12);

}  // namespace jampot
