#include "jampot/draw/figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "gnuplot.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/layout.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
Figure::Figure() = default;
Figure::Figure(const Figure&) = default;
Figure::Figure(Figure&&) noexcept = default;
Figure& Figure::operator=(const Figure&) = default;
Figure& Figure::operator=(Figure&&) noexcept = default;
Figure::~Figure() = default;

// Here once, and not in every file that uses one: they are long.
Panel::Panel() = default;
Panel::Panel(const Panel&) = default;
Panel::Panel(Panel&&) noexcept = default;
Panel& Panel::operator=(const Panel&) = default;
Panel& Panel::operator=(Panel&&) noexcept = default;
Panel::~Panel() = default;
namespace {

// A footer wider than the figure takes two lines; what these do not hold ends in dots.
std::vector<std::string> footer_lines(const Figure& figure) {
  constexpr double letter = 0.55;  // of the height of the font, on average
  const auto most = static_cast<std::size_t>((figure.width - 24) / (letter * small_font_px));
  if (figure.footer.size() <= most) return {figure.footer};
  const std::size_t space = figure.footer.rfind(' ', most);
  if (space == std::string::npos || space < most / 2) return {shortened(figure.footer, most - 3)};
  return {figure.footer.substr(0, space), shortened(figure.footer.substr(space + 1), most - 3)};
}

namespace fs = std::filesystem;

std::string terminal(const Figure& figure, const fs::path& path) {
  const std::string ending = lower_case(path.extension().string());
  if (ending == ".svg") {
    return fmt::format("set terminal svg size {},{} font 'DejaVu Sans,{}' background '#ffffff' noenhanced\n",
                       figure.width, figure.height, tick_font_px);
  }
  // Cairo takes points at 96 pixels to the inch for PNG, inches for PDF.
  if (ending == ".png") {
    return fmt::format("set terminal pngcairo size {},{} font 'DejaVu Sans,{}' noenhanced\n", figure.width,
                       figure.height, 0.75 * tick_font_px);
  }
  if (ending == ".pdf") {
    return fmt::format("set terminal pdfcairo size {}in,{}in font 'DejaVu Sans,{}' noenhanced\n",
                       figure.width / 96.0, figure.height / 96.0, 0.75 * tick_font_px);
  }
  throw RequestError(
      fmt::format("'{}': the file name of a figure must end in .svg, .png or .pdf", path.string()));
}

// Font sizes in gnuplot are in the unit of its terminal.
std::string font(const fs::path& path, double px) {
  const bool svg = lower_case(path.extension().string()) == ".svg";
  return fmt::format("'DejaVu Sans,{}'", svg ? px : 0.75 * px);
}

int dash(Stroke stroke) {
  switch (stroke) {
    case Stroke::dashed:
      return 2;
    case Stroke::dotted:
      return 3;
    default:
      return 1;
  }
}

int point_type(Mark mark) {  // gnuplot's open symbols
  switch (mark) {
    case Mark::square:
      return 4;
    case Mark::triangle:
      return 8;
    case Mark::diamond:
      return 12;
    case Mark::cross:
      return 2;
    default:
      return 6;
  }
}

// Symbols are drawn half as large again by the SVG terminal.
double symbol_size(const fs::path& path, double size) {
  return lower_case(path.extension().string()) == ".svg" ? size / 1.6 : size;
}

std::string style(Series series, const fs::path& path) {
  // A line of one point would not be seen.
  if (series.spots.size() == 1 && series.mark == Mark::none) series.mark = Mark::circle;
  std::string text;
  const double size = symbol_size(path, 1.3);
  if (series.stroke == Stroke::none) {
    text = fmt::format("with points pt {} ps {:.2f} lw 1.6 lc rgb '{}'", point_type(series.mark), size,
                       palette(series.colour));
  } else if (series.mark == Mark::none) {
    text = fmt::format("with lines lw {} dt {} lc rgb '{}'", series.width, dash(series.stroke),
                       palette(series.colour));
  } else {
    text = fmt::format("with linespoints pt {} ps {:.2f} lw {} dt {} lc rgb '{}'", point_type(series.mark),
                       size, series.width, dash(series.stroke), palette(series.colour));
  }
  return text;
}

// Numbers at a logarithmic axis: powers of ten, of a short one also what lies between.
std::string numbers(char name, const Axis& axis) {
  if (!axis.logarithmic) return fmt::format("set {}tics nomirror autofreq\n", name);
  const double decades = std::log10(axis.high / axis.low);
  const std::vector<int> parts = decades > 2.4   ? std::vector<int>{1}
                                 : decades > 0.6 ? std::vector<int>{1, 2, 5}
                                                 : std::vector<int>{1, 2, 3, 4, 5, 6, 7, 8, 9};
  const double every = decades > 12 ? 2 : 1;
  std::vector<std::string> list;
  for (double power = std::floor(std::log10(axis.low)); power <= std::log10(axis.high); power += every) {
    for (const int part : parts) {
      const double value = part * std::pow(10.0, power);
      if (value > 0.999 * axis.low && value < 1.001 * axis.high)
        list.push_back(fmt::format("{:.10g}", value));
    }
  }
  if (list.size() < 2)
    return fmt::format("set {}tics nomirror autofreq\n", name);  // a narrow part of the figure
  return fmt::format("set {}tics nomirror ({})\n", name, joined(list, ", "));
}

std::string panel_script(const Figure& figure, const Panel& panel, const PanelLayout& layout,
                         std::size_t number, const fs::path& path) {
  const Box& frame = layout.frame;
  std::string script = "unset label\nunset arrow\nunset object\n";
  script += panel.bare ? "unset border\nunset tics\nunset grid\n"
                       : "set border 3 lw 1.2 lc rgb '#444444'\nset tics nomirror out scale 0.6\n"
                         "set grid lt 1 lc rgb '#d2d2d2' lw 1 dt 1\n";
  script += fmt::format(
      "set lmargin at screen {}\nset rmargin at screen {}\nset tmargin at screen {}\n"
      "set bmargin at screen {}\n",
      frame.left / figure.width, frame.right / figure.width, 1 - frame.top / figure.height,
      1 - frame.bottom / figure.height);
  script += fmt::format("set xrange [{}:{}]\nset yrange [{}:{}]\n", panel.x.low, panel.x.high, panel.y.low,
                        panel.y.high);
  script += fmt::format("{}set logscale x\n{}set logscale y\n", panel.x.logarithmic ? "" : "un",
                        panel.y.logarithmic ? "" : "un");
  if (!panel.bare) script += numbers('x', panel.x) + numbers('y', panel.y);
  const auto screen_x = [&](double px) { return px / figure.width; };
  const auto screen_y = [&](double px) { return 1 - px / figure.height; };
  script += fmt::format("set xlabel {} font {}\n", gnuplot_text(panel.x.label), font(path, label_font_px));
  if (!panel.y.label.empty()) {
    // At a place of its own: beside wide numbers gnuplot's own label of the axis leaves the page and is
    // dropped.
    constexpr double beside_px = 86;
    script += fmt::format("set label {} at screen {},{} center rotate by 90 font {}\n",
                          gnuplot_text(panel.y.label), screen_x(frame.left - beside_px),
                          screen_y((frame.top + frame.bottom) / 2), font(path, label_font_px));
  }
  script += fmt::format("set key {} {} Left reverse samplen 2 spacing 1.15\n",
                        layout.key_at_top ? "top" : "bottom", layout.key_at_right ? "right" : "left");
  for (const PlacedLabel& label : layout.labels) {
    const double x = (label.box.left + label.box.right) / 2, y = (label.box.top + label.box.bottom) / 2;
    script += fmt::format("set label {} at screen {},{} center font {} tc rgb '{}' front\n",
                          gnuplot_text(label.text), screen_x(x), screen_y(y), font(path, label_font_px),
                          label.colour < 0 ? "#222222" : palette(label.colour));
    if (label.leader) {
      const double end_x = std::clamp(label.anchor_x, label.box.left, label.box.right);
      const double end_y = std::clamp(label.anchor_y, label.box.top, label.box.bottom);
      script +=
          fmt::format("set arrow from screen {},{} to screen {},{} nohead lw 0.8 lc rgb '#777777' front\n",
                      screen_x(end_x), screen_y(end_y), screen_x(label.anchor_x), screen_y(label.anchor_y));
    }
  }
  for (const FixedText& text : panel.texts) {
    const char* const align = text.align == FixedText::Align::left    ? "left"
                              : text.align == FixedText::Align::right ? "right"
                                                                      : "center";
    script +=
        fmt::format("set label {} at {:.8g},{:.8g} {} font {} tc rgb '{}' front\n", gnuplot_text(text.text),
                    text.spot.x, text.spot.y, align, font(path, text.small ? tick_font_px : label_font_px),
                    text.small ? "#555555" : "#222222");
  }
  for (const Arrow& arrow : panel.arrows) {
    Spot from = arrow.from;
    if (arrow.head_only) {  // a head without a shaft: gnuplot needs some length to know the direction
      const double dx = arrow.to.x - from.x, dy = arrow.to.y - from.y, length = std::hypot(dx, dy);
      if (!(length > 0)) continue;
      const double share = 1e-3 * (panel.x.high - panel.x.low) / length;
      from = {arrow.to.x - share * dx, arrow.to.y - share * dy};
    }
    script += fmt::format(
        "set arrow from {:.8g},{:.8g} to {:.8g},{:.8g} head filled size screen 0.009,18 fixed lw 1.4 lc rgb "
        "'{}' "
        "front\n",
        from.x, from.y, arrow.to.x, arrow.to.y, palette(arrow.colour));
  }
  if (number == 0) {
    script += fmt::format("set label {} at screen 0.5,{} center font {} front\n", gnuplot_text(figure.title),
                          screen_y(28), font(path, title_font_px));
    const std::vector<std::string> lines = footer_lines(figure);
    for (std::size_t line = 0; line < lines.size(); ++line) {
      const double up = lines.size() == 1 ? 14 : line == 0 ? 24 : 9;
      script += fmt::format("set label {} at screen {},{} left font {} tc rgb '#666666' front\n",
                            gnuplot_text(lines[line]), screen_x(12), screen_y(figure.height - up),
                            font(path, small_font_px));
    }
    if (!figure.notices.empty()) {
      script +=
          fmt::format("set label {} at screen {},{} right font {} tc rgb '{}' front\n",
                      gnuplot_text("notice: " + joined(figure.notices, ", ")), screen_x(figure.width - 12.0),
                      screen_y(52), font(path, small_font_px), palette(1));
    }
  }

  std::vector<std::string> plots;
  std::string data;
  for (std::size_t k = 0; k < panel.areas.size(); ++k) {
    const std::string name = fmt::format("$area_{}_{}", number, k);
    data += name + " << EOD\n";
    for (const Spot& spot : panel.areas[k].outline) data += fmt::format("{:.8g} {:.8g}\n", spot.x, spot.y);
    data += "EOD\n";
    plots.push_back(
        fmt::format("{} using 1:2 with filledcurves closed fs solid 0.13 noborder fc rgb '{}' notitle", name,
                    palette(panel.areas[k].colour)));
  }
  for (std::size_t k = 0; k < panel.guides.size(); ++k) {
    const std::string name = fmt::format("$guide_{}_{}", number, k);
    data += name + " << EOD\n";
    for (const Spot& spot : panel.guides[k].spots) data += fmt::format("{:.8g} {:.8g}\n", spot.x, spot.y);
    data += "EOD\n";
    plots.push_back(fmt::format("{} using 1:2 {} notitle", name, style(panel.guides[k], path)));
  }
  for (std::size_t k = 0; k < panel.series.size(); ++k) {
    const Series& series = panel.series[k];
    const std::string name = fmt::format("$data_{}_{}", number, k);
    data += name + " << EOD\n";
    for (const Spot& spot : series.spots) data += fmt::format("{:.8g} {:.8g}\n", spot.x, spot.y);
    data += "EOD\n";
    const bool placed = std::any_of(layout.labels.begin(), layout.labels.end(),
                                    [&](const PlacedLabel& label) { return label.text == series.label; });
    const bool in_key = !series.label.empty() && (series.in_key || (!placed && !series.label_may_fail));
    plots.push_back(fmt::format("{} using 1:2 {} {}", name, style(series, path),
                                in_key ? "title " + gnuplot_text(series.label) : "notitle"));
  }
  for (std::size_t k = 0; k < panel.callouts.size(); ++k) {
    const Callout& callout = panel.callouts[k];
    if (callout.mark == Mark::none) continue;
    const std::string name = fmt::format("$mark_{}_{}", number, k);
    data += fmt::format("{} << EOD\n{:.8g} {:.8g}\nEOD\n", name, callout.spot.x, callout.spot.y);
    plots.push_back(fmt::format("{} using 1:2 with points pt {} ps {:.2f} lw 2.2 lc rgb '#222222' notitle",
                                name, point_type(callout.mark), symbol_size(path, 1.8)));
  }
  return script + data + "plot " + joined(plots, ", \\\n     ") + "\n";
}

// A PDF says when it was made (in the zone of `run_gnuplot`); without that the same figure is the same file.
std::string dateless(std::string picture) {
  constexpr std::string_view key = "/CreationDate (D:", fixed = "20000101000000";
  const std::size_t at = picture.find(key);
  if (at != std::string::npos && at + key.size() + fixed.size() < picture.size())
    picture.replace(at + key.size(), fixed.size(), fixed);
  return picture;
}

}  // namespace

std::string palette(int colour) {
  // Chosen dark to light in turns, so that neighbours differ in lightness as well as in hue.
  static const std::vector<std::string> colours{"#1b6e53", "#b4540a", "#5b4a9e", "#8a7a00", "#0f6c8c",
                                                "#a23b72", "#4d5a66", "#6b8f1a", "#d2d2d2", "#444444"};
  return colours[static_cast<std::size_t>(colour) % colours.size()];
}

std::string printed_unit(const std::string& unit) {
  if (unit == "degC") return "°C";
  if (unit == "degF") return "°F";
  return unit;
}

Axis rounded_axis(std::string label, double low, double high) {
  if (!(high > low)) {
    const double room = std::max(1e-6, 0.01 * std::abs(low));
    low -= room;
    high += room;
  }
  const double room = 0.05 * (high - low);
  double step = std::pow(10.0, std::floor(std::log10(high - low)));
  for (const double part : {0.1, 0.2, 0.5}) {
    if ((high - low) / (part * step) < 16) {
      step *= part;
      break;
    }
  }
  const double floor = std::floor((low - room) / step) * step;
  // Quantities that cannot be negative do not get a negative stretch of axis.
  return {std::move(label), low >= 0 && floor < 0 ? 0 : floor, std::ceil((high + room) / step) * step};
}

Axis logarithmic_axis(std::string label, double low, double high) {
  constexpr double room = 1.03;
  const auto steps = [](double value) {  // one, two or five times a power of ten, the last one below it
    const double power = std::pow(10.0, std::floor(std::log10(value)));
    return value >= 5 * power ? 5 * power : value >= 2 * power ? 2 * power : power;
  };
  Axis axis{std::move(label), steps(low / room), 1, true};
  // The first of them above: the one below the reciprocal, turned over.
  axis.high = 1 / steps(1 / (high * room));
  return axis;
}

std::string gnuplot_script(const Figure& figure, const fs::path& output) {
  std::string script = terminal(figure, output);
  script += "set encoding utf8\n";
  if (figure.panels.size() > 1) script += "set multiplot\n";
  const std::vector<PanelLayout> layouts = lay_out(figure);
  for (std::size_t k = 0; k < figure.panels.size(); ++k) {
    script += panel_script(figure, figure.panels[k], layouts[k], k, output);
  }
  if (figure.panels.size() > 1) script += "unset multiplot\n";
  return script;
}

std::string drawn(const Figure& figure, const std::string& ending) {
  std::string picture = run_gnuplot(gnuplot_script(figure, "figure" + ending), lower_case(ending));
  return lower_case(ending) == ".pdf" ? dateless(std::move(picture)) : picture;
}

std::vector<std::string> drawn_together(const std::vector<const Figure*>& figures) {
  std::vector<std::string> scripts;
  for (const Figure* figure : figures) scripts.push_back(gnuplot_script(*figure, "figure.svg"));
  return run_gnuplot(scripts);
}

void draw(const Figure& figure, const fs::path& path) {
  write_file(path, drawn(figure, path.extension().string()));
}

}  // namespace jampot
