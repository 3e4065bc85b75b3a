#pragma once
// Bubble and dew points told.
#include "jampot/report/answer.hpp"
#include "jampot/study/points.hpp"

namespace jampot {

/// Points, models side by side and deviations from measured sets. The figure, drawn only where it is wanted,
/// is a line along a slice or a triangle.
/// @throws RequestError where a figure is wanted of other than three substances
Answer answer(const PointsStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
