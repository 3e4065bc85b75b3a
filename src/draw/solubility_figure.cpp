#include "jampot/draw/solubility_figure.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "jampot/draw/looks.hpp"

namespace jampot {
namespace {

class SolubilityDrawer {
 public:
  SolubilityDrawer(const std::vector<Substance>& substances, const SolubilityFigureOptions& options)
      : substances_(substances), options_(options) {}

  // Temperature over composition: the dome of two liquids.
  Panel dome(const std::vector<LabelledSolubility>& curves) {
    Panel panel;
    for (std::size_t k = 0; k < curves.size(); ++k) {
      const auto& [label, curve] = curves[k];
      bool named = false;
      for (const Gap& gap : gaps(curve)) {
        if (k == 0) panel.areas.push_back(area(gap, 0));
        for (auto& side : sides(gap)) {
          panel.series.push_back({std::move(side), named ? "" : label,
                                  k % 2 == 0 ? Stroke::solid : Stroke::dashed, Mark::none,
                                  static_cast<int>(k)});
          named = true;
        }
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
    Series measured = measured_symbols();
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
          add(series, point.T_K, i == 0 ? shown(split.x1_alpha) : 1 - shown(split.x1_beta));
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
    panel.y = logarithmic_axis(fmt::format("{} fraction of the dissolved substance", word()), least, most);
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

  // One run of temperatures with a gap: its two sides, and the critical points in which they meet.
  struct Gap {
    std::vector<Spot> left, right;  // by rising temperature
    std::optional<Spot> bottom, top;
  };

  std::vector<Gap> gaps(const SolubilityCurve& curve) {
    std::vector<Gap> finished, open;
    const auto at = [&](const CriticalSolution& critical) {
      return Spot{shown(critical.x1), shown_T(critical.T_K)};
    };
    for (std::size_t k = 0; k < curve.drawn.size(); ++k) {
      const SolubilityPoint& point = curve.drawn[k];
      see(shown_T(point.T_K));
      const CriticalSolution* passed = nullptr;  // a critical point since the last temperature
      for (const CriticalSolution& critical : curve.critical) {
        if (k > 0 && critical.T_K > curve.drawn[k - 1].T_K && critical.T_K <= point.T_K) passed = &critical;
      }
      if (point.splits.size() != open.size()) {
        if (passed != nullptr && passed->upper && open.size() == 1) open[0].top = at(*passed);
        finished.insert(finished.end(), open.begin(), open.end());
        open.assign(point.splits.size(), {});
        if (passed != nullptr && !passed->upper && open.size() == 1) open[0].bottom = at(*passed);
      }
      for (std::size_t g = 0; g < open.size(); ++g) {
        open[g].left.push_back({shown(point.splits[g].x1_alpha), shown_T(point.T_K)});
        open[g].right.push_back({shown(point.splits[g].x1_beta), shown_T(point.T_K)});
      }
    }
    finished.insert(finished.end(), open.begin(), open.end());
    return finished;
  }

  // The sides as lines: joined where a critical point joins them.
  static std::vector<std::vector<Spot>> sides(const Gap& gap) {
    std::vector<Spot> left = gap.left, right = gap.right;
    if (gap.bottom) left.insert(left.begin(), *gap.bottom);
    if (gap.bottom) right.insert(right.begin(), *gap.bottom);
    if (gap.top) left.push_back(*gap.top);
    if (gap.top) right.push_back(*gap.top);
    if (!gap.top) return {left, right};
    left.insert(left.end(), right.rbegin(), right.rend());
    return {left};
  }

  static Area area(const Gap& gap, int colour) {
    Area area{gap.left, colour};
    if (gap.bottom) area.outline.insert(area.outline.begin(), *gap.bottom);
    if (gap.top) area.outline.push_back(*gap.top);
    area.outline.insert(area.outline.end(), gap.right.rbegin(), gap.right.rend());
    return area;
  }

  const std::vector<Substance>& substances_;
  const SolubilityFigureOptions& options_;
  double low_ = HUGE_VAL, high_ = -HUGE_VAL;
};

}  // namespace

Figure solubility_figure(const std::vector<LabelledSolubility>& curves,
                         const std::vector<Substance>& substances, const SolubilityFigureOptions& options) {
  SolubilityDrawer drawer(substances, options);
  Figure figure;
  figure.title = fmt::format("Mutual solubility of {} and {}", substances[0].name, substances[1].name);
  figure.panels.push_back(options.logarithmic ? drawer.dilute(curves) : drawer.dome(curves));
  return figure;
}

}  // namespace jampot
