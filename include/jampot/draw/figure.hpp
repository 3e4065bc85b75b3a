#pragma once
// A figure as geometry: what is drawn where, before anything is drawn. gnuplot turns it into a picture.
#include <array>
#include <filesystem>
#include <string>
#include <vector>

namespace jampot {

/// A point in the units of the axes.
struct Spot {
  double x,  ///< along the horizontal axis
      y;     ///< along the vertical axis
};

enum class Stroke { solid, dashed, dotted, none };
enum class Mark { none, circle, square, triangle, diamond, cross };

/// A curve or a set of points. Colours are numbers of the house palette (see palette()).
struct Series {
  std::vector<Spot> spots;        ///< in order
  std::string label;              ///< written at the curve; none: not labelled
  Stroke stroke = Stroke::solid;  ///< how the line is drawn
  Mark mark = Mark::none;         ///< open symbols
  int colour = 0;                 ///< number of a colour in the palette
  double width = 2;               ///< of the line, pixels
  bool in_key = false;            ///< listed in the key instead of labelled at the curve (point series)
  bool label_may_fail = false;  ///< a label that finds no place at the curve is left out, not put in the key
};

/// A text at a point of the diagram, placed near it where it covers nothing.
struct Callout {
  Spot spot;               ///< what it points at
  std::string text;        ///< what is written
  Mark mark = Mark::none;  ///< sign drawn at the spot
};

/// A text that stands where it is put: numbers at the side of a triangle, names at its corners.
struct FixedText {
  /// Which part of the text lies at the spot.
  enum class Align { left, centre, right };
  Spot spot;                    ///< where it is
  std::string text;             ///< what is written
  Align align = Align::centre;  ///< which part of it lies there
  bool small = true;            ///< true for the size of labels, false for that of headings
};

/// A straight arrow.
struct Arrow {
  Spot from,               ///< where it begins
      to;                  ///< where it ends
  int colour = 0;          ///< number of a colour in the palette
  bool head_only = false;  ///< a head at `to`, pointing away from `from`
};

/// A lightly coloured area.
struct Area {
  std::vector<Spot> outline;  ///< its corners
  int colour = 0;             ///< number of a colour in the palette
};

/// An axis with its label and range.
struct Axis {
  std::string label;         ///< what it shows, with unit
  double low = 0,            ///< value at its beginning
      high = 1;              ///< value at its end
  bool logarithmic = false;  ///< low and high positive
};

/// One pair of axes and what is drawn in them.
struct Panel {
  Axis x,                         ///< horizontal axis
      y;                          ///< vertical axis
  std::vector<Series> series;     ///< curves and points
  std::vector<Callout> callouts;  ///< labels of single points
  bool square = false;            ///< both axes of one length
  /// No axes are drawn, and one unit is as long in y as in x: triangles.
  bool bare = false;
  std::array<std::string, 3> corners{};  ///< of a triangle: who stands at the top, left and right
  bool right_angled = false;             ///< a triangle with its right angle on the left
  std::vector<Series> guides;    ///< frame and grid of a bare panel: drawn first, no obstacle for labels
  std::vector<FixedText> texts;  ///< texts with a place of their own
  std::vector<Arrow> arrows;     ///< arrows
  std::vector<Area> areas;       ///< filled areas

  Panel();                                   ///< with nothing set
  Panel(const Panel& other);                 ///< copied member by member
  Panel(Panel&& other) noexcept;             ///< moved member by member
  Panel& operator=(const Panel& other);      ///< copied member by member
  Panel& operator=(Panel&& other) noexcept;  ///< moved member by member
  ~Panel();                                  ///< member by member
};

/// A whole figure: panels, title, footer and notices.
struct Figure {
  std::string title;                 ///< heading
  std::string footer;                ///< model and source of parameters, small
  std::vector<std::string> notices;  ///< codes of notices that bear on the picture, marked below the title
  std::vector<Panel> panels;         ///< row by row, sharing the height
  int columns = 1;                   ///< panels beside each other
  int width = 1280,                  ///< width in pixels
      height = 800;                  ///< height in pixels

  Figure();                                    ///< with nothing set
  Figure(const Figure& other);                 ///< copied member by member
  Figure(Figure&& other) noexcept;             ///< moved member by member
  Figure& operator=(const Figure& other);      ///< copied member by member
  Figure& operator=(Figure&& other) noexcept;  ///< moved member by member
  ~Figure();                                   ///< member by member
};

/// The colour of a number, "#rrggbb": dark enough on white, told apart with any colour vision. After eight of
/// them come the grey of grids (8) and of frames (9).
std::string palette(int colour);

/// A unit as print shows it: "degC" as "°C".
std::string printed_unit(const std::string& unit);

/// An axis range that holds the values with a little room, ends on round numbers.
Axis rounded_axis(std::string label, double low, double high);

/// A logarithmic axis that holds the values, all positive, with a little room and ends on one, two or five
/// times a power of ten.
Axis logarithmic_axis(std::string label, double low, double high);

/// Draws into a file; the ending says how: .svg, .png or .pdf. Nothing is left behind where drawing fails.
/// @throws RequestError for another ending; CalculationError where gnuplot is missing or fails.
void draw(const Figure& figure, const std::filesystem::path& path);

/// The picture itself; `ending` is ".svg", ".png" or ".pdf". @throws as `draw`
std::string drawn(const Figure& figure, const std::string& ending);

/// The SVGs of the figures of one page, each as `drawn` gives it, in less time. @throws as `draw`
std::vector<std::string> drawn_together(const std::vector<const Figure*>& figures);

/// The gnuplot script behind `draw`, which writes to its standard output; the ending of `output` says what.
std::string gnuplot_script(const Figure& figure, const std::filesystem::path& output);

}  // namespace jampot
