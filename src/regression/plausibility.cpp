#include "jampot/regression/plausibility.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "quiet_solver.hpp"
#include "readings.hpp"

namespace jampot {
namespace {

// Points that count: with a vapour, not set aside.
std::vector<DataPoint> boiling_points(const DataSet& set) {
  std::vector<DataPoint> points;
  if (!vapour_liquid(set.kind)) return points;
  for (const DataPoint& point : set.points) {
    if (point.excluded.empty()) points.push_back(point);
  }
  return points;
}

// What is allowed beyond an ideal vapour and exact numbers, in ln P.
double tolerance(const Substance& substance, double P_Pa) {
  const double dense = std::min(0.5, 0.04 * P_Pa / 1e5);
  return (pairs_up(substance) ? 0.8 : 0.15) + dense;
}

struct Violation {
  double size = 0;  ///< in ln P
  std::size_t component = 0;
};

// How far a point is beyond what a stable liquid allows.
Violation violation(const DataPoint& point, const std::vector<Substance>& substances) {
  Violation worst;
  const auto take = [&](double size, std::size_t i) {
    if (size > worst.size) worst = {size, i};
  };
  constexpr double nearly_pure = 0.9;
  double sum = 0, most = 0;
  bool known = true;
  std::size_t lightest = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const auto& curve = substances[i].vapour_pressure;
    if (!curve) {
      known = known && substances[i].non_volatile;
      continue;
    }
    if (substances[i].Tc_K && point.T_K > *substances[i].Tc_K) return {};
    if (!(point.x[i] > 0)) continue;
    const double Psat = std::exp(std::clamp(curve->ln_P(point.T_K), -300.0, 300.0)),
                 allowed = tolerance(substances[i], point.P_Pa);
    sum += Psat;
    if (Psat > most) lightest = i, most = Psat;
    const bool analysed = !point.y.empty() && point.y[i] > 0;
    if (analysed) take(std::log(point.y[i] * point.P_Pa / Psat) - allowed, i);
    if (point.x[i] < nearly_pure) continue;
    const double least = point.x[i] * Psat / (analysed ? point.y[i] : 1);
    take(std::log(least / point.P_Pa) - allowed - 0.1, i);
  }
  if (known && sum > 0 && point.y.empty())
    take(std::log(point.P_Pa / sum) - tolerance(substances[lightest], point.P_Pa), lightest);
  return worst;
}

// Barker's method with a Redlich-Kister expansion of three terms: residuals of ln P, and of y.
class Expansion final : public ceres::CostFunction {
 public:
  static constexpr int terms = 3;

  Expansion(const std::vector<DataPoint>& points, const std::vector<Substance>& substances)
      : points_(points), substances_(substances) {
    mutable_parameter_block_sizes()->push_back(terms);
    set_num_residuals(2 * static_cast<int>(points.size()));
  }

  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override {
    const double* A = blocks[0];
    double* slopes = jacobians != nullptr ? jacobians[0] : nullptr;
    for (const DataPoint& point : points_) {
      const double x1 = point.x[0], x2 = point.x[1], d = x1 - x2;
      const std::array<double, terms> of_g1{x2 * x2, x2 * x2 * (d + 2 * x1), x2 * x2 * d * (d + 4 * x1)},
          of_g2{x1 * x1, x1 * x1 * (d - 2 * x2), x1 * x1 * d * (d - 4 * x2)};
      double g1 = 0, g2 = 0;
      for (std::size_t t = 0; t < terms; ++t) g1 += A[t] * of_g1[t], g2 += A[t] * of_g2[t];
      const auto partial = [&](std::size_t i, double ln_gamma) {
        const double ln_P = substances_[i].vapour_pressure->ln_P(point.T_K);
        return point.x[i] * std::exp(std::clamp(ln_gamma + ln_P, -300.0, 300.0));
      };
      const double p1 = partial(0, g1), p2 = partial(1, g2), P = std::max(p1 + p2, 1e-300);
      const double off = std::log(P / point.P_Pa), y1 = p1 / P, y2 = p2 / P;
      constexpr double most = 3, weight_of_y = 3;
      const bool counts = std::abs(off) < most, analysed = !point.y.empty();
      *residuals++ = std::clamp(off, -most, most);
      *residuals++ = analysed ? weight_of_y * (y1 - point.y[0]) : 0;
      if (slopes == nullptr) continue;
      for (std::size_t t = 0; t < terms; ++t) *slopes++ = counts ? y1 * of_g1[t] + y2 * of_g2[t] : 0;
      for (std::size_t t = 0; t < terms; ++t)
        *slopes++ = analysed ? weight_of_y * y1 * y2 * (of_g1[t] - of_g2[t]) : 0;
    }
    return true;
  }

 private:
  const std::vector<DataPoint>& points_;
  const std::vector<Substance>& substances_;
};

// Root mean square of these residuals; nothing where there are too few points to judge by.
std::optional<double> misfit(const std::vector<DataPoint>& points, const std::vector<Substance>& substances) {
  constexpr std::size_t fewest = 6;
  if (substances.size() != 2 || points.size() < fewest) return std::nullopt;
  for (const Substance& substance : substances) {
    if (!substance.vapour_pressure || pairs_up(substance)) return std::nullopt;
  }
  Expansion expansion(points, substances);
  std::array<double, Expansion::terms> A{};
  const auto sum = least_sum_of_squares(expansion, A.data(), quiet_options(100, 1e-12));
  if (!sum) return std::nullopt;
  return std::sqrt(*sum / static_cast<double>(points.size()));
}

struct Judgement {
  std::size_t impossible = 0;  ///< points
  double violation = 0;        ///< mean, in ln P
  std::optional<double> misfit;
  std::size_t component = 0;
  double worst = 0;

  double badness() const { return violation + misfit.value_or(0); }
};

Judgement judge(const std::vector<DataPoint>& points, const std::vector<Substance>& substances) {
  Judgement result;
  for (const DataPoint& point : points) {
    const Violation found = violation(point, substances);
    result.impossible += found.size > 0;
    result.violation += std::min(found.size, 10.0) / static_cast<double>(points.size());
    if (found.size > result.worst) result.worst = found.size, result.component = found.component;
  }
  result.misfit = misfit(points, substances);
  return result;
}

}  // namespace

Notices implausible(const DataSet& set) {
  demand_points(set);
  const std::vector<DataPoint> points = boiling_points(set);
  if (points.empty()) return {};
  const Judgement stated = judge(points, set.substances);
  constexpr double many = 0.3, suspicious = 0.08;
  const auto count = static_cast<double>(points.size());
  const bool impossible = static_cast<double>(stated.impossible) > many * count;
  if (!impossible && !(stated.misfit.value_or(0) > suspicious)) return {};
  const Reading* cause = nullptr;
  double best = (impossible ? 0.4 : 0.25) * stated.badness();
  const std::vector<Reading> all = readings(set.substances);
  for (const Reading& reading : all) {
    std::vector<DataPoint> read = points;
    if (!std::all_of(read.begin(), read.end(), reading.apply)) continue;
    const Judgement found = judge(read, set.substances);
    constexpr double few = 0.1, good = 0.12;
    if (static_cast<double>(found.impossible) > few * count || found.misfit.value_or(0) > good) continue;
    if (found.badness() < best) best = found.badness(), cause = &reading;
  }
  if (cause == nullptr && !impossible) return {};
  std::string text =
      impossible
          ? fmt::format(
                "the data of {} cannot be right as they are stated: at {} of {} points {} would have up to "
                "{:.3g} times the partial pressure that any stable liquid allows (or as much less, nearly "
                "pure). ",
                set.name, stated.impossible, points.size(), set.substances[stated.component].name,
                std::exp(std::min(stated.worst, 50.0)))
          : fmt::format(
                "the data of {} hang together badly as they are stated ({:.2f} in ln P by a flexible "
                "excess Gibbs energy). ",
                set.name, *stated.misfit);
  text +=
      cause != nullptr
          ? fmt::format(
                "Likely {}: read so, the data are in order. Correct the file before anything is "
                "fitted or compared",
                cause->cause)
          : "No exchange of units, components or columns that was tried repairs them; check temperatures, "
            "pressures and the names of the substances";
  Notices notices;
  notices.add("data-implausible", text);
  return notices;
}

}  // namespace jampot
