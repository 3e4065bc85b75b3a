#pragma once
// Quantities as people write them ("1.3 bar", "20 to 80 by 5 degC") and their values in SI.
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// What a quantity measures. `fraction` is a pure number between 0 and 1; percent signs are understood.
enum class Dimension {
  temperature,
  pressure,
  density,
  molar_energy,
  molality,
  fraction,
  number,
  amount,
  molar_flow,
  mass,
  mass_flow,
  energy,
  power
};

/// Name of a dimension for messages: "temperature".
std::string_view name_of(Dimension dimension);

/// `value` in `unit` as SI (K, Pa, 1). Pressures are absolute unless the unit says gauge ("barg", "psig": one
/// standard atmosphere is added). Beside everything UDUNITS-2 knows: barg, psig, psia, bara, mol%, wt%.
/// @throws RequestError for an unknown unit or one of another dimension, naming what would be right.
double to_si(double value, std::string_view unit, Dimension dimension);

/// SI value shown in `unit`.
double from_si(double value, std::string_view unit, Dimension dimension);

/// A difference or an uncertainty in `unit` as SI: 0.1 degC is 0.1 K.
double difference_to_si(double value, std::string_view unit, Dimension dimension);

/// SI difference shown in `unit`.
double difference_from_si(double value, std::string_view unit, Dimension dimension);

/// One quantity, number and unit: "1.3 bar". A number alone is accepted only for a pure number.
/// @throws RequestError saying what was expected.
double parse_quantity(std::string_view text, Dimension dimension);

/// An uncertainty, "0.05 degC" or "0.1 kPa", as a difference in SI.
double parse_difference(std::string_view text, Dimension dimension);

/// One quantity, a list "1, 2, 4 bar", or a range "20 to 80 by 5 degC" (step) or "20 to 80 in 13 degC"
/// (number of values, ends included), all in SI. A unit may stand at each number; without one the next unit
/// to the right holds.
/// @throws RequestError saying what was expected.
std::vector<double> parse_quantities(std::string_view text, Dimension dimension);

/// The units that answers are shown in.
struct DisplayUnits {
  std::string temperature = "degC";   ///< of temperatures
  std::string pressure = "kPa";       ///< of pressures
  std::string density = "kg/m3";      ///< of densities
  std::string amount = "mol",         ///< amount of a batch
      mass = "kg",                    ///< mass of a batch
      energy = "kJ";                  ///< heat of a batch
  std::string molar_flow = "kmol/h",  ///< molar flow
      mass_flow = "kg/h",             ///< mass flow
      power = "kW";                   ///< heat of a flow
  /// The unit in which a dimension is shown.
  const std::string& of(Dimension dimension) const;
  /// Takes over the unit that a quantity, list, range or feed ends with, where it is one of these dimensions.
  void take_from(std::string_view quantity, std::span<const Dimension> dimensions);
};

/// The unit that a quantity, list, range or feed ("A=3 kg/h, B=2 kg/h") ends with, as `DisplayUnits` names
/// it; nothing where it has none of this dimension.
std::optional<std::string> unit_in(std::string_view text, Dimension dimension);

/// Which of several dimensions a quantity such as "1500 kg/h" has.
/// @throws RequestError naming units of all of them
Dimension dimension_of(std::string_view text, const std::vector<Dimension>& possible);

/// Reads "bar, degF": each unit replaces the one of its dimension.
/// @throws RequestError for a unit that is none of those shown.
DisplayUnits parse_display_units(std::string_view text);

}  // namespace jampot
