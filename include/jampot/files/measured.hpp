#pragma once
// Measured data, whatever kind of file they are in.
#include <filesystem>
#include <vector>

#include "jampot/measured/data_set.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// Reads a file of measured data: one set of a CSV file (measured_csv.hpp), all sets of a ThermoML file,
/// whose name ends in .xml (thermoml.hpp), or one of them: "paper.xml#3". What concerns the whole file is
/// among the notices of the first set.
/// @throws RequestError as the readers do, and for a number that the file does not have
std::vector<DataSet> read_measured_file(const std::filesystem::path& path,
                                        const Bank& bank = Bank::built_in());

/// Writes the sets in the form that the name asks for: .xml is ThermoML, .csv our own form, which holds one
/// set.
/// @throws RequestError for another ending, several sets in a CSV file, or a file that cannot be written
void write_measured_file(const std::filesystem::path& path, const std::vector<DataSet>& sets);

/// The text that `write_measured_file` writes. @throws RequestError likewise
std::string measured_text(const std::filesystem::path& path, const std::vector<DataSet>& sets);

}  // namespace jampot
