#include "jampot/report/triangle_marks.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/mixture_words.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/study/asked.hpp"

namespace jampot {
namespace {

std::size_t mark_named(const std::string& name, const std::vector<TriangleMark>& marks,
                       const std::string& option) {
  std::vector<std::string> names;
  for (std::size_t k = 0; k < marks.size(); ++k) {
    if (lower_case(marks[k].text) == lower_case(name)) return k;
    names.push_back(marks[k].text);
  }
  throw RequestError(names.empty()
                         ? fmt::format("`balance-line` '{}': there are no marks; `mark` names one", option)
                         : fmt::format("`balance-line` '{}': '{}' is not a mark; there are {}.{}", option,
                                       name, joined(names, ", "), did_you_mean(name, names)));
}

}  // namespace

TriangleMark parse_mark(const std::string& text, const std::vector<Substance>& substances, Basis basis) {
  const std::size_t colon = text.find(':');
  if (colon == std::string::npos)
    throw RequestError(
        fmt::format("`mark` '{}': expected \"text: composition\", as in \"feed: {}=0.3, {}=0.3\"", text,
                    substances[0].name, substances[1].name));
  return {std::string(trimmed(text.substr(0, colon))),
          three(parse_composition(text.substr(colon + 1), substances, basis))};
}

std::vector<TriangleMark> read_marks(const std::string& file, const std::vector<Substance>& substances,
                                     Basis basis) {
  const CsvTable table(read_file(file), file);
  const std::size_t columns = table.header().size();
  if (columns != 3 && columns != 4)
    throw RequestError(table.header_place(), "expected the columns text, x1, x2 (and x3, or it is the rest)");
  std::vector<TriangleMark> marks;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    std::vector<double> x;
    for (std::size_t k = 1; k < columns; ++k) {
      x.push_back(table.number(row, k));
      if (!(x.back() >= 0 && x.back() <= 1))
        throw RequestError(table.place(row, k),
                           fmt::format("{} is not a fraction between 0 and 1", x.back()));
    }
    if (columns == 3) x.push_back(1 - x[0] - x[1]);
    constexpr double rounding = 1e-6;
    if (x[2] < -rounding || std::abs(x[0] + x[1] + x[2] - 1) > rounding)
      throw RequestError(table.place(row, 1), "the fractions do not sum to 1");
    x[2] = std::max(0.0, x[2]);
    marks.push_back(
        {std::string(table.text(row, 0)), three(basis == Basis::mass ? mole_fractions(x, substances) : x)});
  }
  return marks;
}

std::pair<std::size_t, std::size_t> parse_balance_line(const std::string& text,
                                                       const std::vector<TriangleMark>& marks) {
  const std::vector<std::string> ends = split(text, ',');
  if (ends.size() != 2)
    throw RequestError(
        fmt::format("`balance-line` '{}': expected the names of two marks, \"feed, bottoms\"", text));
  return {mark_named(ends[0], marks, text), mark_named(ends[1], marks, text)};
}

}  // namespace jampot
