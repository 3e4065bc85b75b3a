#pragma once
// Comma-separated text as rows of fields (RFC 4180), read by libcsv, with the line numbers that messages
// need.
#include <deque>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

/// One line of cells.
struct CsvRow {
  int line = 0;                              ///< in the file, counted from 1
  std::span<const std::string_view> fields;  ///< text of each field, without quotes; lives in its `CsvText`

  /// The fields, to be kept.
  std::vector<std::string> copied() const { return {fields.begin(), fields.end()}; }
};

/// A comment line, without its mark.
struct CsvComment {
  int line = 0;      ///< line in the file
  std::string text;  ///< without the '#'
};

/// Whether a text is kept, or lives longer than what is read from it: one that the library carries.
enum class TextLife { kept, longer };

/// A CSV text taken apart: comments, header and rows, each with its line. Copies share the text.
struct CsvText {
  std::vector<CsvComment> comments;  ///< lines that begin with '#'
  std::vector<CsvRow> rows;          ///< the rest, empty lines left out; the first is the header

  /// What the fields are part of.
  struct Storage {
    std::string text;                     ///< the file, where it is kept
    std::deque<std::string> quoted;       ///< fields that stood between quotes
    std::vector<std::string_view> cells;  ///< all fields, row by row
  };
  std::shared_ptr<const Storage> storage;  ///< keeps the fields of `rows`
};

/// Reads comma-separated text. A byte-order mark and Windows line ends are taken in stride.
/// A field may not run over a line end, so that every message can name its line.
/// @throws RequestError naming `file` and the line where the quotes do not match.
CsvText parse_csv(std::string_view text, const std::string& file, TextLife life = TextLife::kept);

/// The field as it must be written so that every reader takes it as one field.
std::string csv_field(std::string_view text);

}  // namespace jampot
