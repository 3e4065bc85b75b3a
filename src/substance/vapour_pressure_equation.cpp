#include "jampot/substance/vapour_pressure_equation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <numbers>
#include <regex>

#include "../basis/dense.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

double number(const std::string& text, std::string_view whole) {
  const auto value = parse_number(text);
  if (!value) throw RequestError(fmt::format("'{}': '{}' is not a number", whole, text));
  return *value;
}

std::size_t temperatures(const std::vector<VapourPressurePoint>& points) {
  std::vector<double> T;
  for (const VapourPressurePoint& point : points) T.push_back(point.T_K);
  std::sort(T.begin(), T.end());
  const auto same = [](double a, double b) { return std::abs(a - b) < 0.01; };
  return static_cast<std::size_t>(std::unique(T.begin(), T.end(), same) - T.begin());
}

[[noreturn]] void does_not_rise() {
  throw CalculationError(
      "the vapour pressure through these points does not rise with temperature everywhere; check their units "
      "and that pressure and temperature belong together");
}

}  // namespace

VapourPressure::Coefficients parse_vapour_pressure_equation(std::string_view text) {
  const std::string written(trimmed(text));
  static const std::string decimal = R"(([-+]?[0-9]*\.?[0-9]+(?:[eE][-+]?[0-9]+)?))";
  static const std::regex pattern(R"(^(log10|lg|log|ln)\s*\(?\s*P\s*/\s*([A-Za-z]+)\s*\)?\s*=\s*)" + decimal +
                                  R"(\s*-\s*)" + decimal + R"(\s*/\s*\(\s*T\s*/\s*([A-Za-z]+)\s*([-+])\s*)" +
                                  decimal + R"(\s*\)\s*(?:,\s*(.+))?$)");
  std::smatch found;
  if (!std::regex_match(written, found, pattern)) {
    throw RequestError(
        fmt::format("'{}': expected the printed equation with its units, as in \"log10(P/mmHg) = 8.07131 - "
                    "1730.63/(T/degC + 233.426), 1 to 100 degC\"",
                    text));
  }
  const double ln_to_log10 = found[1] == "ln" ? 1 / std::numbers::ln10 : 1;
  double A = number(found[3], text) * ln_to_log10, B = number(found[4], text) * ln_to_log10;
  double C = number(found[7], text) * (found[6] == "-" ? -1 : 1);
  A += std::log10(to_si(1, found[2].str(), Dimension::pressure) / mmHg);
  // T = (T_C + offset)/degree in the unit of the print, so B/(T + C) = degree B/(T_C + offset + degree C).
  const std::string unit = found[5];
  const double degree = difference_to_si(1, unit, Dimension::temperature);
  const double zero_C = to_si(0, unit, Dimension::temperature) - celsius_zero;
  B *= degree;
  C = degree * C - zero_C;
  double low = 0, high = 0;
  if (found[8].matched) {
    const std::string range = found[8];
    const std::size_t to = range.find(" to ");
    if (to == std::string::npos) {
      throw RequestError(fmt::format("'{}': expected a range such as \"1 to 100 degC\"", range));
    }
    const auto ends = parse_quantities(range + " in 2", Dimension::temperature);
    low = std::min(ends.front(), ends.back());
    high = std::max(ends.front(), ends.back());
  } else {
    // Without a printed range: where the pressure is between 1 and 200 kPa, as most such equations are
    // fitted.
    const auto boils_at = [&](double P_Pa) { return B / (A - std::log10(P_Pa / mmHg)) - C + celsius_zero; };
    low = boils_at(1e3);
    high = boils_at(2e5);
  }
  if (!(B > 0) || !(low > 0) || !(high > low) || !(low - celsius_zero + C > 0)) {
    throw RequestError(
        fmt::format("'{}': this does not rise with temperature between {:.1f} and {:.1f} K; check the "
                    "logarithm, the units and the signs",
                    text, low, high));
  }
  return {A, B, C, low, high};
}

VapourPressure::Coefficients fit_antoine(const std::vector<VapourPressurePoint>& points) {
  const std::size_t different = temperatures(points);
  if (different < 2) {
    throw CalculationError(
        "a vapour pressure through points needs two of them at different temperatures where the critical "
        "point "
        "is not known");
  }
  const auto n = static_cast<Eigen::Index>(points.size());
  Eigen::VectorXd T(n), y(n);
  for (Eigen::Index k = 0; k < n; ++k) {
    T[k] = points[static_cast<std::size_t>(k)].T_K;
    y[k] = std::log(points[static_cast<std::size_t>(k)].P_Pa);
  }
  // A straight line in 1/T first; then, with a third coefficient, ln P = a - b/(T + c) from
  // T ln P = a T + (a c - b) - c ln P, which is linear, and Gauss-Newton steps on ln P itself.
  Eigen::MatrixXd lines(n, 2);
  lines << Eigen::VectorXd::Ones(n), -T.cwiseInverse();
  const Eigen::Vector2d line = least_squares(lines, y);
  Eigen::Vector3d abc(line[0], line[1], 0);
  if (different >= 3) {
    Eigen::MatrixXd linear(n, 3);
    linear << T, Eigen::VectorXd::Ones(n), -y;
    const Eigen::Vector3d start = least_squares(linear, T.cwiseProduct(y));
    abc = {start[0], start[0] * start[2] - start[1], start[2]};
    for (int step = 0; step < 20; ++step) {
      const Eigen::ArrayXd inverse = (T.array() + abc[2]).inverse();
      Eigen::MatrixXd slope(n, 3);
      slope << Eigen::VectorXd::Ones(n), -inverse.matrix(), (abc[1] * inverse.square()).matrix();
      const Eigen::VectorXd residual = y - (abc[0] - abc[1] * inverse).matrix();
      abc += least_squares(slope, residual);
    }
    // Points that curve the wrong way or lie too close together do not carry a third coefficient.
    const bool sound =
        abc.allFinite() && abc[1] > 0 && abc[2] <= 0 && T.minCoeff() + abc[2] > 0.3 * T.minCoeff();
    if (!sound) abc = {line[0], line[1], 0};
  }
  if (!(abc[1] > 0)) does_not_rise();
  constexpr double ln10 = std::numbers::ln10;
  return {(abc[0] - std::log(mmHg)) / ln10, abc[1] / ln10, abc[2] + celsius_zero, T.minCoeff(), T.maxCoeff()};
}

CorrespondingStates fit_corresponding_states(const std::vector<VapourPressurePoint>& points, double Tc_K,
                                             double Pc_Pa) {
  if (points.empty()) throw CalculationError("there is no vapour-pressure point");
  // The acentric factor through the point nearest to one atmosphere.
  const auto far = [](const VapourPressurePoint& point) {
    return std::abs(std::log(point.P_Pa / standard_atmosphere));
  };
  const VapourPressurePoint& nearest = *std::min_element(
      points.begin(), points.end(), [&](const auto& a, const auto& b) { return far(a) < far(b); });
  for (const VapourPressurePoint& point : points) {
    if (point.T_K >= Tc_K || point.P_Pa >= Pc_Pa) {
      throw RequestError(
          fmt::format("the vapour-pressure point at {:.2f} K and {:.4g} Pa lies beyond the critical "
                      "point, {:.1f} K and {:.4g} Pa",
                      point.T_K, point.P_Pa, Tc_K, Pc_Pa));
    }
  }
  const double omega = CorrespondingStates::acentric_factor(nearest.T_K, Tc_K, Pc_Pa, nearest.P_Pa);
  CorrespondingStates curve({Tc_K, Pc_Pa, omega});
  if (temperatures(points) >= 2) {
    const auto n = static_cast<Eigen::Index>(points.size());
    Eigen::MatrixXd terms(n, 2);
    Eigen::VectorXd missing(n);
    for (Eigen::Index k = 0; k < n; ++k) {
      const VapourPressurePoint& point = points[static_cast<std::size_t>(k)];
      const double Tr = point.T_K / Tc_K, tau = 1 - Tr;
      terms.row(k) << tau / Tr, tau * tau / Tr;
      missing[k] = std::log(point.P_Pa) - curve.ln_P(point.T_K);
    }
    const Eigen::Vector2d c = least_squares(terms, missing);
    curve = curve.with_terms(c[0], c[1]);
  }
  double lowest = Tc_K;
  for (const VapourPressurePoint& point : points) lowest = std::min(lowest, point.T_K);
  for (int k = 0; k <= 100; ++k) {
    if (!(curve.dln_P_dT(lowest + (Tc_K - lowest) * k / 100) > 0)) does_not_rise();
  }
  return curve;
}

}  // namespace jampot
