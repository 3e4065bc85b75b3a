#include "triangle_options.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/report/triangle_marks.hpp"

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
  for (const std::string& text : marks) drawing.marks.push_back(parse_mark(text, substances, basis));
  if (!mark_file.empty()) {
    auto more = read_marks(mark_file, substances, basis);
    drawing.marks.insert(drawing.marks.end(), more.begin(), more.end());
  }
  for (const std::string& text : balance_lines)
    drawing.balance_lines.push_back(parse_balance_line(text, drawing.marks));
}

std::vector<AskedComposition> asked_compositions(const std::vector<std::string>& texts,
                                                 const std::vector<Substance>& substances, Basis basis) {
  std::vector<AskedComposition> list;
  for (const std::string& text : texts)
    list.push_back({three(parse_composition(text, substances, basis)), text});
  return list;
}

void add_triangle(Command& command, TriangleOptions& options, const std::vector<std::string>& layers) {
  command
      .option("--tie-line", options.tie_lines, "COMPOSITION",
              "The tie line through this composition; may be repeated")
      .repeated();
  command.option("--corners", options.corners, "NAMES", "Components at the corners: \"top, left, right\"");
  command.flag("--right-angled", options.right_angled, "Draw the triangle right-angled");
  command.option("--mark", options.marks, "TEXT: COMPOSITION", "Label a composition: \"feed: A=0.3, B=0.4\"")
      .repeated();
  command.option("--mark-file", options.mark_file, "FILE.csv", "Labels from a table: text, x1, x2");
  command
      .option("--balance-line", options.balance_lines, "MARK, MARK",
              "A straight line between two marks: \"feed, bottoms\"; may be repeated")
      .repeated();
  command.flag("--guide-lines", options.guide_lines, "Lines from the marks to the three binary edges");
  command.option("--show", options.show, "LIST", "Layers to draw: " + joined(layers, ", "));
  command.option("--hide", options.hide, "LIST", "Layers to leave out");
}

}  // namespace jampot::tool
