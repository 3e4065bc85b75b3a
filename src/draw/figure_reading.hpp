#pragma once
// What a page needs to know of a figure to show the values of a point under the mouse.
#include <string>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// JSON: of every panel its frame in pixels of the figure, its axes and its series as numbers; of a triangle
/// the corners instead of axes.
std::string reading_of(const Figure& figure);

/// The script of a page whose figures are followed by such JSON: the wheel zooms, dragging moves, a double
/// click goes back, pointing shows the values of the nearest point or those under the pointer.
extern const char* const reading_script;
/// Its SHA-256 in base64, by which the policy of a page knows the only script that may run.
extern const char* const reading_script_sha256;

}  // namespace jampot
