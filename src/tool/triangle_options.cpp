#include "triangle_options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot::tool {
namespace {

std::set<std::string> layers_in(const std::string& option, const std::string& text,
                                const std::vector<std::string>& known) {
  std::set<std::string> layers;
  for (const std::string& piece : split(text, ',')) {
    if (piece.empty()) continue;
    if (std::find(known.begin(), known.end(), piece) == known.end()) {
      throw RequestError(fmt::format("{}: '{}' is not a layer; there are {}.{}", option, piece,
                                     joined(known, ", "), did_you_mean(piece, known)));
    }
    layers.insert(piece);
  }
  return layers;
}

std::array<std::size_t, 3> read_corners(const std::string& text, const std::vector<Substance>& substances) {
  const std::vector<std::string> names = split(text, ',');
  if (names.size() != 3)
    throw RequestError(fmt::format("--corners '{}': expected three names, \"top, left, right\"", text));
  std::array<std::size_t, 3> corners{};
  for (std::size_t k = 0; k < 3; ++k) corners[k] = member_named(names[k], substances);
  auto sorted = corners;
  std::sort(sorted.begin(), sorted.end());
  if (sorted != std::array<std::size_t, 3>{0, 1, 2})
    throw RequestError(fmt::format("--corners '{}' names a substance twice", text));
  return corners;
}

// "feed: A=0.3, B=0.4"
TriangleMark read_mark(const std::string& text, const std::vector<Substance>& substances, Basis basis) {
  const std::size_t colon = text.find(':');
  if (colon == std::string::npos)
    throw RequestError(
        fmt::format("--mark '{}': expected \"text: composition\", as in \"feed: {}=0.3, {}=0.3\"", text,
                    substances[0].name, substances[1].name));
  return {std::string(trimmed(text.substr(0, colon))),
          three(parse_composition(text.substr(colon + 1), substances, basis))};
}

// A table: text, then a fraction of the first and the second substance (and the third).
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

std::size_t mark_named(const std::string& name, const std::vector<TriangleMark>& marks,
                       const std::string& option) {
  std::vector<std::string> names;
  for (std::size_t k = 0; k < marks.size(); ++k) {
    if (lower_case(marks[k].text) == lower_case(name)) return k;
    names.push_back(marks[k].text);
  }
  throw RequestError(names.empty()
                         ? fmt::format("--balance-line '{}': there are no marks; --mark names one", option)
                         : fmt::format("--balance-line '{}': '{}' is not a mark; there are {}.{}", option,
                                       name, joined(names, ", "), did_you_mean(name, names)));
}

}  // namespace

void TriangleOptions::read(TriangleFigureOptions& drawing, const std::vector<Substance>& substances,
                           Basis basis, const std::vector<std::string>& layers) const {
  drawing.basis = basis;
  drawing.triangle.right_angled = right_angled;
  drawing.guide_lines = guide_lines;
  if (!corners.empty()) drawing.triangle.corners = read_corners(corners, substances);
  drawing.hidden = layers_in("--hide", hide, layers);
  if (!show.empty()) {
    const std::set<std::string> shown = layers_in("--show", show, layers);
    for (const std::string& layer : layers) {
      if (!shown.contains(layer)) drawing.hidden.insert(layer);
    }
  }
  for (const std::string& text : marks) drawing.marks.push_back(read_mark(text, substances, basis));
  if (!mark_file.empty()) {
    auto more = read_marks(mark_file, substances, basis);
    drawing.marks.insert(drawing.marks.end(), more.begin(), more.end());
  }
  for (const std::string& text : balance_lines) {
    const std::vector<std::string> ends = split(text, ',');
    if (ends.size() != 2)
      throw RequestError(
          fmt::format("--balance-line '{}': expected the names of two marks, \"feed, bottoms\"", text));
    drawing.balance_lines.emplace_back(mark_named(ends[0], drawing.marks, text),
                                       mark_named(ends[1], drawing.marks, text));
  }
}

std::vector<AskedComposition> asked_compositions(const std::vector<std::string>& texts,
                                                 const std::vector<Substance>& substances, Basis basis) {
  std::vector<AskedComposition> list;
  for (const std::string& text : texts)
    list.push_back({three(parse_composition(text, substances, basis)), text});
  return list;
}

void add_triangle(CLI::App& command, TriangleOptions& options, const std::vector<std::string>& layers) {
  repeatable(command
                 .add_option("--tie-line", options.tie_lines,
                             "The tie line through this composition; may be repeated")
                 ->type_name("COMPOSITION"));
  command.add_option("--corners", options.corners, "Components at the corners: \"top, left, right\"")
      ->type_name("NAMES");
  command.add_flag("--right-angled", options.right_angled, "Draw the triangle right-angled");
  repeatable(command.add_option("--mark", options.marks, "Point out a composition: \"feed: A=0.3, B=0.4\"")
                 ->type_name("TEXT: COMPOSITION"));
  command.add_option("--mark-file", options.mark_file, "The same from a table: text, x1, x2")
      ->type_name("FILE.csv");
  repeatable(command
                 .add_option("--balance-line", options.balance_lines,
                             "A straight line between two marks: \"feed, bottoms\"; may be repeated")
                 ->type_name("MARK, MARK"));
  command.add_flag("--guide-lines", options.guide_lines, "Lines from the marks to the three sides");
  command.add_option("--show", options.show, "Only these layers: " + joined(layers, ", "))->type_name("LIST");
  command.add_option("--hide", options.hide, "Not these layers")->type_name("LIST");
}

}  // namespace jampot::tool
