#pragma once
#include <string>

namespace jampot {

/// What gnuplot writes to its standard output for a script.
/// @throws CalculationError where it is not installed, says no, or was interrupted
std::string run_gnuplot(const std::string& script);

}  // namespace jampot
