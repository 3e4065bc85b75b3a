#pragma once
// Options of everything drawn in a triangle.
#include "jampot/draw/triangle_figure.hpp"
#include "jampot/study/asked.hpp"
#include "options.hpp"

namespace jampot::tool {

struct TriangleOptions {
  std::string corners, show, hide, mark_file;
  std::vector<std::string> marks, tie_lines, balance_lines;
  bool right_angled = false, guide_lines = false;

  /// Into what a figure is drawn with. @throws RequestError for an unknown layer, substance or mark
  void read(TriangleFigureOptions& drawing, const std::vector<Substance>& substances, Basis basis,
            const std::vector<std::string>& layers) const;
};

void add_triangle(Command& command, TriangleOptions& options, const std::vector<std::string>& layers);

/// Compositions as they were typed.
std::vector<AskedComposition> asked_compositions(const std::vector<std::string>& texts,
                                                 const std::vector<Substance>& substances, Basis basis);

}  // namespace jampot::tool
