#include "jampot/substance/liquid_density.hpp"

#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

double water_density_kg_m3(double T_K) {
  const double t = T_K - celsius_zero;
  if (!(t >= 0 && t <= 100)) {
    throw RequestError(fmt::format("water of {:.2f} degC: its density is known from 0 to 100 degC", t));
  }
  return (999.83952 + t * (16.945176 + t * (-7.9870401e-3 +
                                            t * (-46.170461e-6 + t * (105.56302e-9 - t * 280.54253e-12))))) /
         (1 + 16.879850e-3 * t);
}

LiquidDensity parse_density(std::string_view text) {
  LiquidDensity density;
  std::string_view value = trimmed(text);
  if (const std::size_t at = value.find(" at "); at != std::string_view::npos) {
    density.T_K = parse_quantity(value.substr(at + 4), Dimension::temperature);
    value = trimmed(value.substr(0, at));
  }
  if (const auto plain = parse_number(value)) {
    density.kg_m3 = *plain;
  } else {
    density.kg_m3 = parse_quantity(value, Dimension::density);
  }
  // A liquid of a solvent: 0.867 without a unit is a specific gravity, not a density.
  if (!(density.kg_m3 > 100 && density.kg_m3 < 20000)) {
    throw RequestError(
        fmt::format("'{}': {:g} kg/m3 is not the density of a liquid; expected for example "
                    "\"867 kg/m3 at 20 degC\" or \"0.867 g/cm3\"",
                    text, density.kg_m3));
  }
  return density;
}

LiquidDensity parse_specific_gravity(std::string_view text) {
  const auto expected = [&] {
    return RequestError(
        fmt::format("'{}': expected a specific gravity with both its temperatures, liquid over water, as in "
                    "\"0.867 at 20/4 degC\" or \"0.867 at 60/60 degF\"",
                    text));
  };
  const std::size_t at = text.find(" at ");
  const std::size_t slash = text.find('/');
  if (at == std::string_view::npos || slash == std::string_view::npos || slash < at) throw expected();
  const auto ratio = parse_number(text.substr(0, at));
  const std::string_view water = trimmed(text.substr(slash + 1));
  const std::size_t blank = water.find_first_not_of("0123456789.+-");
  if (!ratio || !(*ratio > 0.1 && *ratio < 20) || blank == std::string_view::npos) throw expected();
  const std::string unit(trimmed(water.substr(blank)));
  std::string liquid(trimmed(text.substr(at + 4, slash - at - 4)));
  if (parse_number(liquid)) liquid += " " + unit;
  const double T_K = parse_quantity(liquid, Dimension::temperature);
  return {*ratio * water_density_kg_m3(parse_quantity(water, Dimension::temperature)), T_K};
}

}  // namespace jampot
