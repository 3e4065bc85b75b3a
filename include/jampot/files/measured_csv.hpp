#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "jampot/measured/data_set.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// Reads measured data (docs/files.md describes the form):
///
///   # substances: methyl tert-butyl ether, methanol
///   # u(T): 0.05 K
///   T [degC], P [kPa], x1, y1
///   63.06, 101.35, 0.0183, 0.0782
///
/// Comment keys: substances, kind, source, title, T and P (a value that holds for every row), u(T), u(P),
/// u(x), u(y) (standard uncertainties). Columns: T, P, x1.. or x(methanol), y1.., and u(..) for uncertainties
/// row by row. An uncertainty that is not stated is assumed, with a notice.
///
/// @throws RequestError naming file, line and column, what was expected and what was found.
DataSet read_measured(const std::filesystem::path& path, const Bank& bank = Bank::built_in());

/// The same from text; `file` is used in messages.
DataSet parse_measured(std::string_view text, const std::string& file, const Bank& bank = Bank::built_in());

/// A data set in this form, without dates: T in K, P in kPa, uncertainties as comments where they are the
/// same for every point.
std::string measured_csv_text(const DataSet& data);

}  // namespace jampot
