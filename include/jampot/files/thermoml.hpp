#pragma once
// ThermoML, the open IUPAC standard for measured thermophysical data in XML: M. Frenkel et al., Pure Appl.
// Chem. 78 (2006) 541-612.
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/measured/data_set.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// The largest ThermoML file that is read; no more than one of its data sets is held at a time.
inline constexpr std::size_t largest_thermoml_bytes = std::size_t{1} << 30;

/// What was found in a ThermoML file.
struct ThermoML {
  std::vector<DataSet> sets;  ///< named FILE#NUMBER, with the number of the data set in the file
  Notices notices;            ///< which data sets were passed over, and why
};

/// Reads the phase equilibria of a ThermoML file: boiling liquids with and without the analysis of the
/// vapour, two liquids in equilibrium, limiting activity coefficients, and excess enthalpies, of two or more
/// substances. Two data sets that hold one liquid each of the same pair at the same temperatures become one.
/// Uncertainties are taken from CombinedUncertainty before the others; an expanded one is divided by its
/// coverage factor or, where none is stated, by that of its level of confidence in a normal distribution. One
/// that is not stated is assumed, with a notice. Substances are looked up by CAS number, then by name.
///
/// Data sets about anything else are passed over, with a notice for each reason.
/// @throws RequestError naming the line where the file is no ThermoML or a number is none, and where not one
/// data set can be used
ThermoML read_thermoml(const std::filesystem::path& path, const Bank& bank = Bank::built_in());

/// The same from text; `file` is used in messages.
ThermoML parse_thermoml(std::string_view text, const std::string& file, const Bank& bank = Bank::built_in());

/// Data sets as a ThermoML file, without dates, with combined standard uncertainties. Points that are
/// excluded are left out: the standard has no place for the reason. The elements are those of the description
/// cited above; the text has not been validated against the schema.
std::string thermoml_text(const std::vector<DataSet>& sets);

}  // namespace jampot
