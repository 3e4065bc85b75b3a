#include "jampot/draw/layout.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace jampot {
namespace {

struct Pixel {
  double x, y;
};
using Path = std::vector<Pixel>;

struct Obstacles {
  Box frame;
  std::vector<Path> curves;
  std::vector<Box> bounds;                       ///< of the curves
  std::vector<Box> boxes;                        ///< marked points and labels already placed
  std::vector<std::pair<Pixel, Pixel>> leaders;  ///< of labels already placed

  void add_curve(Path path) {
    Box box{HUGE_VAL, HUGE_VAL, -HUGE_VAL, -HUGE_VAL};
    for (const Pixel& pixel : path) {
      box = {std::min(box.left, pixel.x), std::min(box.top, pixel.y), std::max(box.right, pixel.x),
             std::max(box.bottom, pixel.y)};
    }
    bounds.push_back(box);
    curves.push_back(std::move(path));
  }
};

// DejaVu Sans is about 0.55 of its height wide on average; a little more keeps neighbours apart.
double text_width(const std::string& text, double font_px) {
  const auto letters = std::count_if(text.begin(), text.end(),
                                     [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; });
  return 0.57 * font_px * static_cast<double>(letters);
}

Box box_at(double centre_x, double centre_y, const std::string& text) {
  const double half_width = text_width(text, label_font_px) / 2, half_height = 0.65 * label_font_px;
  return {centre_x - half_width, centre_y - half_height, centre_x + half_width, centre_y + half_height};
}

Box grown(const Box& box, double by) {
  return {box.left - by, box.top - by, box.right + by, box.bottom + by};
}

// How much is wrong with a place: 0 where nothing is. Where it is as much as `most`, the rest is not counted.
double trouble(const Box& box, const Obstacles& obstacles, double most) {
  double sum = 0;
  if (!obstacles.frame.contains(grown(box, 4))) sum += 1000;
  const Box near = grown(box, 3);
  for (const Box& other : obstacles.boxes) sum += near.overlaps(other) ? 100 : 0;
  for (std::size_t c = 0; c < obstacles.curves.size(); ++c) {
    const Box& bounds = obstacles.bounds[c];
    if (near.right < bounds.left || near.left > bounds.right || near.bottom < bounds.top ||
        near.top > bounds.bottom)
      continue;
    const Path& path = obstacles.curves[c];
    for (std::size_t k = 1; k < path.size() && sum < most; ++k) {
      if (crosses(near, path[k - 1].x, path[k - 1].y, path[k].x, path[k].y)) sum += 10;
    }
  }
  return sum;
}

// From a point to the nearest place of its label.
std::pair<Pixel, Pixel> leader_of(const PlacedLabel& label) {
  return {{label.anchor_x, label.anchor_y},
          {std::clamp(label.anchor_x, label.box.left, label.box.right),
           std::clamp(label.anchor_y, label.box.top, label.box.bottom)}};
}

// Whether two lines meet between their ends.
bool meet(const std::pair<Pixel, Pixel>& one, const std::pair<Pixel, Pixel>& other) {
  const auto side = [](const std::pair<Pixel, Pixel>& line, const Pixel& point) {
    return (line.second.x - line.first.x) * (point.y - line.first.y) -
           (line.second.y - line.first.y) * (point.x - line.first.x);
  };
  return side(one, other.first) * side(one, other.second) < 0 &&
         side(other, one.first) * side(other, one.second) < 0;
}

bool crosses_leader(const PlacedLabel& label, const Obstacles& obstacles) {
  return std::any_of(obstacles.leaders.begin(), obstacles.leaders.end(),
                     [&](const auto& other) { return meet(leader_of(label), other); });
}

bool leader_is_free(const PlacedLabel& label, const Obstacles& obstacles) {
  const auto [from, to] = leader_of(label);
  const double x = to.x, y = to.y;
  return std::none_of(obstacles.boxes.begin(), obstacles.boxes.end(), [&](const Box& box) {
    const bool own = label.anchor_x > box.left && label.anchor_x < box.right && label.anchor_y > box.top &&
                     label.anchor_y < box.bottom;
    return !own && crosses(box, label.anchor_x, label.anchor_y, x, y);
  });
}

// Rings of places around the anchor, nearest first.
PlacedLabel place_callout(const Callout& callout, Pixel anchor, const Obstacles& obstacles) {
  PlacedLabel best{callout.text, box_at(anchor.x, anchor.y - 30, callout.text), -1, false, anchor.x,
                   anchor.y};
  double least = HUGE_VAL;
  const Box own = box_at(0, 0, callout.text);
  for (double ring = 10; ring <= 320; ring += 15) {
    for (int direction = 0; direction < 32; ++direction) {
      const double angle = 2 * 3.14159265358979 * direction / 32;
      // The box stands with its near edge on the ring.
      const double x = anchor.x + std::cos(angle) * (ring + own.right);
      const double y = anchor.y + std::sin(angle) * (ring + own.bottom);
      PlacedLabel candidate{callout.text, box_at(x, y, callout.text), -1, ring > 30, anchor.x, anchor.y};
      double cost = trouble(candidate.box, obstacles, least) + ring / 100;
      if (cost >= least) continue;
      if (candidate.leader && !leader_is_free(candidate, obstacles)) cost += 50;
      if (candidate.leader && crosses_leader(candidate, obstacles)) cost += 80;
      if (cost < least) {
        least = cost;
        best = candidate;
      }
    }
  }
  return best;
}

// Along the curve, above or below it, preferring a third and two thirds of its length.
bool place_curve_label(const Series& series, const Path& path, const Obstacles& obstacles,
                       PlacedLabel& placed) {
  double least = HUGE_VAL;
  constexpr int steps = 60;
  for (int step = 1; step < steps; ++step) {
    const double at = static_cast<double>(step) / steps;
    const auto k = static_cast<std::size_t>(at * static_cast<double>(path.size() - 1));
    const Box own = box_at(0, 0, series.label);
    for (const double distance : {8.0, 14.0, 22.0}) {
      for (const auto& [sx, sy] : {std::pair(0, -1), std::pair(0, 1), std::pair(1, -1), std::pair(-1, -1),
                                   std::pair(1, 1), std::pair(-1, 1), std::pair(1, 0), std::pair(-1, 0)}) {
        const double x = path[k].x + sx * (own.right + distance),
                     y = path[k].y + sy * (own.bottom + distance);
        const Box box = box_at(x, y, series.label);
        const double off_centre = std::min(std::abs(at - 0.35), std::abs(at - 0.65));
        const double cost = trouble(box, obstacles, least) + 0.2 * distance / 10 + 2 * off_centre;
        if (cost < least) {
          least = cost;
          placed = {series.label, box, series.colour, false, path[k].x, path[k].y};
        }
      }
    }
  }
  return least < 10;
}

Path to_pixels(const Panel& panel, const Box& frame, const std::vector<Spot>& spots) {
  Path path;
  for (const Spot& spot : spots)
    path.push_back({pixel_x(panel, frame, spot.x), pixel_y(panel, frame, spot.y)});
  return path;
}

// The corner in which the key covers least.
void place_key(const Panel& panel, const Obstacles& obstacles, PanelLayout& layout) {
  double letters = 0, rows = 0;
  for (const Series& series : panel.series) {
    if (!series.in_key) continue;
    ++rows;
    letters = std::max(letters, text_width(series.label, tick_font_px));
  }
  if (rows == 0) return;
  const Box& frame = layout.frame;
  const double width = letters + 62, height = 12 + 24 * rows;
  double least = HUGE_VAL;
  for (const bool top : {true, false}) {
    for (const bool right : {true, false}) {
      const double x = right ? frame.right - width : frame.left, y = top ? frame.top : frame.bottom - height;
      const Box box{x, y, x + width, y + height};
      const double cost = trouble({x + 5, y + 5, x + width - 5, y + height - 5}, obstacles, least);
      if (cost < least) {
        least = cost;
        layout.key = box;
        layout.key_at_top = top;
        layout.key_at_right = right;
      }
    }
  }
}

PanelLayout lay_out_panel(const Panel& panel, const Box& frame) {
  PanelLayout layout;
  layout.frame = frame;
  Obstacles obstacles{frame, {}, {}, {}, {}};
  std::vector<Path> paths;
  for (const Series& series : panel.series) {
    paths.push_back(to_pixels(panel, frame, series.spots));
    if (series.stroke != Stroke::none) obstacles.add_curve(paths.back());
    if (series.mark != Mark::none) {
      for (const Pixel& pixel : paths.back()) {
        obstacles.boxes.push_back({pixel.x - 7, pixel.y - 7, pixel.x + 7, pixel.y + 7});
      }
    }
  }
  constexpr double frame_width = 1.5;  // of the guides only the frame of a triangle is in the way of labels
  for (const Series& guide : panel.guides) {
    if (guide.width >= frame_width) obstacles.add_curve(to_pixels(panel, frame, guide.spots));
  }
  for (const Callout& callout : panel.callouts) {
    const Pixel anchor{pixel_x(panel, frame, callout.spot.x), pixel_y(panel, frame, callout.spot.y)};
    if (callout.mark != Mark::none) {
      obstacles.boxes.push_back({anchor.x - 9, anchor.y - 9, anchor.x + 9, anchor.y + 9});
    }
  }
  for (const Arrow& arrow : panel.arrows) {
    obstacles.add_curve(to_pixels(panel, frame, {arrow.from, arrow.to}));
  }
  for (const FixedText& text : panel.texts) {
    const double px = pixel_x(panel, frame, text.spot.x), py = pixel_y(panel, frame, text.spot.y);
    const double width = text_width(text.text, text.small ? tick_font_px : label_font_px);
    const double left = text.align == FixedText::Align::left    ? px
                        : text.align == FixedText::Align::right ? px - width
                                                                : px - width / 2;
    obstacles.boxes.push_back({left, py - 0.6 * label_font_px, left + width, py + 0.6 * label_font_px});
  }
  place_key(panel, obstacles, layout);
  if (layout.key.right > layout.key.left) obstacles.boxes.push_back(layout.key);
  for (const Callout& callout : panel.callouts) {
    const Pixel anchor{pixel_x(panel, frame, callout.spot.x), pixel_y(panel, frame, callout.spot.y)};
    layout.labels.push_back(place_callout(callout, anchor, obstacles));
    const PlacedLabel& placed = layout.labels.back();
    obstacles.boxes.push_back(placed.box);
    if (placed.leader) {
      const auto [from, to] = leader_of(placed);
      obstacles.add_curve({from, to});
      obstacles.leaders.emplace_back(from, to);
    }
  }
  for (std::size_t k = 0; k < panel.series.size(); ++k) {
    const Series& series = panel.series[k];
    if (series.in_key || series.label.empty() || paths[k].size() < 2) continue;
    PlacedLabel label;
    if (!place_curve_label(series, paths[k], obstacles, label)) continue;
    obstacles.boxes.push_back(label.box);
    layout.labels.push_back(std::move(label));
  }
  return layout;
}

}  // namespace

namespace {

// Where a value stands along its axis, from 0 to 1.
double share(const Axis& axis, double value) {
  if (axis.logarithmic) return std::log(value / axis.low) / std::log(axis.high / axis.low);
  return (value - axis.low) / (axis.high - axis.low);
}

}  // namespace

double pixel_x(const Panel& panel, const Box& frame, double x) {
  return frame.left + share(panel.x, x) * (frame.right - frame.left);
}

double pixel_y(const Panel& panel, const Box& frame, double y) {
  return frame.bottom - share(panel.y, y) * (frame.bottom - frame.top);
}

bool crosses(const Box& box, double x1, double y1, double x2, double y2) {
  if (std::max(x1, x2) < box.left || std::min(x1, x2) > box.right || std::max(y1, y2) < box.top ||
      std::min(y1, y2) > box.bottom)
    return false;
  // Liang-Barsky: the part of the segment inside each slab.
  double from = 0, to = 1;
  const double dx = x2 - x1, dy = y2 - y1;
  for (const auto& [p, q] : {std::pair(-dx, x1 - box.left), std::pair(dx, box.right - x1),
                             std::pair(-dy, y1 - box.top), std::pair(dy, box.bottom - y1)}) {
    if (p == 0) {
      if (q < 0) return false;
      continue;
    }
    const double t = q / p;
    if (p < 0) {
      from = std::max(from, t);
    } else {
      to = std::min(to, t);
    }
  }
  return from <= to;
}

std::vector<Box> frames_of(const Figure& figure) {
  constexpr double left = 105, right = 35, top = 62, bottom_of_panel = 74, footer = 34;
  const auto columns = static_cast<std::size_t>(std::max(1, figure.columns));
  const std::size_t rows = (figure.panels.size() + columns - 1) / columns;
  const double height = (figure.height - top - footer) / static_cast<double>(rows);
  const double width = static_cast<double>(figure.width) / static_cast<double>(columns);
  std::vector<Box> frames;
  for (std::size_t k = 0; k < figure.panels.size(); ++k) {
    const std::size_t row = k / columns, column = k % columns;
    const double y = top + static_cast<double>(row) * height, x = static_cast<double>(column) * width;
    const double gap = row > 0 ? 12 : 0;
    Box frame{x + left, y + gap, x + width - right, y + height - bottom_of_panel};
    if (figure.panels[k].bare) {  // one scale for both directions
      const Panel& panel = figure.panels[k];
      frame = {x + 20, y + gap, x + width - 20, y + height - 8};
      const double scale = std::min((frame.right - frame.left) / (panel.x.high - panel.x.low),
                                    (frame.bottom - frame.top) / (panel.y.high - panel.y.low));
      const double middle_x = (frame.left + frame.right) / 2, middle_y = (frame.top + frame.bottom) / 2;
      const double half_x = scale * (panel.x.high - panel.x.low) / 2,
                   half_y = scale * (panel.y.high - panel.y.low) / 2;
      frame = {middle_x - half_x, middle_y - half_y, middle_x + half_x, middle_y + half_y};
    }
    if (figure.panels[k].square) {
      const double side = std::min(frame.right - frame.left, frame.bottom - frame.top);
      const double middle = (frame.left + frame.right) / 2;
      frame.left = middle - side / 2;
      frame.right = middle + side / 2;
    }
    frames.push_back(frame);
  }
  return frames;
}

std::vector<PanelLayout> lay_out(const Figure& figure) {
  const std::vector<Box> frames = frames_of(figure);
  std::vector<PanelLayout> layouts;
  for (std::size_t k = 0; k < frames.size(); ++k)
    layouts.push_back(lay_out_panel(figure.panels[k], frames[k]));
  return layouts;
}

}  // namespace jampot
