#pragma once
#include <vector>

#include "jampot/basis/quantity.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/substance/saturation.hpp"

namespace jampot {

enum class SaturationAxes { log_P_against_inverse_T, P_against_T };

/// The saturation curve between the coldest and the hottest of the points: solid where it is measured, dotted
/// where it is continued or estimated, with the points as symbols where there are few, the normal boiling
/// point and (if it is in the range) the critical point.
Figure saturation_figure(const Substance& substance, const std::vector<SaturationPoint>& points,
                         SaturationAxes axes, const DisplayUnits& units);

}  // namespace jampot
