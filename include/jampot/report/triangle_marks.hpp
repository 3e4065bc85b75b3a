#pragma once
// Points with a name, and lines between them, for a figure in a triangle.
#include <string>
#include <utility>
#include <vector>

#include "jampot/draw/triangle_figure.hpp"

namespace jampot {

/// "feed: A=0.3, B=0.4", fractions of this basis. @throws RequestError saying what was expected
TriangleMark parse_mark(const std::string& text, const std::vector<Substance>& substances, Basis basis);

/// From a table in CSV: text, then a fraction of the first and the second substance (and the third).
/// @throws RequestError with the place in the file
std::vector<TriangleMark> read_marks(const std::string& file, const std::vector<Substance>& substances,
                                     Basis basis);

/// "feed, bottoms": numbers of two marks. @throws RequestError with the nearest name
std::pair<std::size_t, std::size_t> parse_balance_line(const std::string& text,
                                                       const std::vector<TriangleMark>& marks);

}  // namespace jampot
