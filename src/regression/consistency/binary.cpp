// Two substances.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../../basis/dense.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "series.hpp"
#include "tests.hpp"

namespace jampot::consistency {
namespace {

Verdict judged(double value, double limit) {
  return value <= limit ? Verdict::passed : Verdict::failed;
}

class BinaryChecker {
 public:
  BinaryChecker(const DataSet& data, const ConsistencyOptions& options)
      : data_(data),
        isothermal_(!isobaric(data.kind)),
        gamma_(data.substances, options.vapour),
        measured_(mixed_points(data)) {
    std::sort(measured_.begin(), measured_.end(),
              [](const DataPoint* a, const DataPoint* b) { return a->x[0] < b->x[0]; });
    for (const DataPoint* point : measured_) {
      const std::vector<double> ln_gamma = gamma_.ln_gamma(*point);
      ConsistencyPoint row{.x1 = point->x[0], .T_K = point->T_K, .P_Pa = point->P_Pa};
      row.ln_gamma_1 = ln_gamma[0];
      row.ln_gamma_2 = ln_gamma[1];
      row.gE = row.x1 * row.ln_gamma_1 + (1 - row.x1) * row.ln_gamma_2;
      result_.points.push_back(row);
    }
    result_.used = measured_.size();
    if (!isothermal_) add_heat(options.heat);
  }

  Consistency check() {
    area();
    fit_boiling();
    point();
    direct();
    dilute_ends();
    if (!isothermal_) boiling();
    result_.tests.push_back(end_points(data_, gamma_));
    return std::move(result_);
  }

 private:
  void add(ConsistencyTest test) { result_.tests.push_back(std::move(test)); }

  template <class Get>
  std::vector<double> all(const Get& get) const {
    std::vector<double> list;
    for (const ConsistencyPoint& point : result_.points) list.push_back(get(point));
    return list;
  }
  std::vector<double> x1() const {
    return all([](const ConsistencyPoint& point) { return point.x1; });
  }
  std::size_t order(std::size_t most) const { return std::min(most, result_.points.size() - 1); }

  // hE/(RT^2) dT/dx1 at each point, from the excess enthalpies of the same substances: the term of Gibbs and
  // Duhem where the temperature changes along x.
  void add_heat(const std::vector<DataSet>& heats) {
    std::vector<double> x, h, weight;
    for (const DataSet& given : heats) {
      if (given.substances.size() != 2) continue;
      const bool same = given.substances[0].name == data_.substances[0].name &&
                        given.substances[1].name == data_.substances[1].name;
      const bool turned = given.substances[0].name == data_.substances[1].name &&
                          given.substances[1].name == data_.substances[0].name;
      if (!same && !turned) continue;
      for (const DataPoint& point : given.points) {
        const double at = point.x[same ? 0 : 1];
        if (!point.used() || at <= 0 || at >= 1) continue;
        x.push_back(at);
        h.push_back(point.value / (at * (1 - at)));
        weight.push_back(at * (1 - at) / point.u_value);
      }
    }
    constexpr std::size_t least = 3;
    if (x.size() < least) return;
    const ExcessSeries heat{fit_series(x, h, weight, std::min<std::size_t>(4, x.size() - 1)).series};
    const std::vector<double> T = all([](const ConsistencyPoint& point) { return point.T_K; });
    const Legendre along = fit_series(x1(), T, std::vector<double>(T.size(), 1.0), order(6)).series;
    for (ConsistencyPoint& point : result_.points)
      point.heat = heat.gE(point.x1) / (gas_constant * point.T_K * point.T_K) * along.slope(point.x1);
    with_heat_ = true;
  }

  // Standard uncertainty of ln(gamma1/gamma2) = ln(y1 x2/(y2 x1)) - ln(Psat1/Psat2).
  double u_of_ratio(const DataPoint& point) const {
    const double slope = data_.substances[0].vapour_pressure->dln_P_dT(point.T_K) -
                         data_.substances[1].vapour_pressure->dln_P_dT(point.T_K);
    const double by_y = point.u_y / (point.y[0] * point.y[1]), by_x = point.u_x / (point.x[0] * point.x[1]);
    return std::hypot(by_y, by_x, slope * point.u_T_K);
  }

  // The area under a polynomial in x1 through ln(gamma1/gamma2), both signs apart.
  void area() {
    const std::size_t terms = order(4);
    const std::vector<double> x = x1(), even(x.size(), 1.0);
    const auto ratio = all([](const ConsistencyPoint& point) { return point.ln_ratio(); });
    const Legendre series = fit_series(x, ratio, even, terms).series;
    const Legendre heat =
        fit_series(x, all([](const ConsistencyPoint& point) { return point.heat; }), even, terms).series;
    // The signed area is the mean of the series, its first coefficient, which is linear in the points.
    double variance = 0;
    for (std::size_t r = 0; r < x.size(); ++r) {
      std::vector<double> one(x.size());
      one[r] = u_of_ratio(*measured_[r]);
      variance += std::pow(fit_series(x, one, even, terms).series.a[0], 2);
    }
    double above = 0, below = 0;
    constexpr int steps = 400;
    for (int s = 0; s < steps; ++s) {
      const double value = series.at((s + 0.5) / steps);
      (value > 0 ? above : below) += std::abs(value) / steps;
    }
    const double D = 100 * std::abs(above - below - heat.a[0]) / (above + below);
    ConsistencyTest test{.name = "area", .value = D, .limit = 10, .unit = "%"};
    test.u = 100 * std::sqrt(variance) / (above + below);
    std::string how =
        isothermal_ ? "isothermal" : "isobaric, less the area of the measured excess enthalpies";
    if (!isothermal_ && !with_heat_) {
      double coldest = HUGE_VAL, hottest = 0;
      for (const DataPoint& point : data_.points) {
        coldest = std::min(coldest, point.T_K);
        hottest = std::max(hottest, point.T_K);
      }
      const double J = 150 * (hottest - coldest) / coldest;
      test.limit += J;
      how = fmt::format("isobaric, with the boiling-range correction J = {:.1f}", J);
    }
    const bool covers = x.front() < 0.15 && x.back() > 0.85;
    const bool decided = std::abs(D - test.limit) > test.u;
    if (covers && decided) test.verdict = judged(D, test.limit);
    if (!covers)
      test.meaning =
          fmt::format("the points reach from x1 = {:.2f} to {:.2f} only; the area beyond them is unknown",
                      x.front(), x.back());
    else if (!decided)
      test.meaning = fmt::format(
          "the areas of ln(gamma1/gamma2) above and below zero differ by {:.1f} +- {:.1f} %: with the stated "
          "uncertainties the limit is not decisive",
          D, test.u);
    else
      test.meaning = fmt::format(
          "the areas of ln(gamma1/gamma2) above and below zero differ by {:.1f} % ({}); the test "
          "does not see errors of the pressure, and errors may cancel",
          D, how);
    if (!covers) test.u = 0;
    add(std::move(test));
  }

  MeasuredGamma::Bubble bubble(const ExcessSeries& series, const ConsistencyPoint& point) {
    return gamma_.bubble(point.T_K, {point.x1, 1 - point.x1},
                         {series.ln_gamma_1(point.x1), series.ln_gamma_2(point.x1)}, point.P_Pa);
  }

  // gE from the boiling points alone: the series whose boiling pressures are the measured ones. Gauss-Newton
  // on ln P; as many terms as lower the Bayesian criterion.
  void fit_boiling() {
    std::vector<double> best;
    double least = HUGE_VAL;
    const std::size_t most = std::min<std::size_t>(5, result_.points.size() - 2);
    const double n = static_cast<double>(result_.points.size());
    for (std::size_t terms = 1; terms <= most; ++terms) {
      std::vector<double> a(terms);
      double misfit = HUGE_VAL;
      constexpr int most_steps = 50;
      for (int step = 0; step < most_steps; ++step) {
        const double before = misfit;
        misfit = gauss_newton(a);
        if (std::abs(before - misfit) <= 1e-12 * misfit) break;
      }
      const double criterion =
          n * std::log(std::max(misfit, 1e-20) / n) + static_cast<double>(terms) * std::log(n);
      if (!(criterion < least)) continue;
      least = criterion;
      best = a;
    }
    result_.series = best;
    const ExcessSeries series{{best}};
    for (std::size_t k = 0; k < result_.points.size(); ++k) {
      ConsistencyPoint& point = result_.points[k];
      point.gE_fit = series.gE(point.x1);
      point.ln_ratio_fit = series.slope(point.x1);
      point.dy = bubble(series, point).y[0] - measured_[k]->y[0];
    }
  }

  double gauss_newton(std::vector<double>& a) {
    const auto n = static_cast<Eigen::Index>(result_.points.size()), m = static_cast<Eigen::Index>(a.size());
    Eigen::MatrixXd J(n, m);
    Eigen::VectorXd r(n);
    for (Eigen::Index row = 0; row < n; ++row) {
      const ConsistencyPoint& point = result_.points[static_cast<std::size_t>(row)];
      const auto [P_Pa, y] = bubble(ExcessSeries{{a}}, point);
      r[row] = std::log(point.P_Pa / P_Pa);
      for (Eigen::Index k = 0; k < m; ++k) {
        // ln gamma_i is linear in each coefficient: that of a unit series is its derivative.
        ExcessSeries unit{{std::vector<double>(a.size())}};
        unit.inner.a[static_cast<std::size_t>(k)] = 1;
        J(row, k) = y[0] * unit.ln_gamma_1(point.x1) + y[1] * unit.ln_gamma_2(point.x1);
      }
    }
    const Eigen::VectorXd step = least_squares(J, r);
    for (Eigen::Index k = 0; k < m; ++k) a[static_cast<std::size_t>(k)] += std::clamp(step[k], -1.0, 1.0);
    return r.squaredNorm();
  }

  void point() {
    double sum = 0, mean = 0;
    const double n = static_cast<double>(result_.points.size());
    for (const ConsistencyPoint& row : result_.points) {
      sum += std::abs(row.dy) / n;
      mean += row.dy / n;
    }
    ConsistencyTest test{.name = "point", .value = sum, .limit = 0.01, .unit = "mole fraction"};
    test.verdict = judged(sum, test.limit);
    test.meaning = fmt::format(
        "vapours calculated from the boiling points alone are off by {:.4f} on average ({:+.4f} with sign){}",
        sum, mean,
        std::abs(mean) > 0.7 * sum && sum > test.limit ? "; they have one sign, as with a biased analysis"
                                                       : "");
    add(std::move(test));
  }

  // A series through the measured gE, whose residuals scatter about zero, against the measured ratio.
  void direct() {
    std::vector<double> inner, weight;
    for (const ConsistencyPoint& row : result_.points) {
      const double both = row.x1 * (1 - row.x1);
      inner.push_back(row.gE / both);
      weight.push_back(both);
    }
    const ExcessSeries series{fit_series(x1(), inner, weight, order(5)).series};
    double square = 0;
    for (const ConsistencyPoint& row : result_.points)
      square += std::pow(series.slope(row.x1) + row.heat - row.ln_ratio(), 2);
    ConsistencyTest test{.name = "direct", .limit = 0.10, .unit = "ln(gamma1/gamma2)"};
    test.value = std::sqrt(square / static_cast<double>(result_.points.size()));
    test.verdict = judged(test.value, test.limit);
    constexpr double grade = 0.025;
    const int index =
        test.value <= grade ? 1 : std::min(10, 1 + static_cast<int>(std::ceil((test.value - grade) / grade)));
    test.meaning = fmt::format(
        "ln(gamma1/gamma2) of the points differs from that of a series through their gE by {:.3f} (RMS), "
        "index "
        "{} of 10{}",
        test.value, index,
        isothermal_  ? ""
        : with_heat_ ? "; with the measured excess enthalpies"
                     : "; isobaric data lack the term of the excess enthalpy here, which matters where the "
                       "boiling range is wide: add a file of excess enthalpies");
    add(std::move(test));
  }

  void dilute_ends() {
    const std::vector<double> x = x1();
    std::vector<double> weight, inner, ratio;
    for (const ConsistencyPoint& row : result_.points) {
      const double both = row.x1 * (1 - row.x1);
      weight.push_back(both);
      inner.push_back(row.gE / both);
      ratio.push_back(row.ln_ratio() - row.heat);
    }
    const std::size_t terms = order(4);
    const SeriesFit first = fit_series(x, inner, weight, terms), second = fit_series(x, ratio, weight, terms);
    ConsistencyTest test{.name = "infinite dilution", .limit = 30, .unit = "%"};
    std::string where;
    for (const double end : {0.0, 1.0}) {
      const double a = first.series.at(end), b = second.series.at(end) * (end == 0 ? 1 : -1);
      const double off = 100 * std::abs(a - b) / std::abs(b);
      if (off < test.value) continue;
      test.value = off;
      // Of the ratio a/b, to first order.
      test.u = 100 * std::hypot(first.u(end) / b, second.u(end) * a / (b * b));
      where = data_.substances[end == 0 ? 0 : 1].name;
    }
    const bool covers = x.front() < 0.15 && x.back() > 0.85;
    const bool decided = std::abs(test.value - test.limit) > test.u;
    if (covers && decided) test.verdict = judged(test.value, test.limit);
    test.meaning = !covers
                       ? fmt::format("the points reach from x1 = {:.2f} to {:.2f} only", x.front(), x.back())
                       : fmt::format(
                             "extrapolated to infinitely dilute {}, gE and ln(gamma1/gamma2) differ by "
                             "{:.0f} +- {:.0f} %{}",
                             where, test.value, test.u, decided ? "" : ": the limit is not decisive");
    if (!covers) test.u = 0;
    add(std::move(test));
  }

  // How far the mixture boils below the mean of the pure boiling points, by T and by the activity
  // coefficients.
  void boiling() {
    double P_Pa = 0, L = 0, W = 0;
    for (const ConsistencyPoint& row : result_.points)
      P_Pa += row.P_Pa / static_cast<double>(result_.points.size());
    double T[2], entropy[2];
    for (std::size_t i = 0; i < 2; ++i) {
      const auto& vapour = *data_.substances[i].vapour_pressure;
      T[i] = vapour.T_K(P_Pa);
      entropy[i] = gas_constant * T[i] * vapour.dln_P_dT(T[i]);  // of vaporisation, the vapour ideal
    }
    const std::vector<double> x = x1();
    std::vector<double> by_T, by_gamma;
    for (std::size_t k = 0; k < x.size(); ++k) {
      const ConsistencyPoint& row = result_.points[k];
      const double first = row.x1, second = 1 - row.x1, sum = first * entropy[0] + second * entropy[1];
      by_T.push_back((first * T[0] * entropy[0] + second * T[1] * entropy[1]) / sum - row.T_K);
      const double mixing =
          first * std::log(measured_[k]->y[0] / first) + second * std::log(measured_[k]->y[1] / second);
      by_gamma.push_back(gas_constant * row.T_K / sum * (row.gE - mixing));
    }
    for (std::size_t k = 1; k < x.size(); ++k) {
      L += (x[k] - x[k - 1]) * (by_T[k] + by_T[k - 1]) / 2;
      W += (x[k] - x[k - 1]) * (by_gamma[k] + by_gamma[k - 1]) / 2;
    }
    ConsistencyTest test{.name = "L-W", .limit = 5, .unit = "%"};
    test.value = 100 * std::abs(L - W) / (std::abs(L) + std::abs(W));
    test.verdict = judged(test.value, test.limit);
    test.meaning = fmt::format(
        "the mixture boils {:.2f} K below the mean of the pure ones by its temperatures and {:.2f} K by its "
        "activity coefficients (means); tests vapour pressures and boiling points, hardly the vapour "
        "compositions",
        L / (x.back() - x.front()), W / (x.back() - x.front()));
    add(std::move(test));
  }

  const DataSet& data_;
  bool isothermal_, with_heat_ = false;
  MeasuredGamma gamma_;
  std::vector<const DataPoint*> measured_;
  Consistency result_;
};

}  // namespace

Consistency check_binary(const DataSet& data, const ConsistencyOptions& options) {
  return BinaryChecker(data, options).check();
}

}  // namespace jampot::consistency
