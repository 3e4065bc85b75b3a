#pragma once
// Roots between two points, and what happens where they do not enclose one.
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>
#include <optional>
#include <utility>

#include "jampot/basis/error.hpp"

namespace jampot {

/// The root of `f` between `low` and `high`, where it has the values `at_low` and `at_high`, by TOMS 748: the
/// two ends of the last bracket, equal to `bits` binary digits or after `most` evaluations. Nothing where the
/// two points do not enclose a root, a value that is none among the reasons; the solver itself would throw an
/// error that means nothing to whoever asked.
///
/// Source: G. E. Alefeld, F. A. Potra, Y. Shi, ACM Trans. Math. Softw. 21 (1995) 327-344.
template <class Function>
std::optional<std::pair<double, double>> bracketed_root(Function&& f, double low, double high, double at_low,
                                                        double at_high, unsigned bits,
                                                        std::uintmax_t most = 100) {
  if (!(low < high) || !(at_low * at_high <= 0) || std::isnan(at_low) || std::isnan(at_high))
    return std::nullopt;
  const auto ends = boost::math::tools::toms748_solve(std::forward<Function>(f), low, high, at_low, at_high,
                                                      boost::math::tools::eps_tolerance<double>(bits), most);
  if (!std::isfinite(ends.first) || !std::isfinite(ends.second)) return std::nullopt;
  return ends;
}

/// The same for callers who have made sure that there is a root.
/// @throws CalculationError where there is none after all: the model breaks down between the two points
template <class Function>
std::pair<double, double> root_between(Function&& f, double low, double high, double at_low, double at_high,
                                       unsigned bits, std::uintmax_t most = 100) {
  const auto ends = bracketed_root(std::forward<Function>(f), low, high, at_low, at_high, bits, most);
  if (!ends)
    throw CalculationError(
        "the model breaks down between two states that should enclose the one that is looked for; conditions "
        "nearer to those its parameters come from give an answer");
  return *ends;
}

}  // namespace jampot
