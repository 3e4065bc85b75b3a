#include "jampot/basis/csv.hpp"

#include <csv.h>

#include <algorithm>
#include <memory>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

// Takes one line after the other apart; libcsv is ready for the next one where a line ended well.
class LineParser {
 public:
  explicit LineParser(CsvText::Storage& storage) : storage_(storage) {
    csv_init(&state_, CSV_STRICT | CSV_STRICT_FINI | CSV_APPEND_NULL);
  }
  ~LineParser() { csv_free(&state_); }
  LineParser(const LineParser&) = delete;
  LineParser& operator=(const LineParser&) = delete;

  /// Adds the fields to the cells. @returns false where the quotes do not match.
  bool take(std::string_view line) {
    const std::size_t before = storage_.cells.size();
    if (take_plain(line)) return true;
    storage_.cells.resize(before);
    return take_any(line);
  }

 private:
  // Without quotes, or with quotes around whole fields: that is where commas stand, no more; tables are long.
  bool take_plain(std::string_view line) {
    for (bool more = true; more;) {
      const bool quoted = line.starts_with('"');
      const std::size_t begin = quoted ? 1 : 0,
                        end = std::min(line.find(quoted ? '"' : ',', begin), line.size()),
                        comma = end + begin;
      const std::string_view field = line.substr(begin, end - begin);
      more = comma < line.size();
      if (quoted ? end == line.size() || (more && line[comma] != ',') : field.find('"') != field.npos)
        return false;
      storage_.cells.push_back(trimmed(field));
      if (more) line.remove_prefix(comma + 1);
    }
    return true;
  }

  bool take_any(std::string_view line) {
    const auto on_field = [](void* field, size_t size, void* target) {
      auto& storage = *static_cast<CsvText::Storage*>(target);
      storage.quoted.emplace_back(trimmed({static_cast<const char*>(field), size}));
      storage.cells.emplace_back(storage.quoted.back());
    };
    const bool whole =
        csv_parse(&state_, line.data(), line.size(), on_field, nullptr, &storage_) == line.size();
    return whole && csv_fini(&state_, on_field, nullptr, &storage_) == 0;
  }

  csv_parser state_{};
  CsvText::Storage& storage_;
};

}  // namespace

CsvText parse_csv(std::string_view text, const std::string& file, TextLife life) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  demand_readable(text, {file, 0, {}});
  CsvText csv;
  const auto storage = std::make_shared<CsvText::Storage>();
  if (life == TextLife::kept) text = storage->text = text;
  LineParser parser(*storage);
  std::vector<std::size_t> ends;  // of each row, in the cells
  int line_number = 0;
  while (!text.empty()) {
    const auto end = text.find('\n');
    const std::string_view line = trimmed(text.substr(0, end));
    text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
    ++line_number;
    if (line.empty()) continue;
    if (line.front() == '#') {
      csv.comments.push_back({line_number, std::string(trimmed(line.substr(1)))});
      continue;
    }
    if (!parser.take(line))
      throw RequestError({file, line_number, {}}, "the double quotes on this line do not match");
    if (csv.rows.empty()) {
      const auto most = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n')) + 2;
      csv.rows.reserve(most);
      ends.reserve(most);
      storage->cells.reserve(most * storage->cells.size());
    }
    csv.rows.push_back({line_number, {}});
    ends.push_back(storage->cells.size());
  }
  std::size_t begin = 0;
  for (std::size_t row = 0; row < ends.size(); begin = ends[row], ++row)
    csv.rows[row].fields = std::span(storage->cells).subspan(begin, ends[row] - begin);
  csv.storage = storage;
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
