#include "jampot/draw/ternary_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/text.hpp"
#include "jampot/draw/looks.hpp"
#include "triangle_drawer.hpp"

namespace jampot {
namespace {

class TernaryDrawer : TriangleDrawer {
 public:
  TernaryDrawer(const std::vector<Substance>& substances, const TernaryFigureOptions& options)
      : TriangleDrawer(substances, options), options_(options) {}
  using TriangleDrawer::footer;

  Panel panel(const std::vector<LabelledTernary>& diagrams) {
    begin({substances_[0].short_name(), substances_[1].short_name(), substances_[2].short_name()});
    for (const auto& band : options_.bands) {
      Area area{spots(band), 2};
      panel_.guides.push_back({area.outline, "", Stroke::dotted, Mark::none, 2, 1.3});
      panel_.areas.push_back(std::move(area));
    }
    for (std::size_t k = 0; k < diagrams.size(); ++k) add(diagrams[k], static_cast<int>(k), k == 0);
    if (shows("measured")) measured();
    if (shows("marks")) {
      for (const TieLine& line : options_.through) {
        panel_.series.push_back(
            {{spot(line.alpha), spot(line.beta)}, "", Stroke::solid, Mark::square, 2, 2.2});
      }
      add_marks();
    }
    return std::move(panel_);
  }

 private:
  void add(const LabelledTernary& labelled, int colour, bool main) {
    const TernaryDiagram& diagram = labelled.diagram;
    bool named = false;
    for (const TwoLiquidRegion& region : diagram.regions) {
      std::vector<Spot> alpha, beta;
      for (const TieLine& line : region.tie_lines) {
        alpha.push_back(spot(line.alpha));
        beta.push_back(spot(line.beta));
      }
      // The outline of the region; at a plait point one line turns into the other.
      if (shows("area") && main) {
        Area area{alpha, colour};
        area.outline.insert(area.outline.end(), beta.rbegin(), beta.rend());
        panel_.areas.push_back(std::move(area));
      }
      if (!shows("binodal")) continue;
      std::vector<std::vector<Spot>> lines{alpha, beta};
      if (region.end.kind == RegionEnd::Kind::plait) {
        lines[0].insert(lines[0].end(), beta.rbegin(), beta.rend());
        lines.pop_back();
      } else if (region.begin.kind == RegionEnd::Kind::plait) {
        std::reverse(lines[0].begin(), lines[0].end());
        lines[0].insert(lines[0].end(), beta.begin(), beta.end());
        lines.pop_back();
      }
      for (auto& line : lines) {
        Series series{std::move(line), named ? "" : labelled.label, main ? Stroke::solid : Stroke::dashed,
                      Mark::none, colour};
        named = true;
        panel_.series.push_back(std::move(series));
      }
    }
    if (shows("tie-lines")) {
      for (const ShownTieLine& shown : diagram.tie_lines) {
        panel_.series.push_back({{spot(shown.line.alpha), spot(shown.line.beta)},
                                 "",
                                 main ? Stroke::solid : Stroke::dotted,
                                 Mark::none,
                                 colour,
                                 0.9});
      }
    }
    if (shows("three-liquids")) {
      for (const ThreeLiquids& three : diagram.three_liquids) {
        std::vector<Spot> outline;
        for (const auto& x : three) outline.push_back(spot(x));
        if (main) {
          panel_.areas.push_back({outline, 1});
          panel_.texts.push_back({{(outline[0].x + outline[1].x + outline[2].x) / 3,
                                   (outline[0].y + outline[1].y + outline[2].y) / 3},
                                  "three liquids",
                                  FixedText::Align::centre,
                                  false});
        }
        outline.push_back(outline.front());
        panel_.series.push_back(
            {outline, "", main ? Stroke::solid : Stroke::dashed, Mark::none, main ? 1 : colour, 1.6});
      }
    }
    if (shows("plait")) {
      for (const PlaitPoint& plait : diagram.plait_points) {
        std::string text = "plait point";
        if (!labelled.label.empty()) text += ", " + labelled.label;
        panel_.callouts.push_back({spot(plait.x), text, Mark::diamond});
      }
    }
  }

  void measured() {
    Series points = measured_symbols();
    points.in_key = true;
    for (const DataSet& data : options_.measured) {
      for (const DataPoint& point : data.points) {
        points.spots.push_back(spot(point.x));
        points.spots.push_back(spot(point.y));
        if (shows("tie-lines"))
          panel_.guides.push_back({{spot(point.x), spot(point.y)}, "", Stroke::dashed, Mark::none, 6, 1.0});
      }
    }
    if (!points.spots.empty()) panel_.series.push_back(std::move(points));
  }

  const TernaryFigureOptions& options_;
};

}  // namespace

const std::vector<std::string>& ternary_layers() {
  static const std::vector<std::string> layers{"area",          "binodal",  "tie-lines", "plait",
                                               "three-liquids", "measured", "marks",     "numbers"};
  return layers;
}

Figure ternary_figure(const std::vector<LabelledTernary>& diagrams, const std::vector<Substance>& substances,
                      const TernaryFigureOptions& options) {
  Figure figure;
  figure.title =
      fmt::format("Liquid-liquid equilibria of {}, {} and {} at {:.6g} {}", substances[0].name,
                  substances[1].name, substances[2].name,
                  from_si(diagrams.front().diagram.T_K, options.units.temperature, Dimension::temperature),
                  printed_unit(options.units.temperature));
  TernaryDrawer drawer(substances, options);
  figure.panels.push_back(drawer.panel(diagrams));
  figure.footer = drawer.footer();
  return figure;
}

Panel distribution_panel(const std::vector<Distribution>& distributions,
                         const std::vector<std::string>& labels, const std::vector<Substance>& substances,
                         Basis basis) {
  Panel panel;
  double low = HUGE_VAL, high = 0, widest = 0;
  const char* word = basis == Basis::mole ? "mole" : "mass";
  for (std::size_t k = 0; k < distributions.size(); ++k) {
    const Distribution& distribution = distributions[k];
    const std::string suffix = labels[k].empty() ? "" : ", " + labels[k];
    for (const bool selectivity : {false, true}) {
      Series series{{},
                    (selectivity ? "selectivity" : "distribution coefficient") + suffix,
                    selectivity ? Stroke::dashed : Stroke::solid,
                    Mark::none,
                    distributions.size() == 1 ? (selectivity ? 1 : 0) : static_cast<int>(k)};
      for (const DistributionPoint& point : distribution.points) {
        const double value = selectivity ? point.selectivity : point.coefficient;
        series.spots.push_back({point.in_carrier, value});
        low = std::min(low, value);
        high = std::max(high, value);
        widest = std::max(widest, point.in_carrier);
      }
      if (!series.spots.empty()) panel.series.push_back(std::move(series));
    }
  }
  if (high > 0) {
    const Extraction& roles = distributions.front().roles;
    panel.x = rounded_axis(
        fmt::format("{} fraction of {} in the liquid of {}", word, substances[roles.solute].short_name(),
                    substances[roles.carrier].short_name()),
        0, std::max(widest, 1e-3));
    panel.y = logarithmic_axis(
        fmt::format("{}: in {} over in {}", substances[roles.solute].short_name(),
                    substances[roles.solvent].short_name(), substances[roles.carrier].short_name()),
        low, high);
  }
  return panel;
}

}  // namespace jampot
