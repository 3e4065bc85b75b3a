#include "jampot/basis/csv.hpp"

#include <csv.h>

#include <optional>
#include <utility>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

// Takes one line after the other apart; libcsv is ready for the next one where a line ended well.
class LineParser {
 public:
  LineParser() { csv_init(&state_, CSV_STRICT | CSV_STRICT_FINI | CSV_APPEND_NULL); }
  ~LineParser() { csv_free(&state_); }
  LineParser(const LineParser&) = delete;
  LineParser& operator=(const LineParser&) = delete;

  /// Nothing where the quotes do not match.
  std::optional<std::vector<std::string>> fields_of(std::string_view line) {
    std::vector<std::string> fields;
    fields.reserve(columns_);
    if (line.find('"') ==
        std::string_view::npos) {  // commas alone: no need for a parser, and tables are long
      for (std::size_t comma = 0; comma != std::string_view::npos;) {
        comma = line.find(',');
        fields.emplace_back(trimmed(line.substr(0, comma)));
        line.remove_prefix(comma == std::string_view::npos ? line.size() : comma + 1);
      }
      columns_ = fields.size();
      return fields;
    }
    const auto on_field = [](void* field, size_t size, void* target) {
      static_cast<std::vector<std::string>*>(target)->emplace_back(
          trimmed({static_cast<const char*>(field), size}));
    };
    const bool whole =
        csv_parse(&state_, line.data(), line.size(), on_field, nullptr, &fields) == line.size();
    if (!whole || csv_fini(&state_, on_field, nullptr, &fields) != 0) return std::nullopt;
    columns_ = fields.size();
    return fields;
  }

 private:
  csv_parser state_{};
  std::size_t columns_ = 0;
};

}  // namespace

CsvText parse_csv(std::string_view text, const std::string& file) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  demand_readable(text, {file, 0, {}});
  CsvText csv;
  LineParser parser;
  int line_number = 0;
  while (!text.empty()) {
    const auto end = text.find('\n');
    const std::string_view line = trimmed(text.substr(0, end));
    text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
    ++line_number;
    if (line.empty()) continue;
    if (line.front() == '#') {
      csv.comments.push_back({line_number, std::string(trimmed(line.substr(1)))});
    } else {
      auto fields = parser.fields_of(line);
      if (!fields) throw RequestError({file, line_number, {}}, "the double quotes on this line do not match");
      csv.rows.push_back({line_number, std::move(*fields)});
    }
  }
  return csv;
}

std::string csv_field(std::string_view text) {
  // A field that begins with '#' would begin a comment where it stands first on its line.
  if (text.find_first_of(",\"\r\n") == std::string_view::npos && !text.starts_with('#'))
    return std::string(text);
  std::string quoted(2 * text.size() + 2, '\0');
  quoted.resize(csv_write(quoted.data(), quoted.size(), text.data(), text.size()));
  return quoted;
}

}  // namespace jampot
