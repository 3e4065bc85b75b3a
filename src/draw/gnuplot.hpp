#pragma once
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// A text as gnuplot takes it literally: in quotes, every sign that could mean something as the number of its
/// byte. What is not readable (`basis/readable.hpp`), line ends among it, stands there as U+FFFD.
std::string gnuplot_text(std::string_view text);

/// The picture that gnuplot writes to its standard output for a script; `ending` is ".svg", ".png" or ".pdf".
/// No start-up file and no variable of the environment changes what is drawn.
/// @throws CalculationError where it is not installed, says no, takes too long, was interrupted, or wrote
/// something else than a whole picture of this kind
std::string run_gnuplot(const std::string& script, std::string_view ending);

/// The SVGs of several scripts, by one gnuplot: its start takes longer than a figure. @throws as the other
/// one
std::vector<std::string> run_gnuplot(const std::vector<std::string>& scripts);

}  // namespace jampot
