#include "jampot/draw/residue_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/draw/looks.hpp"
#include "triangle_drawer.hpp"

namespace jampot {
namespace {

constexpr int curve_colour = 6, boundary_colour = 1, through_colour = 5, isotherm_colour = 3,
              two_liquids_colour = 0, vapour_colour = 2;
// Neighbouring regions differ, and none looks like the two liquids.
constexpr std::array region_colours{4, 3, 5, 7, 2, 6, 1};

class ResidueDrawer : TriangleDrawer {
 public:
  ResidueDrawer(const ResidueMap& map, const std::vector<Substance>& substances,
                const ResidueFigureOptions& options)
      : TriangleDrawer(substances, options), map_(map), options_(options) {}
  using TriangleDrawer::footer;

  Panel panel() {
    begin(corner_names());
    if (shows("regions")) regions();
    if (shows("two-liquids")) {
      for (const BoilingRegion& region : map_.two_liquids.regions) two_liquids(region);
      for (const ThreeBoilingLiquids& three : map_.two_liquids.three_liquids) {
        std::vector<Spot> outline = spots({three.liquids.begin(), three.liquids.end()});
        panel_.areas.push_back({outline, boundary_colour});
        outline.push_back(outline.front());
        panel_.series.push_back({std::move(outline), "", Stroke::solid, Mark::none, two_liquids_colour, 2.0});
      }
    }
    if (shows("isotherms")) isotherms();
    if (shows("curves")) {
      for (const ResidueCurve& curve : map_.curves) add(curve, {"", Stroke::solid, 1.1, curve_colour});
    }
    if (shows("boundaries")) boundaries();
    if (shows("vapour-line")) {
      for (const BoilingRegion& region : map_.two_liquids.regions) vapour_line(region);
    }
    if (shows("through")) {
      for (const ResidueCurve& curve : map_.through) add(curve, {"", Stroke::solid, 2.2, through_colour});
    }
    for (std::size_t k = 0; k < options_.compared.size(); ++k) compared(k);
    if (shows("nodes")) nodes();
    if (shows("temperatures")) temperatures();
    if (shows("handbook")) handbook();
    if (shows("marks")) {
      for (const BoilingTieLine& line : options_.tie_lines) {
        panel_.series.push_back(
            {{spot(line.alpha), spot(line.beta)}, "", Stroke::solid, Mark::square, two_liquids_colour, 2.2});
      }
      add_marks();
    }
    return std::move(panel_);
  }

 private:
  // Another model's boundaries, two liquids and azeotropes in one colour of its own, dashed.
  void compared(std::size_t k) {
    constexpr std::array colours{5, 3, 7, 4};
    const std::string& label = options_.compared[k].label;
    const ResidueMap& map = options_.compared[k].map;
    const int colour = colours[k % colours.size()];
    bool named = false;
    const auto line = [&](std::vector<Spot> spots, double width) {
      Series series{std::move(spots), named ? "" : label, Stroke::dashed, Mark::none, colour, width};
      series.in_key = !named;
      named = true;
      panel_.series.push_back(std::move(series));
    };
    if (shows("boundaries")) {
      for (const Separatrix& separatrix : map.separatrices) {
        if (separatrix.boundary) line(spots(separatrix.x), 2.6);
      }
    }
    if (shows("two-liquids")) {
      for (const BoilingRegion& region : map.two_liquids.regions) {
        std::vector<Spot> alpha, beta;
        for (const BoilingTieLine& tie_line : region.tie_lines) {
          alpha.push_back(spot(tie_line.alpha));
          beta.push_back(spot(tie_line.beta));
        }
        line(std::move(alpha), 1.6);
        line(std::move(beta), 1.6);
      }
    }
    if (!shows("nodes")) return;
    Series azeotropes{{}, label + ", azeotropes", Stroke::none, Mark::diamond, colour, 2};
    azeotropes.in_key = true;
    for (const SingularPoint& point : map.singular.points) {
      if (point.members.size() < 2) continue;
      azeotropes.spots.push_back(spot(point.x));
      if (shows("temperatures"))
        panel_.callouts.push_back({spot(point.x), label + ": " + temperature(point.T_K)});
    }
    if (!azeotropes.spots.empty()) panel_.series.push_back(std::move(azeotropes));
  }

  struct Style {
    std::string label;
    Stroke stroke;
    double width;
    int colour;
  };

  std::string temperature(double T_K) const {
    return fmt::format("{:.1f} {}", from_si(T_K, options_.units.temperature, Dimension::temperature),
                       printed_unit(options_.units.temperature));
  }

  std::array<std::string, 3> corner_names() const {
    std::array<std::string, 3> names;
    for (std::size_t i = 0; i < 3; ++i) names[i] = substances_[i].short_name();
    if (!shows("temperatures")) return names;
    for (const SingularPoint& point : map_.singular.points) {
      if (point.members.size() == 1) names[point.members[0]] += ", " + temperature(point.T_K);
    }
    return names;
  }

  void regions() {
    if (map_.regions.size() < 2) return;
    for (std::size_t k = 0; k < map_.regions.size(); ++k) {
      for (const auto& outline : map_.regions[k].outlines)
        panel_.areas.push_back({spots(outline), region_colours[k % region_colours.size()]});
    }
  }

  // A head towards rising temperature, in the inner half of the curve where it is furthest from the sides.
  void arrow(const ResidueCurve& curve, const std::vector<Spot>& line, int colour) {
    std::vector<double> passed{0};
    for (std::size_t k = 1; k < line.size(); ++k)
      passed.push_back(passed.back() + std::hypot(line[k].x - line[k - 1].x, line[k].y - line[k - 1].y));
    std::size_t best = line.size() / 2;
    double freest = -1;
    for (std::size_t k = 1; k < line.size(); ++k) {
      const double share = passed[k] / passed.back();
      const double free = std::min({curve.x[k][0], curve.x[k][1], curve.x[k][2]});
      if (share < 0.25 || share > 0.75 || free <= freest) continue;
      freest = free;
      best = k;
    }
    panel_.arrows.push_back({line[best - 1], line[best], colour, true});
  }

  void add(const ResidueCurve& curve, const Style& style) {
    std::vector<Spot> line = spots(curve.x);
    if (shows("arrows") && line.size() > 2) arrow(curve, line, style.colour);
    Series series{std::move(line), style.label, style.stroke, Mark::none, style.colour, style.width};
    series.in_key = !style.label.empty();
    panel_.series.push_back(std::move(series));
  }

  void boundaries() {
    bool named = false;
    for (const Separatrix& line : map_.separatrices) {
      add(line, {line.boundary && !named ? "distillation boundary" : "", Stroke::solid,
                 line.boundary ? 3.0 : 1.1, line.boundary ? boundary_colour : curve_colour});
      named = named || line.boundary;
    }
  }

  void two_liquids(const BoilingRegion& region) {
    const auto& lines = region.tie_lines;
    std::vector<Spot> alpha, beta;
    for (const BoilingTieLine& line : lines) {
      alpha.push_back(spot(line.alpha));
      beta.push_back(spot(line.beta));
    }
    Area area{alpha, two_liquids_colour};
    area.outline.insert(area.outline.end(), beta.rbegin(), beta.rend());
    panel_.areas.push_back(std::move(area));
    Series first{std::move(alpha), "two boiling liquids", Stroke::solid, Mark::none, two_liquids_colour, 2.0};
    first.in_key = &region == &map_.two_liquids.regions.front();
    if (!first.in_key) first.label.clear();
    panel_.series.push_back(std::move(first));
    panel_.series.push_back({std::move(beta), "", Stroke::solid, Mark::none, two_liquids_colour, 2.0});
    if (shows("tie-lines")) {
      const int count = std::max(1, options_.shown_tie_lines);
      for (int k = 0; k < count; ++k) {
        const auto at =
            static_cast<std::size_t>(std::lround((k + 0.5) / count * static_cast<double>(lines.size() - 1)));
        panel_.series.push_back({{spot(lines[at].alpha), spot(lines[at].beta)},
                                 "",
                                 Stroke::solid,
                                 Mark::none,
                                 two_liquids_colour,
                                 0.8});
      }
    }
  }

  void vapour_line(const BoilingRegion& region) {
    std::vector<Spot> vapour;
    for (const BoilingTieLine& line : region.tie_lines) vapour.push_back(spot(line.y));
    Series line{std::move(vapour), "their vapour", Stroke::dashed, Mark::none, vapour_colour, 1.8};
    line.in_key = &region == &map_.two_liquids.regions.front();
    if (!line.in_key) line.label.clear();
    panel_.series.push_back(std::move(line));
  }

  void isotherms() {
    double labelled = 0;
    for (const Isotherm& isotherm : options_.isotherms) {
      Series series{spots(isotherm.x), "", Stroke::dotted, Mark::none, isotherm_colour, 1.6};
      if (isotherm.T_K != labelled) series.label = temperature(isotherm.T_K);
      series.label_may_fail = true;
      labelled = isotherm.T_K;
      panel_.series.push_back(std::move(series));
    }
  }

  void nodes() {
    for (const auto& [stability, text, mark] :
         {std::tuple(Stability::unstable_node, "unstable node: curves begin", Mark::circle),
          std::tuple(Stability::saddle, "saddle: curves pass", Mark::triangle),
          std::tuple(Stability::stable_node, "stable node: curves end", Mark::square)}) {
      Series series{{}, text, Stroke::none, mark, 9, 2};
      series.in_key = true;
      for (const SingularPoint& point : map_.singular.points) {
        if (point.stability == stability) series.spots.push_back(spot(point.x));
      }
      if (!series.spots.empty()) panel_.series.push_back(std::move(series));
    }
  }

  void handbook() {
    Series crosses = symbols(Mark::cross, colours::plain, "azeotrope of handbooks");
    crosses.in_key = true;
    for (const auto& x : options_.handbook) crosses.spots.push_back(spot(x));
    if (!crosses.spots.empty()) panel_.series.push_back(std::move(crosses));
  }

  void temperatures() {
    for (const SingularPoint& point : map_.singular.points) {
      if (point.members.size() > 1) panel_.callouts.push_back({spot(point.x), temperature(point.T_K)});
    }
  }

  const ResidueMap& map_;
  const ResidueFigureOptions& options_;
};

}  // namespace

const std::vector<std::string>& residue_layers() {
  static const std::vector<std::string> layers{
      "regions",     "curves",    "arrows", "boundaries",   "through",  "two-liquids", "tie-lines",
      "vapour-line", "isotherms", "nodes",  "temperatures", "handbook", "marks",       "numbers"};
  return layers;
}

Figure residue_figure(const ResidueMap& map, const std::vector<Substance>& substances,
                      const ResidueFigureOptions& options) {
  Figure figure;
  figure.title =
      fmt::format("Residue curves of {}, {} and {} at {:.6g} {}", substances[0].name, substances[1].name,
                  substances[2].name, from_si(map.P_Pa, options.units.pressure, Dimension::pressure),
                  printed_unit(options.units.pressure));
  ResidueDrawer drawer(map, substances, options);
  figure.panels.push_back(drawer.panel());
  figure.footer = drawer.footer();
  return figure;
}

}  // namespace jampot
