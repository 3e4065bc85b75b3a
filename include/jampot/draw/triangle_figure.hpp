#pragma once
// What every figure in a triangle has: basis, corners, layers, marked compositions.
#include <array>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "jampot/basis/quantity.hpp"
#include "jampot/draw/triangle.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

/// A composition to point out, by mole fractions.
struct TriangleMark {
  std::string text;           ///< label
  std::array<double, 3> x{};  ///< mole fractions
};

/// What the triangles of liquids and of residue curves have in common.
struct TriangleFigureOptions {
  DisplayUnits units;                                              ///< units in which numbers are shown
  Basis basis = Basis::mole;                                       ///< mole or mass fractions
  Triangle::Options triangle;                                      ///< how the triangle is drawn
  std::set<std::string> hidden;                                    ///< layers not drawn
  std::vector<TriangleMark> marks;                                 ///< single points with a name
  std::vector<std::pair<std::size_t, std::size_t>> balance_lines;  ///< between two marks
  bool guide_lines = false;                                        ///< from marks to the three sides
};

}  // namespace jampot
