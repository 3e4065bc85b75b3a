#include "jampot/draw/vle_figures.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/text.hpp"
#include "jampot/draw/gamma_figure.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot {
namespace {

struct Bounds {
  double low = HUGE_VAL, high = -HUGE_VAL;
  void add(double value) {
    low = std::min(low, value);
    high = std::max(high, value);
  }
};

class Drawer {
 public:
  Drawer(const std::vector<BinaryCurve>& curves, const Mixture& mixture, const FigureOptions& options)
      : curves_(curves),
        mixture_(mixture),
        options_(options),
        isobaric_(curves.front().sought == Sought::temperature) {}

  Figure boiling() const {
    Figure figure = begin(isobaric_ ? "T-x-y" : "P-x-y");
    if (curves_.size() > 1) figure.footer = "solid: liquid, dashed: vapour; " + figure.footer;
    Panel panel;
    Bounds bounds;
    for (std::size_t k = 0; k < curves_.size(); ++k)
      add_boiling(curves_[k], static_cast<int>(k), panel, bounds);
    for (const DataSet& data : options_.measured) add_measured(data, panel, bounds);
    Series handbook = handbook_crosses();
    for (const Azeotrope& azeotrope : options_.handbook) {
      handbook.spots.push_back({shown(azeotrope.x1), ordinate(azeotrope.T_K, azeotrope.P_Pa)});
      bounds.add(handbook.spots.back().y);
    }
    if (!handbook.spots.empty()) panel.series.push_back(std::move(handbook));
    panel.x = {fraction_label("liquid, vapour"), 0, 1};
    panel.y =
        rounded_axis(isobaric_ ? fmt::format("temperature / {}", printed_unit(options_.units.temperature))
                               : fmt::format("pressure / {}", printed_unit(options_.units.pressure)),
                     bounds.low, bounds.high);
    figure.panels = {panel};
    return figure;
  }

  Figure xy() const {
    Figure figure = begin("x-y");
    Panel panel;
    panel.square = true;
    panel.x = {fraction_label("liquid"), 0, 1};
    panel.y = {fraction_label("vapour"), 0, 1};
    panel.series.push_back(straight(looks::reference, {0, 0}, {1, 1}));
    for (std::size_t k = 0; k < curves_.size(); ++k) {
      Series curve{{},
                   curves_.size() > 1 ? held_text(curves_[k]) : "",
                   Stroke::solid,
                   Mark::none,
                   static_cast<int>(k)};
      for (const BinaryPoint& point : curves_[k].points)
        curve.spots.push_back({shown(point.x[0]), shown(point.y[0])});
      panel.series.push_back(std::move(curve));
      for (const Azeotrope& azeotrope : curves_[k].azeotropes) {
        const double x = shown(azeotrope.x1);
        panel.callouts.push_back({{x, x}, azeotrope_text(curves_[k], azeotrope), Mark::diamond});
      }
    }
    Series measured = measured_symbols();
    measured.in_key = true;
    for (const DataSet& data : options_.measured) {
      for (const DataPoint& point : data.points) {
        if (!point.y.empty()) measured.spots.push_back({shown(point.x[0]), shown(point.y[0])});
      }
    }
    if (!measured.spots.empty()) panel.series.push_back(std::move(measured));
    Series handbook = handbook_crosses();
    for (const Azeotrope& azeotrope : options_.handbook)
      handbook.spots.push_back({shown(azeotrope.x1), shown(azeotrope.x1)});
    if (!handbook.spots.empty()) panel.series.push_back(std::move(handbook));
    figure.panels = {panel};
    return figure;
  }

 private:
  static Series handbook_crosses() {
    Series crosses = symbols(Mark::cross, colours::plain, "azeotrope of handbooks");
    crosses.in_key = true;
    return crosses;
  }

  // Mole fraction of component 1 as it is shown.
  double shown(double x1) const {
    if (options_.basis == Basis::mole) return x1;
    const std::array<double, 2> x{x1, 1 - x1};
    return mass_fractions(x, mixture_.substances())[0];
  }

  double T(double T_K) const { return from_si(T_K, options_.units.temperature, Dimension::temperature); }
  double P(double P_Pa) const { return from_si(P_Pa, options_.units.pressure, Dimension::pressure); }
  double ordinate(double T_K, double P_Pa) const { return isobaric_ ? T(T_K) : P(P_Pa); }

  // What tells a curve from the others: its model, its pressure or temperature, or both.
  std::string held_text(const BinaryCurve& curve) const {
    const BinaryPoint& point = curve.points.front();
    const auto held = [&](const BinaryCurve& any) {
      return isobaric_ ? any.points.front().P_Pa : any.points.front().T_K;
    };
    const bool several = std::any_of(curves_.begin(), curves_.end(),
                                     [&](const BinaryCurve& other) { return held(other) != held(curve); });
    if (!curve.label.empty() && !several) return curve.label;
    return (curve.label.empty() ? "" : curve.label + ", ") + condition_text(point);
  }

  std::string condition_text(const BinaryPoint& point) const {
    return isobaric_ ? fmt::format("{:.6g} {}", P(point.P_Pa), printed_unit(options_.units.pressure))
                     : fmt::format("{:.6g} {}", T(point.T_K), printed_unit(options_.units.temperature));
  }

  // Where there are several curves it names the one it belongs to.
  std::string azeotrope_text(const BinaryCurve& curve, const Azeotrope& azeotrope) const {
    const std::string state =
        isobaric_ ? fmt::format("{:.2f} {}", T(azeotrope.T_K), printed_unit(options_.units.temperature))
                  : fmt::format("{:.5g} {}", P(azeotrope.P_Pa), printed_unit(options_.units.pressure));
    const std::string held =
        isobaric_ ? fmt::format("{:.5g} {}", P(azeotrope.P_Pa), printed_unit(options_.units.pressure))
                  : fmt::format("{:.5g} {}", T(azeotrope.T_K), printed_unit(options_.units.temperature));
    const std::string kind = azeotrope.heterogeneous ? "heteroazeotrope" : "azeotrope";
    return fmt::format("{} x = {:.4f}, {}{}", curve.label.empty() ? kind : curve.label + ":",
                       shown(azeotrope.x1), state,
                       curves_.size() > 1 && curve.label.empty() ? " at " + held : "");
  }

  std::string fraction_label(const std::string& phases) const {
    return fmt::format("{} fraction of {} ({})", options_.basis == Basis::mole ? "mole" : "mass",
                       mixture_.substances()[0].name, phases);
  }

  Figure begin(const std::string& kind) const {
    Figure figure;
    std::vector<std::string> held;
    for (const BinaryCurve& curve : curves_) {
      const std::string text = condition_text(curve.points.front());
      if (std::find(held.begin(), held.end(), text) == held.end()) held.push_back(text);
    }
    figure.title = fmt::format(
        "{} of {} and {} at {}", kind, mixture_.substances()[0].name, mixture_.substances()[1].name,
        held.size() > 3 ? fmt::format("{} to {}", held.front(), held.back()) : joined(held, ", "));
    std::vector<std::string> labels;
    for (const BinaryCurve& curve : curves_) {
      if (std::find(labels.begin(), labels.end(), curve.label) == labels.end()) labels.push_back(curve.label);
    }
    const bool compared = labels.size() > 1;
    figure.footer = compared                  ? "models: " + joined(labels, ", ")
                    : mixture_.one_equation() ? "liquid and vapour: " + mixture_.vapour_model()
                                              : fmt::format("liquid model: {}; vapour: {}",
                                                            mixture_.liquid_model(), mixture_.vapour_model());
    for (const PairParameters& pair : mixture_.parameters()) {
      figure.footer += fmt::format("; {}parameters: {}", compared ? pair.model + " " : "", pair.source);
    }
    if (const Unifac* unifac = mixture_.unifac()) figure.footer += "; " + unifac_source(unifac->table());
    Notices notices;
    for (const BinaryCurve& curve : curves_) notices.add(curve.notices);
    for (const Notice& notice : notices) {
      if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end()) {
        figure.notices.push_back(notice.code);
      }
    }
    return figure;
  }

  void add_boiling(const BinaryCurve& curve, int colour, Panel& panel, Bounds& bounds) const {
    const bool alone = curves_.size() == 1;
    Series vapour = curve_of(looks::vapour, alone ? "vapour" : "");
    if (!alone) vapour.colour = colour;
    // Two liquids: the boiling curve has a gap over each three-phase line.
    std::vector<Series> liquids(1,
                                {{}, alone ? "liquid" : held_text(curve), Stroke::solid, Mark::none, colour});
    std::vector<Series> vapours;
    for (std::size_t k = 0; k < curve.points.size(); ++k) {
      const BinaryPoint& point = curve.points[k];
      const double y = ordinate(point.T_K, point.P_Pa);
      bounds.add(y);
      if (std::find(curve.breaks.begin(), curve.breaks.end(), k) != curve.breaks.end() && k > 0) {
        vapours.push_back(vapour);
        vapour.spots.clear();
        vapour.label.clear();
        liquids.push_back(liquids.back());
        liquids.back().spots.clear();
        liquids.back().label.clear();
      }
      vapour.spots.push_back({shown(point.y[0]), y});
      liquids.back().spots.push_back({shown(point.x[0]), y});
      for (const ThreePhase& line : curve.three_phases) {
        if (point.x[0] == line.x1_alpha) {
          liquids.push_back(liquids.back());
          liquids.back().spots.clear();
          liquids.back().label.clear();
        }
      }
    }
    for (Series& liquid : liquids) panel.series.push_back(std::move(liquid));
    for (Series& part : vapours) panel.series.push_back(std::move(part));
    panel.series.push_back(std::move(vapour));
    for (const BinaryPoint& point : curve.critical) {
      panel.callouts.push_back({{shown(point.x[0]), ordinate(point.T_K, point.P_Pa)},
                                fmt::format("critical, x = {:.3f}", shown(point.x[0])),
                                Mark::circle});
    }
    for (const ThreePhase& line : curve.three_phases) {
      const double y = ordinate(line.T_K, line.P_Pa);
      const double from = shown(std::min(line.x1_alpha, line.y1)),
                   to = shown(std::max(line.x1_beta, line.y1));
      panel.series.push_back(straight(looks::three_phase, {from, y}, {to, y}));
      for (const double x : {line.x1_alpha, line.x1_beta}) {
        panel.callouts.push_back({{shown(x), y}, fmt::format("{:.4f}", shown(x)), Mark::square});
      }
    }
    for (const Azeotrope& azeotrope : curve.azeotropes) {
      const double y = ordinate(azeotrope.T_K, azeotrope.P_Pa);
      bounds.add(y);
      panel.callouts.push_back({{shown(azeotrope.x1), y}, azeotrope_text(curve, azeotrope), Mark::diamond});
    }
  }

  void add_measured(const DataSet& data, Panel& panel, Bounds& bounds) const {
    Series liquid = symbols(Mark::circle, colours::liquid, "measured, liquid");
    Series vapour = symbols(Mark::square, colours::vapour, "measured, vapour");
    liquid.in_key = vapour.in_key = true;
    for (const DataPoint& point : data.points) {
      const double y = ordinate(point.T_K, point.P_Pa);
      bounds.add(y);
      liquid.spots.push_back({shown(point.x[0]), y});
      if (!point.y.empty()) vapour.spots.push_back({shown(point.y[0]), y});
    }
    panel.series.push_back(std::move(liquid));
    if (!vapour.spots.empty()) panel.series.push_back(std::move(vapour));
  }

  const std::vector<BinaryCurve>& curves_;
  const Mixture& mixture_;
  const FigureOptions& options_;
  bool isobaric_;
};

}  // namespace

Figure boiling_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                      const FigureOptions& options) {
  return Drawer(curves, mixture, options).boiling();
}

void add_band(Figure& figure, const BinaryCurve& curve, const UncertaintyBand& band,
              const FigureOptions& options, const Mixture& mixture) {
  const bool isobaric = curve.sought == Sought::temperature;
  const auto shown = [&](double x1) {
    const std::array<double, 2> x{std::clamp(x1, 0.0, 1.0), 1 - std::clamp(x1, 0.0, 1.0)};
    return options.basis == Basis::mole ? x[0] : mass_fractions(x, mixture.substances())[0];
  };
  const auto ordinate = [&](const BinaryPoint& point, const BandPoint& u, double sign) {
    return isobaric
               ? from_si(point.T_K + 2 * sign * u.u_T_K, options.units.temperature, Dimension::temperature)
               : from_si(point.P_Pa + 2 * sign * u.u_P_Pa, options.units.pressure, Dimension::pressure);
  };
  // The liquid is uncertain in its boiling point, the vapour over it in its composition.
  Area liquid{{}, 0}, vapour{{}, 1};
  std::vector<Spot> liquid_back, vapour_back;
  for (std::size_t k = 0; k < curve.points.size(); ++k) {
    const BinaryPoint& point = curve.points[k];
    const BandPoint& u = band.points[k];
    liquid.outline.push_back({shown(point.x[0]), ordinate(point, u, 1)});
    liquid_back.push_back({shown(point.x[0]), ordinate(point, u, -1)});
    vapour.outline.push_back({shown(point.y[0] + 2 * u.u_y1), ordinate(point, u, 0)});
    vapour_back.push_back({shown(point.y[0] - 2 * u.u_y1), ordinate(point, u, 0)});
  }
  liquid.outline.insert(liquid.outline.end(), liquid_back.rbegin(), liquid_back.rend());
  vapour.outline.insert(vapour.outline.end(), vapour_back.rbegin(), vapour_back.rend());
  figure.panels.front().areas.push_back(std::move(liquid));
  figure.panels.front().areas.push_back(std::move(vapour));
  if (figure.footer.find("bands") == std::string::npos) {
    figure.footer = "bands: two standard uncertainties, of the boiling point and of y; " + figure.footer;
  }
}

Figure xy_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                 const FigureOptions& options) {
  return Drawer(curves, mixture, options).xy();
}

namespace {

// Relative volatility against composition: an azeotrope is where it passes through one.
Panel volatility_panel(const std::vector<BinaryCurve>& curves, const Mixture& mixture, const FigureOptions&) {
  Panel panel;
  panel.x = {fmt::format("mole fraction of {} (liquid)", mixture.substances()[0].name), 0, 1};
  panel.series.push_back(straight(looks::reference, {0, 1}, {1, 1}));
  double low = 1, high = 1;
  for (std::size_t k = 0; k < curves.size(); ++k) {
    Series series{{}, curves[k].label, Stroke::solid, Mark::none, static_cast<int>(k)};
    for (const BinaryPoint& point : curves[k].points) {
      series.spots.push_back({point.x[0], point.relative_volatility()});
      low = std::min(low, series.spots.back().y);
      high = std::max(high, series.spots.back().y);
    }
    panel.series.push_back(std::move(series));
  }
  panel.y = logarithmic_axis("relative volatility", low, high);
  return panel;
}

}  // namespace

Figure overview_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                       const FigureOptions& options) {
  Figure figure = boiling_figure(curves, mixture, options);
  figure.panels.push_back(xy_figure(curves, mixture, options).panels.front());
  std::vector<std::string> labels;
  for (const BinaryCurve& curve : curves) labels.push_back(curve.label);
  figure.panels.push_back(gamma_panel(curves, labels, mixture.substances()));
  figure.panels.push_back(volatility_panel(curves, mixture, options));
  figure.columns = 2;
  figure.width = 1400;
  figure.height = 1100;
  return figure;
}

Figure bubble_triangle(const std::vector<VlePoint>& points, const std::vector<DataSet>& measured,
                       const Mixture& mixture, const Triangle::Options& triangle, Basis basis) {
  const Triangle corners(triangle);
  const auto& substances = mixture.substances();
  Figure figure;
  figure.title = fmt::format("Liquids and their vapours: {}, {} and {}", substances[0].name,
                             substances[1].name, substances[2].name);
  figure.footer = fmt::format("liquid model: {}; arrows from liquid to vapour; {} fractions; {}",
                              mixture.liquid_model(), basis == Basis::mole ? "mole" : "mass", triangle_note);
  Panel panel =
      corners.panel({substances[0].short_name(), substances[1].short_name(), substances[2].short_name()});
  const auto spot = [&](const std::vector<double>& x) {
    return corners.at(basis == Basis::mole ? x : mass_fractions(x, substances));
  };
  Series liquids = symbols(Mark::circle, colours::liquid, "liquid"),
         seen = symbols(Mark::square, colours::vapour, "measured vapour");
  liquids.in_key = seen.in_key = true;
  for (const VlePoint& point : points) {
    liquids.spots.push_back(spot(point.x));
    panel.arrows.push_back({spot(point.x), spot(point.y), 4});
    for (const Notice& notice : point.notices) {
      if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end())
        figure.notices.push_back(notice.code);
    }
  }
  panel.series.push_back(std::move(liquids));
  for (const DataSet& data : measured) {
    for (const DataPoint& point : data.points) {
      if (!point.y.empty()) seen.spots.push_back(spot(point.y));
    }
  }
  if (!seen.spots.empty()) panel.series.push_back(std::move(seen));
  figure.panels = {std::move(panel)};
  return figure;
}

Figure slice_figure(const std::vector<VlePoint>& points, std::size_t axis, Sought sought,
                    const Mixture& mixture, const FigureOptions& options) {
  const auto& substances = mixture.substances();
  const bool isobaric = sought == Sought::temperature;
  Series liquid = curve_of(looks::liquid, "liquid"), vapour = curve_of(looks::vapour, "vapour");
  Bounds bounds;
  for (const VlePoint& point : points) {
    const auto shown = [&](const std::vector<double>& x) {
      return options.basis == Basis::mole ? x[axis] : mass_fractions(x, substances)[axis];
    };
    const double y = isobaric ? from_si(point.T_K, options.units.temperature, Dimension::temperature)
                              : from_si(point.P_Pa, options.units.pressure, Dimension::pressure);
    bounds.add(y);
    liquid.spots.push_back({shown(point.x), y});
    vapour.spots.push_back({shown(point.y), y});
  }
  Panel panel;
  panel.x = {fmt::format("{} fraction of {} (liquid, vapour)", options.basis == Basis::mole ? "mole" : "mass",
                         substances[axis].name),
             0, 1};
  panel.y = rounded_axis(isobaric ? fmt::format("temperature / {}", printed_unit(options.units.temperature))
                                  : fmt::format("pressure / {}", printed_unit(options.units.pressure)),
                         bounds.low, bounds.high);
  panel.series = {std::move(liquid), std::move(vapour)};
  std::vector<std::string> names;
  for (const Substance& substance : substances) names.push_back(substance.name);
  Figure figure;
  figure.title = fmt::format("A line of compositions of {}", joined(names, ", "));
  figure.footer = fmt::format("liquid model: {}; vapour: {}", mixture.liquid_model(), mixture.vapour_model());
  figure.panels = {std::move(panel)};
  return figure;
}

}  // namespace jampot
