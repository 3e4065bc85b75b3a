#include "jampot/basis/csv.hpp"

#include <csv.h>

#include <memory>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

struct Parser {
  csv_parser state{};
  Parser() { csv_init(&state, CSV_STRICT | CSV_STRICT_FINI | CSV_APPEND_NULL); }
  ~Parser() { csv_free(&state); }
  Parser(const Parser&) = delete;
  Parser& operator=(const Parser&) = delete;
};

std::vector<std::string> parse_line(std::string_view line, const Place& place) {
  Parser parser;
  std::vector<std::string> fields;
  const auto on_field = [](void* field, size_t size, void* target) {
    static_cast<std::vector<std::string>*>(target)->emplace_back(static_cast<const char*>(field), size);
  };
  const bool whole =
      csv_parse(&parser.state, line.data(), line.size(), on_field, nullptr, &fields) == line.size();
  if (!whole || csv_fini(&parser.state, on_field, nullptr, &fields) != 0) {
    throw RequestError(place, "the double quotes on this line do not match");
  }
  for (std::string& field : fields) field = std::string(trimmed(field));
  return fields;
}

}  // namespace

CsvText parse_csv(std::string_view text, const std::string& file) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  demand_readable(text, {file, 0, {}});
  CsvText csv;
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
      csv.rows.push_back({line_number, parse_line(line, {file, line_number, {}})});
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
