#pragma once
// Roots between two points, what happens where they do not enclose one, and minima.
#include <cstdint>
#include <optional>
#include <utility>

#include "curve_view.hpp"

namespace jampot {

/// The root of `f` between `low` and `high`, where it has the values `at_low` and `at_high`, by TOMS 748: the
/// two ends of the last bracket, equal to `bits` binary digits or after `most` evaluations. Nothing where the
/// two points do not enclose a root, a value that is none among the reasons; the solver itself would throw an
/// error that means nothing to whoever asked.
///
/// Source: G. E. Alefeld, F. A. Potra, Y. Shi, ACM Trans. Math. Softw. 21 (1995) 327-344.
std::optional<std::pair<double, double>> bracketed_root(const CurveView& f, double low, double high,
                                                        double at_low, double at_high, unsigned bits,
                                                        std::uintmax_t most = 100);

/// The same for callers who have made sure that there is a root.
/// @throws CalculationError where there is none after all: the model breaks down between the two points
std::pair<double, double> root_between(const CurveView& f, double low, double high, double at_low,
                                       double at_high, unsigned bits, std::uintmax_t most = 100);

/// Where `f` is least between two points, to `bits` binary digits, and its value there, by Brent's method; an
/// end where it has no minimum inside.
std::pair<double, double> minimum_between(const CurveView& f, double low, double high, int bits);

}  // namespace jampot
