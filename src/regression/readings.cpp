#include "readings.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

std::vector<Reading> readings(const std::vector<Substance>& substances) {
  const auto pressure = [](std::string cause, double factor) {
    return Reading{std::move(cause), [factor](DataPoint& point) { return (point.P_Pa *= factor) > 0; }};
  };
  const auto temperature = [](std::string cause, double factor, double shift) {
    return Reading{std::move(cause), [factor, shift](DataPoint& point) {
                     return (point.T_K = factor * point.T_K + shift) > 0;
                   }};
  };
  constexpr double kPa_of_mmHg = 7.500617, degF = 5.0 / 9;
  std::vector<Reading> list{
      temperature("the temperatures are degrees Celsius stated as kelvins", 1, celsius_zero),
      temperature("the temperatures are kelvins stated as degrees Celsius", 1, -celsius_zero),
      temperature("the temperatures are degrees Fahrenheit stated as degrees Celsius", degF,
                  celsius_zero - degF * (celsius_zero + 32)),
      temperature("the temperatures are degrees Celsius stated as degrees Fahrenheit", 1 / degF,
                  celsius_zero + 32 - celsius_zero / degF),
      pressure("the pressures are mmHg stated as kPa", 1 / kPa_of_mmHg),
      pressure("the pressures are kPa stated as mmHg", kPa_of_mmHg),
      pressure("the pressures are bar stated as kPa", 100),
      pressure("the pressures are kPa stated as bar", 0.01),
      pressure("the pressures are Pa stated as kPa", 1e-3),
      pressure("the pressures are kPa stated as Pa", 1e3),
      pressure("the pressures are bar stated as Pa", 1e5),
      pressure("the pressures are mbar stated as kPa", 0.1),
      pressure("the pressures are kPa stated as mbar", 10),
      pressure("the pressures are mmHg stated as mbar", mmHg / 100),
      pressure("the pressures are mbar stated as mmHg", 100 / mmHg),
      pressure("the pressures are psi stated as kPa", 6.894757),
      pressure("the pressures are kPa stated as psi", 1 / 6.894757),
      pressure("the pressures are mmHg stated as bar", mmHg / 1e5),
      pressure("the pressures are mmHg stated as Pa", mmHg),
      {"the pressures are gauge pressures stated as absolute ones",
       [](DataPoint& point) { return (point.P_Pa += standard_atmosphere) > 0; }},
      {"the pressures are absolute ones stated as gauge pressures",
       [](DataPoint& point) { return (point.P_Pa -= standard_atmosphere) > 0; }},
      {"liquid and vapour are exchanged (x stated as y)",
       [](DataPoint& point) {
         if (point.y.empty()) return false;
         std::swap(point.x, point.y);
         return true;
       },
       true}};
  if (substances.size() == 2) {
    list.push_back({fmt::format("the two components are exchanged (fractions of {} stated as those of {})",
                                substances[1].name, substances[0].name),
                    [](DataPoint& point) {
                      std::reverse(point.x.begin(), point.x.end());
                      std::reverse(point.y.begin(), point.y.end());
                      return true;
                    },
                    true});
  }
  const auto as_mass = [&substances](std::vector<double>& fractions) {
    double sum = 0;
    for (std::size_t i = 0; i < fractions.size(); ++i) sum += fractions[i] /= substances[i].molar_mass_kg_mol;
    for (double& value : fractions) value /= sum;
  };
  list.push_back({"the fractions are mass fractions stated as mole fractions",
                  [as_mass](DataPoint& point) {
                    as_mass(point.x);
                    if (!point.y.empty()) as_mass(point.y);
                    return true;
                  },
                  true});
  list.push_back({"the fractions are mole fractions stated as mass fractions",
                  [&substances](DataPoint& point) {
                    for (auto* fractions : {&point.x, &point.y}) {
                      if (!fractions->empty()) *fractions = mass_fractions(*fractions, substances);
                    }
                    return true;
                  },
                  true});
  return list;
}

}  // namespace jampot
