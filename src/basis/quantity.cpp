#include "jampot/basis/quantity.hpp"

#include <fmt/format.h>
#include <udunits2.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <map>
#include <memory>
#include <mutex>
#include <optional>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "quantity_grammar.hpp"

namespace jampot {
namespace {

struct DimensionFacts {
  std::string_view name;
  const char* si_unit;
  std::string_view examples;
};

const DimensionFacts& facts(Dimension dimension) {
  static const std::array<DimensionFacts, 13> table{{
      {"temperature", "K", "degC, K, degF"},
      {"pressure", "Pa", "kPa, bar, atm, mmHg, psi, barg"},
      {"density", "kg m-3", "kg/m3, g/cm3, lb/ft3"},
      {"molar energy", "J mol-1", "J/mol, kJ/mol, cal/mol"},
      {"molality", "mol kg-1", "mol/kg"},
      {"fraction", "1", "none, or %"},
      {"number", "1", "none"},
      {"amount", "mol", "mol, kmol, lbmol"},
      {"molar flow", "mol s-1", "mol/s, kmol/h, lbmol/h"},
      {"mass", "kg", "kg, t, lb"},
      {"mass flow", "kg s-1", "kg/h, kg/s, t/h, lb/h"},
      {"energy", "J", "kJ, J, kWh"},
      {"power", "W", "kW, W, kJ/h, kcal/h"},
  }};
  return table[static_cast<std::size_t>(dimension)];
}

// What UDUNITS-2 does not know, or knows as something else than a process engineer means.
struct Alias {
  std::string udunits;
  double gauge_offset_Pa = 0;
};

std::optional<Alias> alias_of(std::string_view unit) {
  static const std::map<std::string, Alias, std::less<>> aliases{
      {"barg", {"bar", standard_atmosphere}},
      {"bar(g)", {"bar", standard_atmosphere}},
      {"psig", {"psi", standard_atmosphere}},
      {"kPag", {"kPa", standard_atmosphere}},
      {"psia", {"psi"}},
      {"bara", {"bar"}},
      {"bar(a)", {"bar"}},
      {"mol%", {"0.01"}},
      {"wt%", {"0.01"}},
      {"mass%", {"0.01"}},
      {"mol/mol", {"1"}},
      {"kg/m3", {"kg m-3"}},
      {"g/cm3", {"g cm-3"}},
      {"g/ml", {"g cm-3"}},
      {"g/mL", {"g cm-3"}},
      {"kg/l", {"kg dm-3"}},
      {"kg/L", {"kg dm-3"}},
      {"lb/ft3", {"lb ft-3"}},
      {"torr", {"mmHg"}},
      {"lbmol", {"453.59237 mol"}},
      {"lbmol/h", {"453.59237 mol h-1"}},
      {"lbmol/hr", {"453.59237 mol h-1"}},
      {"kg/hr", {"kg h-1"}},
      {"lb/hr", {"lb h-1"}},
      {"kmol/hr", {"kmol h-1"}},
      {"kcal", {"4184 J"}},
      {"kcal/h", {"4184 J h-1"}},
      {"kWh", {"kW h"}},
      {"Torr", {"mmHg"}},
      {"-", {"1"}},
      {"", {"1"}},
  };
  const auto found = aliases.find(unit);
  if (found == aliases.end()) return std::nullopt;
  return found->second;
}

struct FreeUnit {
  void operator()(ut_unit* unit) const { ut_free(unit); }
};
struct FreeConverter {
  void operator()(cv_converter* converter) const { cv_free(converter); }
};
using Unit = std::unique_ptr<ut_unit, FreeUnit>;

// The unit database is read once, when the first unit is needed; UDUNITS-2 itself is not thread-safe.
std::mutex& units_mutex() {
  static std::mutex mutex;
  return mutex;
}

ut_system* unit_system() {
  static ut_system* const system = [] {
    ut_set_error_message_handler(ut_ignore);
    ut_system* read = ut_read_xml(nullptr);
    if (read == nullptr) throw CalculationError("the unit database of UDUNITS-2 could not be read");
    return read;
  }();
  return system;
}

std::string suggestion(std::string_view unit, Dimension dimension) {
  return did_you_mean(unit, split(facts(dimension).examples, ','));
}

// How people write a unit and what UDUNITS-2 calls it; a temperature is never a coulomb or a farad.
std::string spelt_out(std::string_view unit, Dimension dimension) {
  static const std::map<std::string, std::string, std::less<>> temperatures{{"C", "degC"},
                                                                            {"c", "degC"},
                                                                            {"F", "degF"},
                                                                            {"f", "degF"},
                                                                            {"k", "K"},
                                                                            {"\xC2\xB0"
                                                                             "C",
                                                                             "degC"},
                                                                            {"\xC2\xB0"
                                                                             "F",
                                                                             "degF"},
                                                                            {"deg C", "degC"},
                                                                            {"deg F", "degF"},
                                                                            {"\xE2\x84\x83", "degC"},
                                                                            {"\xE2\x84\x89", "degF"},
                                                                            {"\xC2\xB0 C", "degC"},
                                                                            {"\xC2\xB0 F", "degF"}};
  if (dimension == Dimension::temperature) {
    const auto found = temperatures.find(unit);
    if (found != temperatures.end()) return found->second;
  }
  return std::string(unit);
}

struct Line {  // SI value = slope * value + offset; every unit conversion here is of that form
  double slope, offset;
};

using Conversions = std::map<std::pair<std::string, Dimension>, Line>;

// What nearly every request and answer is written in, as UDUNITS-2 converts it (a test compares): reading its
// database takes longer than most answers.
Conversions everyday_units() {
  using enum Dimension;
  return {{{"K", temperature}, {1, 0}},
          {{"degC", temperature}, {1, celsius_zero}},
          {{"Pa", pressure}, {1, 0}},
          {{"kPa", pressure}, {1000, 0}},
          {{"bar", pressure}, {1e5, 0}},
          {{"atm", pressure}, {standard_atmosphere, 0}},
          {{"", fraction}, {1, 0}},
          {{"1", fraction}, {1, 0}},
          {{"", number}, {1, 0}},
          {{"1", number}, {1, 0}},
          {{"J/mol", molar_energy}, {1, 0}},
          {{"kJ/mol", molar_energy}, {1000, 0}},
          {{"kg/m3", density}, {1, 0}},
          {{"mol", amount}, {1, 0}},
          {{"kmol", amount}, {1000, 0}},
          {{"kg", mass}, {1, 0}}};
}

Line conversion(std::string_view unit, Dimension dimension) {
  static Conversions known = everyday_units();
  const std::lock_guard lock(units_mutex());
  unit = trimmed(unit);
  const auto key = std::pair(std::string(unit), dimension);
  if (const auto found = known.find(key); found != known.end()) return found->second;

  const DimensionFacts& wanted = facts(dimension);
  const std::string spelling = spelt_out(unit, dimension);
  const auto special = alias_of(spelling);
  if (!special && !is_unit(spelling))
    throw RequestError(
        fmt::format("'{}' is not a unit; a {} takes {}.", shortened(unit, 40), wanted.name, wanted.examples));
  const Alias alias = special.value_or(Alias{spelling});
  const Unit from(ut_parse(unit_system(), alias.udunits.c_str(), UT_UTF8));
  if (!from) {
    throw RequestError(fmt::format("'{}' is not a unit; a {} takes {}.{}", unit, wanted.name, wanted.examples,
                                   suggestion(unit, dimension)));
  }
  const Unit to(ut_parse(unit_system(), wanted.si_unit, UT_UTF8));
  const std::unique_ptr<cv_converter, FreeConverter> converter(ut_get_converter(from.get(), to.get()));
  if (!converter) {
    throw RequestError(fmt::format("'{}' is not a unit of {}; it takes {}.{}", unit, wanted.name,
                                   wanted.examples, suggestion(unit, dimension)));
  }
  const double at_zero = cv_convert_double(converter.get(), 0.0);
  const Line line{cv_convert_double(converter.get(), 1.0) - at_zero, at_zero + alias.gauge_offset_Pa};
  // The unit library makes "t/t/y°C" a temperature whose zero is no number.
  if (!std::isfinite(line.slope) || !std::isfinite(line.offset) || line.slope == 0)
    throw RequestError(fmt::format("'{}' is not a unit of {}; it takes {}.", shortened(unit, 40), wanted.name,
                                   wanted.examples));
  known.emplace(key, line);
  return line;
}

using NumberAndUnit = WrittenQuantity;

[[noreturn]] void refuse(std::string_view text, Dimension dimension) {
  const DimensionFacts& wanted = facts(dimension);
  throw RequestError(
      fmt::format("'{}' is not a {}: expected a number and a unit ({})", text, wanted.name, wanted.examples));
}

NumberAndUnit require_number(std::string_view text, Dimension dimension) {
  return read_quantity(text, facts(dimension).name, facts(dimension).examples);
}

void require_unit(const std::string& unit, std::string_view text, Dimension dimension) {
  const bool pure = dimension == Dimension::fraction || dimension == Dimension::number;
  if (unit.empty() && !pure) refuse(text, dimension);
}

void require_physical(double value_si, std::string_view text, Dimension dimension) {
  if (dimension == Dimension::temperature && value_si <= 0) {
    throw RequestError(fmt::format("'{}' is at or below absolute zero", text));
  }
  if (dimension == Dimension::pressure && value_si <= 0) {
    throw RequestError(fmt::format("'{}' is not a positive absolute pressure", text));
  }
}

double checked_to_si(const NumberAndUnit& parsed, std::string_view text, Dimension dimension) {
  require_unit(parsed.unit, text, dimension);
  const double value = to_si(parsed.number, parsed.unit, dimension);
  if (!std::isfinite(value)) refuse(text, dimension);
  require_physical(value, text, dimension);
  return value;
}

std::vector<double> parse_range(std::string_view text, std::size_t to, Dimension dimension) {
  const std::string_view rest = text.substr(to + 4);
  const std::size_t by = rest.find(" by "), in = rest.find(" in ");
  if (by == std::string_view::npos && in == std::string_view::npos) {
    throw RequestError(
        fmt::format("'{}': a range needs a step or a number of values, "
                    "\"20 to 80 by 5 degC\" or \"20 to 80 in 13 degC\"",
                    text));
  }
  const std::size_t word = std::min(by, in);
  NumberAndUnit first = require_number(text.substr(0, to), dimension);
  NumberAndUnit last = require_number(rest.substr(0, word), dimension);
  NumberAndUnit third = require_number(rest.substr(word + 4), dimension);
  if (last.unit.empty()) last.unit = third.unit;
  if (first.unit.empty()) first.unit = last.unit;
  if (third.unit.empty()) third.unit = last.unit;
  const double begin = checked_to_si(first, text, dimension), end = checked_to_si(last, text, dimension);

  constexpr double most = 100000;
  double intervals = 0, step = 0;
  if (by < in) {
    step = std::abs(difference_to_si(third.number, third.unit, dimension));
    if (!(step > 0)) throw RequestError(fmt::format("'{}': the step must not be zero", text));
    intervals = std::floor(std::abs(end - begin) / step * (1 + 1e-12) + 1e-9);
    if (end < begin) step = -step;
  } else {
    if (third.number != std::floor(third.number) || third.number < 2) {
      throw RequestError(
          fmt::format("'{}': the number of values must be a whole number of at least 2", text));
    }
    intervals = third.number - 1;
    step = (end - begin) / intervals;
  }
  if (intervals + 1 > most) throw RequestError(fmt::format("'{}' has more than {} values", text, most));
  std::vector<double> values;
  for (std::size_t k = 0; k <= static_cast<std::size_t>(intervals); ++k) {
    values.push_back(begin + static_cast<double>(k) * step);
  }
  return values;
}

}  // namespace

std::string_view name_of(Dimension dimension) {
  return facts(dimension).name;
}

double to_si(double value, std::string_view unit, Dimension dimension) {
  const Line line = conversion(unit, dimension);
  return line.slope * value + line.offset;
}

double from_si(double value, std::string_view unit, Dimension dimension) {
  const Line line = conversion(unit, dimension);
  return (value - line.offset) / line.slope;
}

double difference_to_si(double value, std::string_view unit, Dimension dimension) {
  return conversion(unit, dimension).slope * value;
}

double difference_from_si(double value, std::string_view unit, Dimension dimension) {
  return value / conversion(unit, dimension).slope;
}

double parse_quantity(std::string_view text, Dimension dimension) {
  return checked_to_si(require_number(text, dimension), text, dimension);
}

double parse_difference(std::string_view text, Dimension dimension) {
  const NumberAndUnit parsed = require_number(text, dimension);
  require_unit(parsed.unit, text, dimension);
  const double value = difference_to_si(parsed.number, parsed.unit, dimension);
  if (!std::isfinite(value)) refuse(text, dimension);
  return value;
}

std::vector<double> parse_quantities(std::string_view text, Dimension dimension) {
  if (const std::size_t to = text.find(" to "); to != std::string_view::npos) {
    return parse_range(text, to, dimension);
  }
  if (has_close_comma(text)) require_number(text, dimension);  // which says what may be meant
  const std::vector<std::string> pieces = split(text, ',');
  std::vector<double> values(pieces.size());
  std::string unit;
  for (std::size_t k = pieces.size(); k-- > 0;) {  // from the right: a unit holds for the numbers before it
    NumberAndUnit parsed = require_number(pieces[k], dimension);
    if (!parsed.unit.empty()) unit = parsed.unit;
    parsed.unit = unit;
    values[k] = checked_to_si(parsed, text, dimension);
  }
  return values;
}

namespace {

// The dimensions of which a unit is chosen, and where it stands.
constexpr std::array<std::pair<Dimension, std::string DisplayUnits::*>, 9> shown_dimensions{
    {{Dimension::temperature, &DisplayUnits::temperature},
     {Dimension::pressure, &DisplayUnits::pressure},
     {Dimension::density, &DisplayUnits::density},
     {Dimension::amount, &DisplayUnits::amount},
     {Dimension::mass, &DisplayUnits::mass},
     {Dimension::energy, &DisplayUnits::energy},
     {Dimension::molar_flow, &DisplayUnits::molar_flow},
     {Dimension::mass_flow, &DisplayUnits::mass_flow},
     {Dimension::power, &DisplayUnits::power}}};

}  // namespace

const std::string& DisplayUnits::of(Dimension dimension) const {
  static const std::string none;
  for (const auto& [own, member] : shown_dimensions) {
    if (own == dimension) return this->*member;
  }
  return none;
}

void DisplayUnits::take_from(std::string_view quantity, std::span<const Dimension> dimensions) {
  for (const auto& [own, member] : shown_dimensions) {
    if (std::find(dimensions.begin(), dimensions.end(), own) == dimensions.end()) continue;
    if (const auto unit = unit_in(quantity, own)) this->*member = *unit;
  }
}

std::optional<std::string> unit_in(std::string_view text, Dimension dimension) {
  // What stands behind the number after which nothing but a unit follows.
  std::string unit;
  for (std::size_t k = 1; k < text.size() && unit.empty(); ++k) {
    if (std::isdigit(static_cast<unsigned char>(text[k - 1])) != 0 && is_unit(text.substr(k)))
      unit = spelt_out(trimmed(text.substr(k)), dimension);
  }
  if (unit.empty()) return std::nullopt;
  try {
    conversion(unit, dimension);
  } catch (const RequestError&) {
    return std::nullopt;
  }
  return unit;
}

Dimension dimension_of(std::string_view text, const std::vector<Dimension>& possible) {
  std::string examples;
  for (const Dimension dimension : possible)
    examples += fmt::format("{}{}", examples.empty() ? "" : ", ", facts(dimension).examples);
  read_quantity(text, "quantity", examples);  // which says what may be meant where it is none
  examples.clear();
  for (const Dimension dimension : possible) {
    try {
      checked_to_si(require_number(text, dimension), text, dimension);
      return dimension;
    } catch (const RequestError&) {
      examples += fmt::format("{}{} ({})", examples.empty() ? "" : ", ", facts(dimension).name,
                              facts(dimension).examples);
    }
  }
  throw RequestError(fmt::format("'{}': expected a number with a unit of {}", text, examples));
}

DisplayUnits parse_display_units(std::string_view text) {
  DisplayUnits units;
  for (const std::string& unit : split(text, ',')) {
    bool taken = false;
    for (const auto& [dimension, member] : shown_dimensions) {
      try {
        conversion(unit, dimension);
        units.*member = spelt_out(unit, dimension);
        taken = true;
      } catch (const RequestError&) {
        continue;  // not a unit of this dimension; perhaps of the next
      }
    }
    if (!taken)
      throw RequestError(fmt::format(
          "'{}' is not a unit of temperature, pressure, density, amount, mass, energy or of a flow of them",
          unit));
  }
  return units;
}

}  // namespace jampot
