#include "jampot/basis/demand.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

void demand_temperature(double T_K) {
  demand_positive(T_K, "the temperature in K");
}

void demand_pressure(double P_Pa) {
  demand_positive(P_Pa, "the pressure in Pa");
}

void demand_positive(double value, const char* what) {
  if (std::isfinite(value) && value > 0) return;
  throw RequestError(fmt::format("{} is {}; expected a positive number", what, value));
}

void demand_finite(double value, const char* what) {
  if (std::isfinite(value)) return;
  throw RequestError(fmt::format("{} is {}; expected a number", what, value));
}

void demand_size(std::size_t given, std::size_t wanted, const char* what) {
  if (given == wanted) return;
  throw RequestError(fmt::format("{} {} for {} substances", given, what, wanted));
}

void demand_fractions(std::span<const double> x, std::size_t components) {
  demand_size(x.size(), components, "mole fractions");
  double sum = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (!(x[i] >= 0 && x[i] <= 1))
      throw RequestError(fmt::format("mole fraction {} is {}; expected a number from 0 to 1", i + 1, x[i]));
    sum += x[i];
  }
  if (!(std::abs(sum - 1) <= sum_tolerance))
    throw RequestError(fmt::format("the mole fractions sum to {}, not to 1", sum));
}

}  // namespace jampot
