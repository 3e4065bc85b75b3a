#pragma once
// Comma-separated text as rows of fields (RFC 4180), read by libcsv, with the line numbers that messages
// need.
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// One line of cells.
struct CsvRow {
  int line = 0;                     ///< in the file, counted from 1
  std::vector<std::string> fields;  ///< text of each field, without quotes
};

/// A comment line, without its mark.
struct CsvComment {
  int line = 0;      ///< line in the file
  std::string text;  ///< without the '#'
};

/// A CSV text taken apart: comments, header and rows, each with its line.
struct CsvText {
  std::vector<CsvComment> comments;  ///< lines that begin with '#'
  std::vector<CsvRow> rows;          ///< the rest, empty lines left out; the first is the header
};

/// Reads comma-separated text. A byte-order mark and Windows line ends are taken in stride.
/// A field may not run over a line end, so that every message can name its line.
/// @throws RequestError naming `file` and the line where the quotes do not match.
CsvText parse_csv(std::string_view text, const std::string& file);

/// The field as it must be written so that every reader takes it as one field.
std::string csv_field(std::string_view text);

}  // namespace jampot
