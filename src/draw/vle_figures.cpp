#include "jampot/draw/vle_figures.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/text.hpp"

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
    panel.series.push_back({{{0, 0}, {1, 1}}, "", Stroke::dotted, Mark::none, 6, 1.2});
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
        panel.callouts.push_back({{x, x}, azeotrope_text(azeotrope, true), Mark::diamond});
      }
    }
    Series measured{{}, "measured", Stroke::none, Mark::circle, 6};
    measured.in_key = true;
    for (const DataSet& data : options_.measured) {
      for (const DataPoint& point : data.points) {
        if (!point.y.empty()) measured.spots.push_back({shown(point.x[0]), shown(point.y[0])});
      }
    }
    if (!measured.spots.empty()) panel.series.push_back(std::move(measured));
    figure.panels = {panel};
    return figure;
  }

 private:
  // Mole fraction of component 1 as it is shown.
  double shown(double x1) const {
    if (options_.basis == Basis::mole) return x1;
    const std::array<double, 2> x{x1, 1 - x1};
    return mass_fractions(x, mixture_.substances())[0];
  }

  double T(double T_K) const { return from_si(T_K, options_.units.temperature, Dimension::temperature); }
  double P(double P_Pa) const { return from_si(P_Pa, options_.units.pressure, Dimension::pressure); }
  double ordinate(double T_K, double P_Pa) const { return isobaric_ ? T(T_K) : P(P_Pa); }

  std::string held_text(const BinaryCurve& curve) const {
    const BinaryPoint& point = curve.points.front();
    return isobaric_ ? fmt::format("{:.6g} {}", P(point.P_Pa), printed_unit(options_.units.pressure))
                     : fmt::format("{:.6g} {}", T(point.T_K), printed_unit(options_.units.temperature));
  }

  std::string azeotrope_text(const Azeotrope& azeotrope, bool with_condition) const {
    const std::string state =
        isobaric_ ? fmt::format("{:.2f} {}", T(azeotrope.T_K), printed_unit(options_.units.temperature))
                  : fmt::format("{:.5g} {}", P(azeotrope.P_Pa), printed_unit(options_.units.pressure));
    const std::string held =
        isobaric_ ? fmt::format("{:.5g} {}", P(azeotrope.P_Pa), printed_unit(options_.units.pressure))
                  : fmt::format("{:.5g} {}", T(azeotrope.T_K), printed_unit(options_.units.temperature));
    return fmt::format("{} x = {:.4f}, {}{}", azeotrope.heterogeneous ? "heteroazeotrope" : "azeotrope",
                       shown(azeotrope.x1), state, with_condition && curves_.size() > 1 ? " at " + held : "");
  }

  std::string fraction_label(const std::string& phases) const {
    return fmt::format("{} fraction of {} ({})", options_.basis == Basis::mole ? "mole" : "mass",
                       mixture_.substances()[0].name, phases);
  }

  Figure begin(const std::string& kind) const {
    Figure figure;
    std::vector<std::string> held;
    for (const BinaryCurve& curve : curves_) held.push_back(held_text(curve));
    figure.title = fmt::format(
        "{} of {} and {} at {}", kind, mixture_.substances()[0].name, mixture_.substances()[1].name,
        held.size() > 3 ? fmt::format("{} to {}", held.front(), held.back()) : joined(held, ", "));
    figure.footer =
        fmt::format("liquid model: {}; vapour: {}", mixture_.liquid_model(), mixture_.vapour_model());
    for (const PairParameters& pair : mixture_.parameters()) figure.footer += "; parameters: " + pair.source;
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
    Series vapour{{}, alone ? "vapour" : "", Stroke::dashed, Mark::none, alone ? 1 : colour};
    // Two liquids: the boiling curve has a gap over each three-phase line.
    std::vector<Series> liquids(1,
                                {{}, alone ? "liquid" : held_text(curve), Stroke::solid, Mark::none, colour});
    for (const BinaryPoint& point : curve.points) {
      const double y = ordinate(point.T_K, point.P_Pa);
      bounds.add(y);
      vapour.spots.push_back({shown(point.y[0]), y});
      liquids.back().spots.push_back({shown(point.x[0]), y});
      for (const ThreePhase& line : curve.three_phases) {
        if (point.x[0] == line.x_alpha) {
          liquids.push_back(liquids.back());
          liquids.back().spots.clear();
          liquids.back().label.clear();
        }
      }
    }
    for (Series& liquid : liquids) panel.series.push_back(std::move(liquid));
    panel.series.push_back(std::move(vapour));
    for (const ThreePhase& line : curve.three_phases) {
      const double y = ordinate(line.T_K, line.P_Pa);
      const double from = shown(std::min(line.x_alpha, line.y)), to = shown(std::max(line.x_beta, line.y));
      panel.series.push_back({{{from, y}, {to, y}}, "", Stroke::solid, Mark::none, 6, 1.4});
      for (const double x : {line.x_alpha, line.x_beta}) {
        panel.callouts.push_back({{shown(x), y}, fmt::format("{:.4f}", shown(x)), Mark::square});
      }
    }
    for (const Azeotrope& azeotrope : curve.azeotropes) {
      const double y = ordinate(azeotrope.T_K, azeotrope.P_Pa);
      bounds.add(y);
      panel.callouts.push_back({{shown(azeotrope.x1), y}, azeotrope_text(azeotrope, false), Mark::diamond});
    }
  }

  void add_measured(const DataSet& data, Panel& panel, Bounds& bounds) const {
    Series liquid{{}, "measured, liquid", Stroke::none, Mark::circle, 0};
    Series vapour{{}, "measured, vapour", Stroke::none, Mark::square, 1};
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

Panel residual_panel(const std::string& label, const Fit& fit, const std::vector<Spot>& spots, int colour) {
  double most = 3.5;
  for (const Spot& spot : spots) most = std::max(most, 1.1 * std::abs(spot.y));
  Panel panel;
  panel.x = {fmt::format("measured mole fraction of {} in the liquid", fit.substances[0].name), 0, 1};
  panel.y = {label, -std::ceil(most), std::ceil(most)};
  panel.series.push_back({{{0, 0}, {1, 0}}, "", Stroke::solid, Mark::none, 6, 1.0});
  panel.series.push_back({{{0, 2}, {1, 2}}, "", Stroke::dotted, Mark::none, 6, 1.2});
  panel.series.push_back({{{0, -2}, {1, -2}}, "", Stroke::dotted, Mark::none, 6, 1.2});
  panel.series.push_back({spots, "", Stroke::none, colour == 0 ? Mark::circle : Mark::square, colour});
  return panel;
}

}  // namespace

Figure boiling_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                      const FigureOptions& options) {
  return Drawer(curves, mixture, options).boiling();
}

Figure xy_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                 const FigureOptions& options) {
  return Drawer(curves, mixture, options).xy();
}

Figure residual_figure(const Fit& fit) {
  Figure figure;
  std::vector<Spot> boiling, vapour;
  for (const ResidualRow& row : fit.residuals) {
    if (row.pure) continue;
    boiling.push_back({row.measured.x[0], row.standardised_P});
    if (!row.standardised_y.empty()) vapour.push_back({row.measured.x[0], row.standardised_y[0]});
  }
  figure.title = fmt::format("Residuals of the {} fit to {} and {}", fit.options.model,
                             fit.substances[0].name, fit.substances[1].name);
  figure.footer = fmt::format(
      "measured minus model, over its standard uncertainty; dotted: 95 % should lie within; {} points; {}",
      fit.points, name_of(fit.options.objective));
  figure.panels.push_back(residual_panel("boiling pressure", fit, boiling, 0));
  if (!vapour.empty()) figure.panels.push_back(residual_panel("vapour fraction y1", fit, vapour, 1));
  for (const Notice& notice : fit.notices) {
    if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end()) {
      figure.notices.push_back(notice.code);
    }
  }
  return figure;
}

}  // namespace jampot
