#include "jampot/draw/solubility_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jampot {
namespace {

class Drawer {
 public:
  Drawer(const std::vector<Substance>& substances, const SolubilityFigureOptions& options)
      : substances_(substances), options_(options) {}

  // Temperature over composition: the dome of two liquids.
  Panel dome(const std::vector<LabelledSolubility>& curves) {
    Panel panel;
    for (std::size_t k = 0; k < curves.size(); ++k) {
      const auto& [label, curve] = curves[k];
      // Both sides of each gap, broken where the gap is.
      for (auto& branch : branches(curve)) {
        Series line{std::move(branch), label, k % 2 == 0 ? Stroke::solid : Stroke::dashed, Mark::none,
                    static_cast<int>(k)};
        panel.series.push_back(std::move(line));
      }
      for (std::size_t s = 1; s < panel.series.size(); ++s) {  // one label a curve
        if (panel.series[s].label == panel.series[s - 1].label) panel.series[s].label.clear();
      }
      for (const CriticalSolution& critical : curve.critical) {
        const double T = shown_T(critical.T_K);
        if (T < low_ - 1e-9 || T > high_ + 1e-9) continue;
        panel.callouts.push_back(
            {{shown(critical.x1), T},
             fmt::format("{} {:.1f} {}, {:.3f}", critical.upper ? "upper critical" : "lower critical", T,
                         printed_unit(options_.units.temperature), shown(critical.x1)),
             Mark::diamond});
      }
    }
    Series measured{{}, "measured", Stroke::none, Mark::circle, 6};
    measured.in_key = true;
    for (const DataSet& data : options_.measured) {
      for (const DataPoint& point : data.points) {
        for (const auto* x : {&point.x, &point.y})
          measured.spots.push_back({shown((*x)[0]), shown_T(point.T_K)});
        see(shown_T(point.T_K));
      }
    }
    if (!measured.spots.empty()) panel.series.push_back(std::move(measured));
    panel.x = {fraction_of(0), 0, 1};
    panel.y = rounded_axis("temperature / " + printed_unit(options_.units.temperature), low_, high_);
    return panel;
  }

  // Each solubility by itself, on a logarithmic axis: the dilute side magnified.
  Panel dilute(const std::vector<LabelledSolubility>& curves) {
    Panel panel;
    double least = 1, most = 0;
    const auto add = [&](Series& series, double T_K, double value) {
      series.spots.push_back({shown_T(T_K), value});
      least = std::min(least, value);
      most = std::max(most, value);
      see(shown_T(T_K));
    };
    for (std::size_t k = 0; k < curves.size(); ++k) {
      const auto& [label, curve] = curves[k];
      for (std::size_t i = 0; i < 2; ++i) {
        Series series{{},
                      fmt::format("{} in {}{}", substances_[i].short_name(), substances_[1 - i].short_name(),
                                  label.empty() ? "" : ", " + label),
                      i == 0 ? Stroke::solid : Stroke::dashed,
                      Mark::none,
                      curves.size() == 1 ? static_cast<int>(i) : static_cast<int>(k)};
        for (const SolubilityPoint& point : curve.drawn) {
          if (point.splits.empty()) continue;
          const BinarySplit& split = i == 0 ? point.splits.front() : point.splits.back();
          add(series, point.T_K, i == 0 ? shown(split.x_alpha) : 1 - shown(split.x_beta));
        }
        if (!series.spots.empty()) panel.series.push_back(std::move(series));
      }
    }
    for (std::size_t i = 0; i < 2; ++i) {
      Series measured{{},
                      "measured " + substances_[i].short_name(),
                      Stroke::none,
                      i == 0 ? Mark::circle : Mark::square,
                      static_cast<int>(i)};
      measured.in_key = true;
      for (const DataSet& data : options_.measured) {
        for (const DataPoint& point : data.points) {
          const double a = shown(point.x[0]), b = shown(point.y[0]);
          const double value = i == 0 ? std::min(a, b) : 1 - std::max(a, b);
          if (value > 0) add(measured, point.T_K, value);
        }
      }
      if (!measured.spots.empty()) panel.series.push_back(std::move(measured));
    }
    panel.x = rounded_axis("temperature / " + printed_unit(options_.units.temperature), low_, high_);
    panel.y = {fmt::format("{} fraction of the dissolved substance", word()),
               std::pow(10.0, std::floor(std::log10(least))), std::pow(10.0, std::ceil(std::log10(most))),
               true};
    return panel;
  }

 private:
  const char* word() const { return options_.basis == Basis::mole ? "mole" : "mass"; }
  std::string fraction_of(std::size_t i) const {
    return fmt::format("{} fraction of {}", word(), substances_[i].name);
  }
  double shown(double x1) const {
    const std::array<double, 2> x{x1, 1 - x1};
    return options_.basis == Basis::mole ? x1 : mass_fractions(x, substances_)[0];
  }
  double shown_T(double T_K) const {
    return from_si(T_K, options_.units.temperature, Dimension::temperature);
  }
  void see(double T) {
    low_ = std::min(low_, T);
    high_ = std::max(high_, T);
  }

  // The outlines of the gaps: up one side and down the other, one for each run of temperatures with a gap.
  std::vector<std::vector<Spot>> branches(const SolubilityCurve& curve) {
    std::vector<std::vector<Spot>> lines;
    std::vector<std::vector<Spot>> left, right;
    const auto finish = [&](const CriticalSolution* top) {
      for (std::size_t g = 0; g < left.size(); ++g) {
        if (left[g].empty()) continue;
        std::vector<Spot> line = left[g];
        if (top != nullptr && left.size() == 1) line.push_back({shown(top->x1), shown_T(top->T_K)});
        line.insert(line.end(), right[g].rbegin(), right[g].rend());
        lines.push_back(std::move(line));
      }
      left.clear();
      right.clear();
    };
    for (std::size_t k = 0; k < curve.drawn.size(); ++k) {
      const SolubilityPoint& point = curve.drawn[k];
      see(shown_T(point.T_K));
      const CriticalSolution* between = nullptr;  // a critical point passed since the last temperature
      for (const CriticalSolution& critical : curve.critical) {
        if (k > 0 && critical.T_K > curve.drawn[k - 1].T_K && critical.T_K <= point.T_K) between = &critical;
      }
      if (point.splits.size() != left.size())
        finish(between != nullptr && between->upper ? between : nullptr);
      if (left.empty()) {
        left.resize(point.splits.size());
        right.resize(point.splits.size());
        if (between != nullptr && !between->upper && left.size() == 1)
          left[0].push_back({shown(between->x1), shown_T(between->T_K)});
      }
      for (std::size_t g = 0; g < point.splits.size(); ++g) {
        left[g].push_back({shown(point.splits[g].x_alpha), shown_T(point.T_K)});
        right[g].push_back({shown(point.splits[g].x_beta), shown_T(point.T_K)});
      }
    }
    // A gap that goes on beyond the last temperature is open there: its sides are two lines.
    for (std::size_t g = 0; g < left.size(); ++g) {
      if (left[g].empty()) continue;
      const bool closed_below = left[g].size() > right[g].size();
      if (closed_below) {
        std::vector<Spot> line(right[g].rbegin(), right[g].rend());
        line.insert(line.end(), left[g].begin(), left[g].end());
        lines.push_back(std::move(line));
      } else {
        lines.push_back(left[g]);
        lines.push_back(right[g]);
      }
    }
    return lines;
  }

  const std::vector<Substance>& substances_;
  const SolubilityFigureOptions& options_;
  double low_ = HUGE_VAL, high_ = -HUGE_VAL;
};

}  // namespace

Figure solubility_figure(const std::vector<LabelledSolubility>& curves,
                         const std::vector<Substance>& substances, const SolubilityFigureOptions& options) {
  Drawer drawer(substances, options);
  Figure figure;
  figure.title = fmt::format("Mutual solubility of {} and {}", substances[0].name, substances[1].name);
  figure.panels.push_back(options.logarithmic ? drawer.dilute(curves) : drawer.dome(curves));
  return figure;
}

}  // namespace jampot
