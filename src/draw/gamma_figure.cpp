#include "jampot/draw/gamma_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jampot {
namespace {

// Gives the panel a y axis for activity coefficients.
void set_gamma_axis(Panel& panel) {
  double low = 1, high = 1;
  for (const Series& series : panel.series) {
    for (const Spot& spot : series.spots) {
      low = std::min(low, spot.y);
      high = std::max(high, spot.y);
    }
  }
  const std::string label = "activity coefficient";
  constexpr double decade = 10;
  if (high / low > decade) {
    panel.y = logarithmic_axis(label, low, high);
  } else {
    panel.y = rounded_axis(label, low, high);
  }
}

// A temperature axis over all that is drawn.
void set_temperature_axis(Panel& panel, const std::string& label) {
  double cold = HUGE_VAL, hot = -HUGE_VAL;
  for (const Series& series : panel.series) {
    for (const Spot& spot : series.spots) {
      cold = std::min(cold, spot.x);
      hot = std::max(hot, spot.x);
    }
  }
  panel.x = rounded_axis(label, cold, hot);
}

}  // namespace

void add_measured(Panel& panel, const std::map<std::string, std::vector<Spot>>& measured) {
  constexpr std::array marks{Mark::circle, Mark::square, Mark::triangle, Mark::diamond};
  constexpr int measured_colour = 6;  // of none of the first curves: marks tell the substances apart
  std::size_t k = 0;
  for (const auto& [label, spots] : measured) {
    Series series{spots, label, Stroke::none, marks[k % marks.size()], measured_colour, 2};
    series.in_key = true;
    panel.series.push_back(std::move(series));
    ++k;
  }
  const std::string label = panel.y.label;
  set_gamma_axis(panel);
  panel.y.label = label;
  if (panel.x.label.starts_with("temperature")) set_temperature_axis(panel, panel.x.label);
}

Panel gamma_panel(const std::vector<GammaCurve>& curves, const std::vector<Substance>& substances) {
  Panel panel;
  panel.x = {fmt::format("mole fraction of {} (liquid)", substances[0].name), 0, 1};
  for (std::size_t k = 0; k < curves.size(); ++k) {
    for (std::size_t i = 0; i < 2; ++i) {
      Series series{{},
                    substances[i].short_name() + (curves[k].label.empty() ? "" : ", " + curves[k].label),
                    i == 0 ? Stroke::solid : Stroke::dashed,
                    Mark::none,
                    curves.size() == 1 ? static_cast<int>(i) : static_cast<int>(k)};
      for (const GammaPoint& point : curves[k].points) {
        series.spots.push_back({point.x[0], std::exp(point.ln_gamma[i])});
      }
      panel.series.push_back(std::move(series));
    }
  }
  set_gamma_axis(panel);
  return panel;
}

Panel gamma_panel(const std::vector<BinaryCurve>& curves, const std::vector<std::string>& labels,
                  const std::vector<Substance>& substances) {
  std::vector<GammaCurve> lines;
  for (std::size_t k = 0; k < curves.size(); ++k) {
    GammaCurve line{curves.size() > 1 ? labels[k] : "", {}};
    for (const BinaryPoint& point : curves[k].points) {
      line.points.push_back(
          {point.T_K, {point.x[0], point.x[1]}, {std::log(point.gamma[0]), std::log(point.gamma[1])}});
    }
    lines.push_back(std::move(line));
  }
  return gamma_panel(lines, substances);
}

Panel limiting_panel(const std::vector<LimitingCurve>& curves, const DisplayUnits& units) {
  Panel panel;
  for (std::size_t k = 0; k < curves.size(); ++k) {
    Series series{
        {}, curves[k].label, k % 2 == 0 ? Stroke::solid : Stroke::dashed, Mark::none, static_cast<int>(k)};
    if (curves[k].points.size() == 1) series.mark = Mark::circle;
    for (const auto& [T_K, ln_gamma] : curves[k].points) {
      series.spots.push_back({from_si(T_K, units.temperature, Dimension::temperature), std::exp(ln_gamma)});
    }
    panel.series.push_back(std::move(series));
  }
  set_temperature_axis(panel, fmt::format("temperature / {}", printed_unit(units.temperature)));
  set_gamma_axis(panel);
  panel.y.label = "limiting activity coefficient";
  return panel;
}

}  // namespace jampot
