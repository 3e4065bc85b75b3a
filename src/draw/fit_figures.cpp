#include "jampot/draw/fit_figures.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/regression/statistics.hpp"

namespace jampot {
namespace {

constexpr double wide = 3.5;  // standard uncertainties shown at least

Series residual_symbols(int colour) {
  return symbols(colour == colours::liquid ? Mark::circle : Mark::square, colour);
}

// Standardised residuals against something of the points, between the lines within which 95 % should lie.
Panel residual_panel(const std::string& label, Axis axis, const std::vector<Spot>& spots, int colour) {
  Panel panel;
  double most = wide;
  for (const Spot& spot : spots) most = std::max(most, 1.1 * std::abs(spot.y));
  panel.x = std::move(axis);
  panel.y = {label, -std::ceil(most), std::ceil(most)};
  panel.series.push_back(straight(looks::zero, {panel.x.low, 0}, {panel.x.high, 0}));
  for (const double limit : {2.0, -2.0})
    panel.series.push_back(straight(looks::reference, {panel.x.low, limit}, {panel.x.high, limit}));
  Series points = residual_symbols(colour);
  points.spots = spots;
  panel.series.push_back(std::move(points));
  return panel;
}

struct Residuals {
  std::vector<const ResidualRow*> rows;
  explicit Residuals(const Fit& fit) {
    for (const ResidualRow& row : fit.residuals)
      if (row.used()) rows.push_back(&row);
  }
  bool vapour() const {
    return std::any_of(rows.begin(), rows.end(),
                       [](const ResidualRow* row) { return !row->standardised_y.empty(); });
  }
};

Axis spanning(const std::string& label, const std::vector<double>& values) {
  const auto [low, high] = std::minmax_element(values.begin(), values.end());
  const double margin = *high > *low ? 0.03 * (*high - *low) : 1;
  return rounded_axis(label, *low - margin, *high + margin);
}

void against(const Residuals& all, const Axis& axis,
             const std::function<double(const ResidualRow&, int)>& key, Figure& figure) {
  std::vector<Spot> boiling, vapour;
  int number = 0;
  for (const ResidualRow* row : all.rows) {
    const double x = key(*row, ++number);
    boiling.push_back({x, row->standardised_P});
    if (!row->standardised_y.empty()) vapour.push_back({x, row->standardised_y[0]});
  }
  figure.panels.push_back(residual_panel("boiling pressure", axis, boiling, colours::liquid));
  if (!vapour.empty())
    figure.panels.push_back(residual_panel("vapour fraction y1", axis, vapour, colours::vapour));
}

// Sorted residuals against what a normal distribution has at their rank: a straight line where all is noise.
Panel normal_panel(const std::string& quantity, std::vector<double> z, int colour) {
  std::sort(z.begin(), z.end());
  Series points = residual_symbols(colour);
  double most = wide;
  for (std::size_t k = 0; k < z.size(); ++k) {
    const double rank = (static_cast<double>(k) + 0.5) / static_cast<double>(z.size());
    points.spots.push_back({normal_quantile(rank), z[k]});
    most = std::max(most, 1.1 * std::abs(z[k]));
  }
  Panel panel;
  panel.x = {"normal quantile of the rank", -wide, wide};
  panel.y = {"z of the " + quantity, -most, most};
  panel.series = {straight(looks::reference, {-wide, -wide}, {wide, wide}), std::move(points)};
  return panel;
}

Panel parity_panel(const std::string& label, const std::vector<Spot>& spots, int colour) {
  std::vector<double> values;
  for (const Spot& spot : spots) {
    values.push_back(spot.x);
    values.push_back(spot.y);
  }
  Panel panel;
  panel.x = spanning(label + ", measured", values);
  panel.y = panel.x;
  panel.y.label = label + ", model";
  panel.square = true;
  Series points = residual_symbols(colour);
  points.spots = spots;
  panel.series = {straight(looks::reference, {panel.x.low, panel.x.low}, {panel.x.high, panel.x.high}),
                  std::move(points)};
  return panel;
}

void parity(const Fit& fit, const Residuals& all, const DisplayUnits& units, Figure& figure) {
  std::vector<Spot> boiling, vapour;
  const bool T = fit.isobaric[all.rows.front()->set];
  const Dimension dimension = T ? Dimension::temperature : Dimension::pressure;
  const std::string unit = T ? units.temperature : units.pressure;
  for (const ResidualRow* row : all.rows) {
    if (fit.isobaric[row->set] == T)
      boiling.push_back({from_si(T ? row->measured.T_K : row->measured.P_Pa, unit, dimension),
                         from_si(T ? row->T_K : row->P_Pa, unit, dimension)});
    if (!row->measured.y.empty()) vapour.push_back({row->measured.y[0], row->y[0]});
  }
  figure.panels.push_back(
      parity_panel(fmt::format("{} / {}", T ? "T" : "P", printed_unit(unit)), boiling, colours::liquid));
  if (vapour.empty()) return;
  Panel fractions = parity_panel("y1", vapour, colours::vapour);
  for (Axis* axis : {&fractions.x, &fractions.y}) {
    axis->low = std::max(axis->low, 0.0);
    axis->high = std::min(axis->high, 1.0);
  }
  fractions.series.front() =
      straight(looks::reference, {fractions.x.low, fractions.x.low}, {fractions.x.high, fractions.x.high});
  figure.panels.push_back(std::move(fractions));
}

// Two fitted parameters: the region that holds both in 95 % of cases, to first order, and the minima that
// were found.
void parameters(const Fit& fit, Figure& figure) {
  const auto free = fit.free();
  if (free.size() < 2) throw RequestError("a picture of the parameters needs two that are fitted");
  const double a = free[0]->value, b = free[1]->value;
  const double sa = std::sqrt(fit.covariance(0, 0)), sb = std::sqrt(fit.covariance(1, 1));
  const double r = fit.correlation(0, 1);
  constexpr double both = 5.991464547107979;  // chi-square of two at 95 %
  Series region{{}, "95 % region, first order", Stroke::dashed, Mark::none, colours::liquid};
  region.in_key = true;
  std::vector<double> x, y;
  constexpr int steps = 240;
  for (int k = 0; k <= steps; ++k) {
    // Along its own axes, so that its narrow ends are as smooth as its sides.
    const double angle = 2 * std::numbers::pi * k / steps, size = std::sqrt(both);
    const double along = size * std::sqrt((1 + r) / 2) * std::cos(angle);
    const double across = size * std::sqrt((1 - r) / 2) * std::sin(angle);
    region.spots.push_back({a + sa * (along + across), b + sb * (along - across)});
    x.push_back(region.spots.back().x);
    y.push_back(region.spots.back().y);
  }
  Panel panel;
  Series likelihood{{}, "95 % region, likelihood", Stroke::solid, Mark::none, colours::liquid};
  likelihood.in_key = true;
  for (std::size_t k = 0; k <= fit.region.size() && !fit.region.empty(); ++k) {
    const RegionPoint& point = fit.region[k % fit.region.size()];
    if (point.open) {  // no edge here
      if (!likelihood.spots.empty()) panel.series.push_back(likelihood);
      likelihood.spots.clear();
      likelihood.in_key = false;
      continue;
    }
    likelihood.spots.push_back({point.values[0], point.values[1]});
    x.push_back(point.values[0]);
    y.push_back(point.values[1]);
  }
  if (likelihood.spots.size() > 1) panel.series.push_back(std::move(likelihood));
  Series others = symbols(Mark::square, colours::vapour, "other minima");
  others.in_key = true;
  for (std::size_t k = 1; k < fit.minima.size(); ++k) {
    const Spot spot{fit.minima[k].values[0], fit.minima[k].values[1]};
    if (std::abs(spot.x - a) > 20 * sa || std::abs(spot.y - b) > 20 * sb) continue;  // elsewhere
    others.spots.push_back(spot);
    x.push_back(spot.x);
    y.push_back(spot.y);
  }
  panel.x = spanning(free[0]->name, x);
  panel.y = spanning(free[1]->name, y);
  panel.series.push_back(std::move(region));
  if (!others.spots.empty()) panel.series.push_back(std::move(others));
  panel.callouts.push_back({{a, b}, "the fit", Mark::circle});
  figure.panels.push_back(std::move(panel));
}

}  // namespace

FitPicture parse_fit_picture(const std::string& text) {
  const std::vector<std::string> names{"composition", "temperature", "pressure",  "order",
                                       "normal",      "parity",      "parameters"};
  const auto found = std::find(names.begin(), names.end(), text);
  if (found == names.end())
    throw RequestError(fmt::format("'{}' is not a picture of a fit; the pictures are {}.{}", text,
                                   joined(names, ", "), did_you_mean(text, names)));
  return static_cast<FitPicture>(found - names.begin());
}

Figure fit_figure(const Fit& fit, FitPicture picture, const DisplayUnits& units) {
  const Residuals all(fit);
  if (all.rows.empty() && picture != FitPicture::parameters)
    throw RequestError(
        "the figure of a fit shows residuals of boiling points; there are none among these data");
  Figure figure;
  figure.title = fmt::format("Residuals of the {} fit to {} and {}", fit.options.model,
                             fit.substances[0].name, fit.substances[1].name);
  figure.footer = fmt::format(
      "measured minus model, over its standard uncertainty; dotted: 95 % should lie within; {}; {}",
      counted(fit.points, "point"), name_of(fit.options.objective));
  const auto values = [&](const auto& get) {
    std::vector<double> list;
    for (const ResidualRow* row : all.rows) list.push_back(get(*row));
    return list;
  };
  const auto T = [&](const ResidualRow& row) {
    return from_si(row.measured.T_K, units.temperature, Dimension::temperature);
  };
  const auto P = [&](const ResidualRow& row) {
    return from_si(row.measured.P_Pa, units.pressure, Dimension::pressure);
  };
  switch (picture) {
    case FitPicture::composition:
      against(
          all, {fmt::format("measured mole fraction of {} in the liquid", fit.substances[0].name), 0, 1},
          [](const ResidualRow& row, int) { return row.measured.x[0]; }, figure);
      break;
    case FitPicture::temperature:
      against(
          all, spanning(fmt::format("temperature / {}", printed_unit(units.temperature)), values(T)),
          [&](const ResidualRow& row, int) { return T(row); }, figure);
      break;
    case FitPicture::pressure:
      against(
          all, spanning(fmt::format("pressure / {}", printed_unit(units.pressure)), values(P)),
          [&](const ResidualRow& row, int) { return P(row); }, figure);
      break;
    case FitPicture::order:
      against(
          all, {"number of the point in the files", 0, static_cast<double>(all.rows.size()) + 1},
          [](const ResidualRow&, int number) { return static_cast<double>(number); }, figure);
      break;
    case FitPicture::normal: {
      figure.footer = "dotted: noise of the stated uncertainties; " + counted(fit.points, "point");
      figure.panels.push_back(normal_panel("boiling pressure",
                                           values([](const ResidualRow& row) { return row.standardised_P; }),
                                           colours::liquid));
      std::vector<double> vapour;
      for (const ResidualRow* row : all.rows)
        if (!row->standardised_y.empty()) vapour.push_back(row->standardised_y[0]);
      if (!vapour.empty())
        figure.panels.push_back(normal_panel("vapour fraction y1", vapour, colours::vapour));
      break;
    }
    case FitPicture::parity:
      figure.title = fmt::format("Model against measurement: {} of {} and {}", fit.options.model,
                                 fit.substances[0].name, fit.substances[1].name);
      figure.footer = "model at the measured liquid; " + counted(fit.points, "point");
      parity(fit, all, units, figure);
      figure.columns = static_cast<int>(figure.panels.size());
      break;
    case FitPicture::parameters:
      figure.title = fmt::format("Parameters of the {} fit to {} and {}", fit.options.model,
                                 fit.substances[0].name, fit.substances[1].name);
      figure.footer = fit.region.empty()
                          ? "the region holds both parameters in 95 % of cases, to first order"
                          : "each region holds both parameters in 95 % of cases; where they differ the "
                            "likelihood is right: beyond it the fit is worse by more than chance";
      parameters(fit, figure);
      break;
  }
  for (const Notice& notice : fit.notices) {
    if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end())
      figure.notices.push_back(notice.code);
  }
  return figure;
}

}  // namespace jampot
