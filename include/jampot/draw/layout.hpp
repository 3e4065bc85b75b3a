#pragma once
// Where the parts of a figure stand, in pixels from the top left, and where its labels go.
#include <string>
#include <vector>

#include "jampot/draw/figure.hpp"

namespace jampot {

/// A rectangle in pixels that a label takes.
struct Box {
  double left,  ///< left edge
      top,      ///< upper edge
      right,    ///< right edge
      bottom;   ///< lower edge
  /// True where both have an area in common.
  bool overlaps(const Box& other) const {
    return left < other.right && other.left < right && top < other.bottom && other.top < bottom;
  }
  /// True where the other one lies within.
  bool contains(const Box& other) const {
    return other.left >= left && other.right <= right && other.top >= top && other.bottom <= bottom;
  }
};

/// A label that has found its place.
struct PlacedLabel {
  std::string text;     ///< what is written
  Box box;              ///< what the text covers
  int colour = -1;      ///< of the curve it names; -1: black
  bool leader = false;  ///< a thin line leads to `anchor`
  double anchor_x = 0,  ///< where its leader ends, pixels
      anchor_y = 0;     ///< where its leader ends, pixels
};

/// Where the labels of a panel stand.
struct PanelLayout {
  Box frame;                        ///< the axes
  std::vector<PlacedLabel> labels;  ///< where each label went
  Box key{};                        ///< the corner given to the key; of no size where there is none
  bool key_at_top = true;           ///< false: at the bottom
  bool key_at_right = true;         ///< false: at the left
};

inline constexpr double label_font_px = 17, tick_font_px = 16, title_font_px = 21, small_font_px = 13;

/// Pixel position of a spot of the panel.
double pixel_x(const Panel& panel, const Box& frame, double x);
double pixel_y(const Panel& panel, const Box& frame, double y);

/// The frame of each panel, in pixels.
std::vector<Box> frames_of(const Figure& figure);

/// Places the frames of all panels as `frames_of` does, and every curve label and callout so that it lies
/// inside the frame, on no curve, no marked point and no other label. A curve label that finds no such place
/// is left to the key (it is then not in the result); a callout always gets the best place there is.
std::vector<PanelLayout> lay_out(const Figure& figure);

/// Whether the straight line between two points crosses the box.
bool crosses(const Box& box, double x1, double y1, double x2, double y2);

}  // namespace jampot
