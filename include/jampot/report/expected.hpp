#pragma once
// A reference table (a textbook's, another program's) laid beside the results.
#include <string>

#include "jampot/report/answer.hpp"

namespace jampot {

/// Adds a table of results, reference and deviation for every column of the file that a table of the answer
/// has too (substances by any of their names), row by row: a row of the file belongs to the result with the
/// same texts, T and P where it gives them, else to the one in the same place. A column may also be named
/// like a row of a table with one column of numbers ("duty [kW]"). An empty line parts several tables of one
/// file, so what --csv wrote can be read again. Nothing where `file` is empty.
/// @throws RequestError for a file that shares no column with the results, or a row that belongs to none
void add_expected(const std::string& file, Answer& answer, const DisplayUnits& units);

}  // namespace jampot
