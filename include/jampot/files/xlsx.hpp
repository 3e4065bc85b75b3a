#pragma once
#include <filesystem>
#include <vector>

#include "jampot/files/table.hpp"

namespace jampot {

/// Writes the tables into one workbook, a sheet each, with units in the header row. Values are numbers at
/// full precision, formatted with the decimals of their column. The time stamp inside is fixed, so that two
/// runs give the same bytes. @throws RequestError where the file cannot be written.
void write_xlsx(const std::filesystem::path& path, const std::vector<Table>& tables,
                const DisplayUnits& units);

}  // namespace jampot
