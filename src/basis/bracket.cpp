#include "bracket.hpp"

#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

std::optional<std::pair<double, double>> bracketed_root(const CurveView& f, double low, double high,
                                                        double at_low, double at_high, unsigned bits,
                                                        std::uintmax_t most) {
  if (!(low < high) || !(at_low * at_high <= 0) || std::isnan(at_low) || std::isnan(at_high))
    return std::nullopt;
  const auto ends = boost::math::tools::toms748_solve(f, low, high, at_low, at_high,
                                                      boost::math::tools::eps_tolerance<double>(bits), most);
  if (!std::isfinite(ends.first) || !std::isfinite(ends.second)) return std::nullopt;
  return ends;
}

std::pair<double, double> root_between(const CurveView& f, double low, double high, double at_low,
                                       double at_high, unsigned bits, std::uintmax_t most) {
  const auto ends = bracketed_root(f, low, high, at_low, at_high, bits, most);
  if (!ends)
    throw CalculationError(
        "the model breaks down between two states that should enclose the one that is looked for; conditions "
        "nearer to those its parameters come from give an answer");
  return *ends;
}

std::pair<double, double> minimum_between(const CurveView& f, double low, double high, int bits) {
  return boost::math::tools::brent_find_minima(f, low, high, bits);
}

}  // namespace jampot
