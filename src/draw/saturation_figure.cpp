#include "jampot/draw/saturation_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

class SaturationDrawer {
 public:
  SaturationDrawer(const Substance& substance, SaturationAxes axes, const DisplayUnits& units)
      : substance_(substance), axes_(axes), units_(units) {}

  Figure draw(const std::vector<SaturationPoint>& points) const {
    const auto [coldest, hottest] =
        std::minmax_element(points.begin(), points.end(),
                            [](const SaturationPoint& a, const SaturationPoint& b) { return a.T_K < b.T_K; });
    double low = coldest->T_K, high = hottest->T_K;
    if (low == high) {  // a single point is drawn with its surroundings
      low = std::max(substance_.vapour_pressure->lowest_K(), low - 20);
      high = std::min(substance_.vapour_pressure->Tc_K().value_or(high + 20), high + 20);
    }
    Figure figure;
    figure.title = fmt::format("Saturation curve of {}", substance_.name);
    const VapourPressure& curve = *substance_.vapour_pressure;
    const bool beyond = curve.estimated() || low < curve.Tmin_K() || high > curve.Tmax_K();
    figure.footer = fmt::format("vapour pressure: {}{}", curve.source(),
                                beyond ? "; dotted: continued or estimated by corresponding states" : "");
    Panel panel;
    add_curve(panel, low, high);
    Series symbols{{}, "", Stroke::none, Mark::circle, 0};
    constexpr std::size_t few = 60;
    for (const SaturationPoint& point : points) {
      if (points.size() <= few) symbols.spots.push_back(spot(point.T_K, point.P_Pa));
    }
    if (!symbols.spots.empty()) panel.series.push_back(std::move(symbols));
    add_marks(panel, low, high);
    set_axes(panel, low, high);
    figure.panels = {panel};
    return figure;
  }

 private:
  Spot spot(double T_K, double P_Pa) const {
    const double P = from_si(P_Pa, units_.pressure, Dimension::pressure);
    if (axes_ == SaturationAxes::log_P_against_inverse_T) return {1000 / T_K, P};
    return {from_si(T_K, units_.temperature, Dimension::temperature), P};
  }

  void add_curve(Panel& panel, double low, double high) const {
    const VapourPressure& curve = *substance_.vapour_pressure;
    constexpr int steps = 300;
    bool measured = false;
    for (int k = 0; k <= steps; ++k) {
      const double T_K = low + (high - low) * k / steps;
      const bool now = curve.covers(T_K);
      if (k == 0 || now != measured) {
        if (k > 0) panel.series.back().spots.push_back(spot(T_K, curve.P_Pa(T_K)));
        panel.series.push_back({{}, "", now ? Stroke::solid : Stroke::dotted, Mark::none, 0});
        measured = now;
      }
      panel.series.back().spots.push_back(spot(T_K, curve.P_Pa(T_K)));
    }
  }

  void add_marks(Panel& panel, double low, double high) const {
    const auto mark = [&](double T_K, double P_Pa, const char* what) {
      panel.callouts.push_back(
          {spot(T_K, P_Pa),
           fmt::format("{} {:.2f} {}, {:.4g} {}", what,
                       from_si(T_K, units_.temperature, Dimension::temperature),
                       printed_unit(units_.temperature), from_si(P_Pa, units_.pressure, Dimension::pressure),
                       printed_unit(units_.pressure)),
           Mark::diamond});
    };
    const VapourPressure& curve = *substance_.vapour_pressure;
    const double Tb = curve.T_K(standard_atmosphere);
    if (Tb > low && Tb < high) mark(Tb, standard_atmosphere, "boils at");
    if (curve.Tc_K() && *curve.Tc_K() <= high + 1e-6)
      mark(*curve.Tc_K(), curve.P_Pa(*curve.Tc_K()), "critical point");
  }

  void set_axes(Panel& panel, double low, double high) const {
    const VapourPressure& curve = *substance_.vapour_pressure;
    const Spot from = spot(low, curve.P_Pa(low)), to = spot(high, curve.P_Pa(high));
    const std::string P_label = fmt::format("vapour pressure / {}", printed_unit(units_.pressure));
    if (axes_ == SaturationAxes::P_against_T) {
      panel.x = rounded_axis(fmt::format("temperature / {}", printed_unit(units_.temperature)), from.x, to.x);
      panel.y = rounded_axis(P_label, from.y, to.y);
      return;
    }
    panel.x = rounded_axis("1000 K / T", to.x, from.x);
    panel.y = logarithmic_axis(P_label, from.y, to.y);
  }

  const Substance& substance_;
  SaturationAxes axes_;
  const DisplayUnits& units_;
};

}  // namespace

Figure saturation_figure(const Substance& substance, const std::vector<SaturationPoint>& points,
                         SaturationAxes axes, const DisplayUnits& units) {
  return SaturationDrawer(substance, axes, units).draw(points);
}

}  // namespace jampot
