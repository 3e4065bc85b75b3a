#include "jampot/regression/consistency.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/math/special_functions/legendre.hpp>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/incipient.hpp"

namespace jampot {
namespace {

// gE/(RT) = x1 x2 sum_k a_k L_k(x1 - x2), with its slope along x1.
struct Series {
  std::vector<double> a;
  double gE(double x1) const { return x1 * (1 - x1) * sum(x1); }
  double slope(double x1) const { return (1 - 2 * x1) * sum(x1) + x1 * (1 - x1) * dsum(x1); }

 private:
  double sum(double x1) const {
    double total = 0;
    for (std::size_t k = 0; k < a.size(); ++k)
      total += a[k] * boost::math::legendre_p(static_cast<int>(k), 2 * x1 - 1);
    return total;
  }
  double dsum(double x1) const {
    double total = 0;
    for (std::size_t k = 1; k < a.size(); ++k)
      total += 2 * a[k] * boost::math::legendre_p_prime(static_cast<int>(k), 2 * x1 - 1);
    return total;
  }
};

class Checker {
 public:
  explicit Checker(const DataSet& data) : data_(data), isothermal_(!isobaric(data.kind)) {
    if (data.substances.size() != 2) throw RequestError("consistency tests are for binaries");
    if (!vapour_liquid(data.kind) || !has_vapour(data.kind)) {
      throw RequestError(
          "consistency tests compare measured vapours with measured boiling points; these data have no "
          "vapour "
          "analyses");
    }
    for (const Substance& substance : data.substances) {
      if (!substance.vapour_pressure)
        throw CalculationError(fmt::format("{} has no vapour pressure", substance.name));
    }
    collect();
    if (result_.points.size() < 5) {
      throw CalculationError(fmt::format(
          "{} mixed points are too few for a test of consistency; five are needed", result_.points.size()));
    }
  }

  Consistency check() {
    area();
    fit();
    point();
    direct();
    end_points();
    std::sort(result_.points.begin(), result_.points.end(),
              [](const auto& a, const auto& b) { return a.x1 < b.x1; });
    result_.notices.add(
        "ideal-vapour",
        "the tests take the vapour as an ideal gas; associating vapours and pressures above a few bar "
        "make them fail whatever the data are worth");
    return std::move(result_);
  }

 private:
  void collect() {
    for (const DataPoint& point : data_.points) {
      if (point.is_pure() || !point.excluded.empty() || point.x[0] <= 0 || point.y[0] <= 0 || point.y[1] <= 0)
        continue;
      ConsistencyPoint row;
      row.x1 = point.x[0];
      row.T_K = point.T_K;
      row.P_Pa = point.P_Pa;
      row.ln_gamma_1 = ln_gamma_of(point, data_.substances, 0);
      row.ln_gamma_2 = ln_gamma_of(point, data_.substances, 1);
      row.gE = row.x1 * row.ln_gamma_1 + (1 - row.x1) * row.ln_gamma_2;
      result_.points.push_back(row);
      measured_.push_back(&point);
    }
  }

  void add(const std::string& name, double value, double limit, const std::string& unit, Verdict verdict,
           std::string meaning) {
    result_.tests.push_back({name, value, limit, unit, verdict, std::move(meaning)});
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
    const auto n = static_cast<Eigen::Index>(result_.points.size());
    const Eigen::Index terms = std::min<Eigen::Index>(4, n - 1);
    Eigen::MatrixXd A(n, terms);
    Eigen::VectorXd b(n);
    for (Eigen::Index r = 0; r < n; ++r) {
      const ConsistencyPoint& point = result_.points[static_cast<std::size_t>(r)];
      for (Eigen::Index k = 0; k < terms; ++k)
        A(r, k) = boost::math::legendre_p(static_cast<int>(k), 2 * point.x1 - 1);
      b[r] = point.ln_ratio();
    }
    const Eigen::VectorXd c = least_squares(A, b);
    // The signed area is the mean of the series, its first coefficient: a sum over the points with these
    // weights.
    const Eigen::VectorXd weights =
        solved_carefully(Eigen::MatrixXd(A.transpose() * A), Eigen::MatrixXd(A.transpose())).row(0);
    double variance = 0;
    for (Eigen::Index r = 0; r < n; ++r) {
      const double u = weights[r] * u_of_ratio(*measured_[static_cast<std::size_t>(r)]);
      variance += u * u;
    }
    double above = 0, below = 0;
    constexpr int steps = 400;
    for (int s = 0; s < steps; ++s) {
      const double x1 = (s + 0.5) / steps;
      double value = 0;
      for (Eigen::Index k = 0; k < terms; ++k)
        value += c[k] * boost::math::legendre_p(static_cast<int>(k), 2 * x1 - 1);
      (value > 0 ? above : below) += std::abs(value) / steps;
    }
    const double D = 100 * std::abs(above - below) / (above + below);
    const double u_D = 100 * std::sqrt(variance) / (above + below);
    double limit = 10;
    std::string how = "isothermal";
    if (!isothermal_) {
      double coldest = HUGE_VAL, hottest = 0;
      for (const DataPoint& point : data_.points) {
        coldest = std::min(coldest, point.T_K);
        hottest = std::max(hottest, point.T_K);
      }
      const double J = 150 * (hottest - coldest) / coldest;
      limit += J;
      how = fmt::format("isobaric, with the boiling-range correction J = {:.1f}", J);
    }
    double low = 1, high = 0;
    for (const ConsistencyPoint& point : result_.points) {
      low = std::min(low, point.x1);
      high = std::max(high, point.x1);
    }
    const bool covers = low < 0.15 && high > 0.85;
    const bool decided = std::abs(D - limit) > u_D;
    const Verdict verdict = !covers || !decided ? Verdict::cannot_tell
                            : D <= limit        ? Verdict::passed
                                                : Verdict::failed;
    add("area", D, limit, "%", verdict,
        covers && !decided ? fmt::format("the areas of ln(gamma1/gamma2) above and below zero differ by "
                                         "{:.1f} +- {:.1f} %: with the "
                                         "stated uncertainties the limit decides nothing",
                                         D, u_D)
        : covers
            ? fmt::format("the areas of ln(gamma1/gamma2) above and below zero differ by {:.1f} % ({}); the "
                          "test does not see errors of "
                          "the pressure, and errors may cancel",
                          D, how)
            : fmt::format(
                  "the points reach from x1 = {:.2f} to {:.2f} only; the area at the ends would be guessed",
                  low, high));
    result_.tests.back().u = u_D;
  }

  // gE from the boiling points alone: with gamma from the series, the sum of x gamma Psat is the pressure.
  // Gauss- Newton on ln P; as many terms as lower the Bayesian criterion.
  void fit() {
    std::vector<double> best;
    double least = HUGE_VAL;
    const std::size_t most = std::min<std::size_t>(5, result_.points.size() - 2);
    for (std::size_t terms = 1; terms <= most; ++terms) {
      std::vector<double> a(terms);
      double misfit = HUGE_VAL;
      for (int step = 0; step < 50; ++step) misfit = gauss_newton(a);
      const double n = static_cast<double>(result_.points.size());
      const double criterion =
          n * std::log(std::max(misfit, 1e-20) / n) + static_cast<double>(terms) * std::log(n);
      if (!(criterion < least)) continue;
      least = criterion;
      best = a;
    }
    result_.series = best;
    const Series series{best};
    for (std::size_t k = 0; k < result_.points.size(); ++k) {
      ConsistencyPoint& point = result_.points[k];
      point.gE_fit = series.gE(point.x1);
      point.ln_ratio_fit = series.slope(point.x1);
      const auto [P, y1] = bubble(series, point.x1, point.T_K);
      point.dy = y1 - measured_[k]->y[0];
    }
  }

  std::pair<double, double> bubble(const Series& series, double x1, double T_K) const {
    const double g = series.gE(x1), slope = series.slope(x1);
    const double first = x1 * std::exp(g + (1 - x1) * slope) * data_.substances[0].vapour_pressure->P_Pa(T_K);
    const double second =
        (1 - x1) * std::exp(g - x1 * slope) * data_.substances[1].vapour_pressure->P_Pa(T_K);
    return {first + second, first / (first + second)};
  }

  double gauss_newton(std::vector<double>& a) const {
    const auto n = static_cast<Eigen::Index>(result_.points.size()), m = static_cast<Eigen::Index>(a.size());
    Eigen::MatrixXd J(n, m);
    Eigen::VectorXd r(n);
    for (Eigen::Index row = 0; row < n; ++row) {
      const ConsistencyPoint& point = result_.points[static_cast<std::size_t>(row)];
      const Series series{a};
      const auto [P, y1] = bubble(series, point.x1, point.T_K);
      r[row] = std::log(point.P_Pa / P);
      for (Eigen::Index k = 0; k < m; ++k) {
        // ln gamma_i is linear in each coefficient: the one of a unit series is its derivative.
        Series unit{std::vector<double>(a.size())};
        unit.a[static_cast<std::size_t>(k)] = 1;
        const double g = unit.gE(point.x1), slope = unit.slope(point.x1);
        J(row, k) = y1 * (g + (1 - point.x1) * slope) + (1 - y1) * (g - point.x1 * slope);
      }
    }
    const Eigen::VectorXd step = least_squares(J, r);
    for (Eigen::Index k = 0; k < m; ++k) a[static_cast<std::size_t>(k)] += std::clamp(step[k], -1.0, 1.0);
    return r.squaredNorm();
  }

  void point() {
    double sum = 0, mean = 0;
    for (const ConsistencyPoint& row : result_.points) {
      sum += std::abs(row.dy);
      mean += row.dy;
    }
    const double n = static_cast<double>(result_.points.size()), value = sum / n;
    constexpr double limit = 0.01;
    add("point", value, limit, "mole fraction", value <= limit ? Verdict::passed : Verdict::failed,
        fmt::format("vapours calculated from the boiling points alone are off by {:.4f} on average ({:+.4f} "
                    "with sign){}",
                    value, mean / n,
                    std::abs(mean / n) > 0.7 * value && value > limit
                        ? "; they lie on one side, as with a biased analysis"
                        : ""));
  }

  void direct() {
    double sum = 0;
    for (const ConsistencyPoint& row : result_.points) sum += std::pow(row.ln_ratio_fit - row.ln_ratio(), 2);
    const double value = std::sqrt(sum / static_cast<double>(result_.points.size()));
    constexpr double limit = 0.10;
    const int index =
        value <= 0.025 ? 1 : std::min(10, 1 + static_cast<int>(std::ceil((value - 0.025) / 0.025)));
    add("direct", value, limit, "ln(gamma1/gamma2)", value <= limit ? Verdict::passed : Verdict::failed,
        fmt::format("ln(gamma1/gamma2) of the points differs from that of the fitted gE by {:.3f} (RMS), "
                    "index {} of 10{}",
                    value, index,
                    isothermal_ ? ""
                                : "; isobaric data lack the term of the excess enthalpy here, which counts "
                                  "where the boiling range is wide"));
  }

  void end_points() {
    double worst = 0;
    int count = 0;
    std::string which;
    for (const DataPoint& point : data_.points) {
      if (!point.is_pure() || !point.excluded.empty()) continue;
      const std::size_t i = point.x[0] == 1 ? 0 : 1;
      const double off = 100 * (point.P_Pa / data_.substances[i].vapour_pressure->P_Pa(point.T_K) - 1);
      ++count;
      if (std::abs(off) <= std::abs(worst)) continue;
      worst = off;
      which = data_.substances[i].name;
    }
    constexpr double limit = 1;
    if (count == 0) {
      add("end points", 0, limit, "% of P", Verdict::cannot_tell, "the pure substances were not measured");
      return;
    }
    add("end points", std::abs(worst), limit, "% of P",
        std::abs(worst) <= limit ? Verdict::passed : Verdict::failed,
        fmt::format("the measured pressure of a pure substance differs from the vapour pressure in use by at "
                    "most {:.2f} %{}",
                    std::abs(worst), which.empty() ? "" : " (" + which + ")"));
  }

  const DataSet& data_;
  bool isothermal_;
  std::vector<const DataPoint*> measured_;
  Consistency result_;
};

}  // namespace

std::string_view name_of(Verdict verdict) {
  switch (verdict) {
    case Verdict::passed:
      return "passed";
    case Verdict::failed:
      return "failed";
    case Verdict::cannot_tell:
      break;
  }
  return "cannot tell";
}

Consistency check_consistency(const DataSet& data) {
  demand_points(data);
  return Checker(data).check();
}

}  // namespace jampot
