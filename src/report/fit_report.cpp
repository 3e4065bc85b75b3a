
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "fit_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/report/regress.hpp"

namespace jampot {
namespace {

Table data_table(const std::vector<DataSet>& sets) {
  Table table{
      "",
      {{"file"}, {"kind"}, {"points", Dimension::number, 0}, {"not used", Dimension::number, 0}, {"source"}},
      {}};
  for (const DataSet& set : sets) {
    const auto unused = std::count_if(set.points.begin(), set.points.end(), [&](const DataPoint& point) {
      return !point.excluded.empty() || (vapour_liquid(set.kind) && point.is_pure());
    });
    table.rows.push_back({file_name(set.name), std::string(name_of(set.kind)),
                          static_cast<double>(set.points.size()), static_cast<double>(unused),
                          set.source.empty() ? std::string("not stated") : set.source});
  }
  return table;
}

// Residuals against composition and temperature, and the parity of y.
Figure residual_overview(const Fit& fit, const DisplayUnits& units) {
  struct Shown {
    std::string x, y;
    std::vector<Spot> spots;
  };
  const std::string x1 = fmt::format("measured mole fraction of {}", fit.substances[0].short_name());
  const std::string T = fmt::format("measured temperature / {}", printed_unit(units.temperature));
  Shown by_x{x1, "z of boiling pressure", {}}, by_T{T, "z of boiling pressure", {}},
      y_by_x{x1, "z of y1", {}}, parity{"y1 measured", "y1 of the model", {}};
  for (const ResidualRow& row : fit.residuals) {
    if (!row.used()) continue;
    by_x.spots.push_back({row.measured.x[0], row.standardised_P});
    by_T.spots.push_back(
        {from_si(row.measured.T_K, units.temperature, Dimension::temperature), row.standardised_P});
    if (row.standardised_y.empty()) continue;
    y_by_x.spots.push_back({row.measured.x[0], row.standardised_y[0]});
    parity.spots.push_back({row.measured.y[0], row.y[0]});
  }
  Figure figure;
  figure.title = fmt::format("Residuals of the {} fit", fit.options.model);
  figure.footer = "z: measured minus model over its standard uncertainty; dotted: 95 % should lie within";
  figure.columns = 2;
  figure.height = 900;
  for (const Shown* shown : {&by_x, &by_T, &y_by_x, &parity}) {
    if (shown->spots.empty()) continue;
    Panel panel;
    double low = HUGE_VAL, high = -HUGE_VAL, most = 3.5;
    for (const Spot& spot : shown->spots) {
      low = std::min(low, spot.x);
      high = std::max(high, spot.x);
      most = std::max(most, 1.1 * std::abs(spot.y));
    }
    panel.x = shown == &by_T ? rounded_axis(shown->x, low, high) : Axis{shown->x, 0, 1};
    if (shown == &parity) {
      panel.y = {shown->y, 0, 1};
      panel.square = true;
      panel.series.push_back(straight(looks::reference, {0, 0}, {1, 1}));
    } else {
      panel.y = {shown->y, -std::ceil(most), std::ceil(most)};
      for (const double level : {-2.0, 0.0, 2.0}) {
        panel.series.push_back({{{panel.x.low, level}, {panel.x.high, level}},
                                "",
                                level == 0 ? Stroke::solid : Stroke::dotted,
                                Mark::none,
                                6,
                                1.1});
      }
    }
    panel.series.push_back({shown->spots, "", Stroke::none, Mark::circle, 0});
    figure.panels.push_back(std::move(panel));
  }
  return figure;
}

void add_consistency(Report& report, const std::vector<SetVerdict>& verdicts) {
  Table table{"", {{"data"}, {"test"}, {"value"}, {"limit"}, {"verdict"}, {"what it means"}}, {}};
  for (const SetVerdict& verdict : verdicts) {
    if (!verdict.tests) continue;  // too few points to test
    for (const ConsistencyTest& test : verdict.tests->tests) {
      table.rows.push_back(
          {file_name(verdict.set), test.name, fmt::format("{:.4g} {}", test.value, test.unit),
           fmt::format("{:.4g}", test.limit), std::string(name_of(test.verdict)), test.meaning});
    }
  }
  if (table.rows.empty()) return;
  report.heading("Consistency of the data");
  report.table(std::move(table));
}

void add_diagram(Report& report, const Fit& fit, const std::vector<DataSet>& sets,
                 const DisplayUnits& units) {
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind) || fit.substances.size() != 2 || set.points.empty()) continue;
    try {
      Mixture mixture = fit.mixture();
      double held = 0;
      for (const DataPoint& point : set.points)
        held += (isobaric(set.kind) ? point.P_Pa : point.T_K) / static_cast<double>(set.points.size());
      const BinaryCurve curve = isobaric(set.kind) ? txy(mixture, held) : pxy(mixture, held);
      const FigureOptions options{units, Basis::mole, {set}};
      Figure figure = boiling_figure({curve}, mixture, options);
      add_band(figure, curve, uncertainty_band(mixture, curve), options, mixture);
      report.heading("The curve through the points of " + file_name(set.name));
      report.figure(std::move(figure));
    } catch (const CalculationError&) {
      continue;  // a solution of what does not boil has no diagram
    }
  }
}

}  // namespace

Report fit_report(const RegressStudy& study, const DisplayUnits& units) {
  return fit_report(study, units, verdicts_on(study.sets, study.best().options.vapour));
}

Report fit_report(const RegressStudy& study, const DisplayUnits& units,
                  const std::vector<SetVerdict>& consistency) {
  const Fit& fit = study.best();
  const std::vector<DataSet>& sets = study.sets;
  std::vector<RankedFit> ranked = study.fits;
  ranked.insert(ranked.end(), study.beside.begin(), study.beside.end());
  if (study.fits.size() == 1) ranked.front().verdict = "the one reported";
  std::vector<std::string> names;
  for (const Substance& substance : fit.substances) names.push_back(substance.name);
  Report report(fmt::format("{} parameters of {}", fit.options.model, joined(names, " and ")));
  report.heading("Warnings first");
  report.notices(fit.notices);
  report.heading("Data");
  report.table(data_table(sets));
  report.heading("Parameters");
  report.table(parameter_table(fit));
  report.table(statistics_table(fit));
  if (ranked.size() > 1) {
    report.heading("Other models");
    report.table(ranking_table(ranked));
  }
  add_consistency(report, consistency);
  add_diagram(report, fit, sets, units);
  if (!fit.residuals.empty()) {
    report.heading("Residuals");
    report.figure(residual_overview(fit, units));
    report.table(residual_table(fit));
  }
  if (!fit.liquid_residuals.empty()) report.table(liquid_residual_table(fit));
  report.table(influence_table(fit));
  if (!fit.sets.empty()) report.table(sets_table(fit));
  return report;
}

}  // namespace jampot
