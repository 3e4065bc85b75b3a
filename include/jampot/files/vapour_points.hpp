#pragma once
// Measured vapour pressures of one substance, from words or a file.
#include <string>
#include <vector>

#include "jampot/substance/define.hpp"

namespace jampot {

/// Reads "40 degC = 10.2 kPa, 60 degC = 25 kPa", or the columns T and P, each with its unit, of a file whose
/// name ends in .csv.
/// @throws RequestError naming what was expected, in a file with its place
std::vector<VapourPressurePoint> read_vapour_pressure_points(const std::string& text);

}  // namespace jampot
