#include "jampot/regression/uncertainty.hpp"

#include <fmt/format.h>

#include <cmath>
#include <optional>

#include "../basis/dense.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "vle_residual.hpp"

namespace jampot {
namespace {

// The covariance as a matrix, and its parameters as coefficients of the model's terms.
struct Fitted {
  std::vector<FreeParameter> free;
  Eigen::MatrixXd covariance;
};

Fitted fitted_of(const Mixture& mixture) {
  const std::vector<PairParameters>& pairs = mixture.parameters();
  std::size_t count = 0;
  for (const PairParameters& pair : pairs) count += pair.fitted.size();
  bool missing = pairs.empty();
  for (const PairParameters& pair : pairs) missing = missing || pair.covariance.empty();
  if (missing) {
    throw CalculationError(
        "the parameters in use carry no covariance, or not all of them do, so no uncertainty can be drawn: "
        "use those that a fit writes (`out`)");
  }
  Mixture copy = mixture;
  const auto terms = copy.activity().terms();
  const std::size_t terms_a_pair = terms.size() / pairs.size();
  Fitted fitted;
  fitted.covariance =
      Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(count), static_cast<Eigen::Index>(count));
  struct Place {
    const PairParameters* pair;
    std::size_t row;  // within the pair
  };
  std::vector<Place> places;
  for (std::size_t p = 0; p < pairs.size(); ++p) {
    const std::size_t own = pairs[p].fitted.size();
    if (pairs[p].covariance.size() != own * own)
      throw CalculationError("the covariance of the parameters does not match their number");
    for (std::size_t k = 0; k < own; ++k) {
      places.push_back({&pairs[p], k});
      for (std::size_t t = p * terms_a_pair; t < (p + 1) * terms_a_pair; ++t) {
        if (terms[t].name == pairs[p].fitted[k].term)
          fitted.free.push_back({t, pairs[p].fitted[k].coefficient, 1.0});
      }
    }
  }
  for (std::size_t a = 0; a < places.size(); ++a) {
    for (std::size_t b = 0; b < places.size(); ++b) {
      const auto& [pair, row] = places[a];
      const auto& [other, column] = places[b];
      double value = 0;  // fitted apart from each other: independent
      if (pair == other) {
        value = pair->covariance[row * pair->fitted.size() + column];
      } else if (pair->joint_covariance && pair->joint_covariance == other->joint_covariance) {
        const auto all = static_cast<std::size_t>(
            std::lround(std::sqrt(static_cast<double>(pair->joint_covariance->size()))));
        value = (*pair->joint_covariance)[(pair->joint_row + row) * all + other->joint_row + column];
      }
      value *= pair->fitted[row].sign * other->fitted[column].sign;
      fitted.covariance(static_cast<Eigen::Index>(a), static_cast<Eigen::Index>(b)) = value;
    }
  }
  return fitted;
}

}  // namespace

UncertaintyBand uncertainty_band(const Mixture& mixture, const BinaryCurve& curve) {
  const Fitted fitted = fitted_of(mixture);
  FitContext context(mixture, fitted.free);
  const auto parameters = static_cast<Eigen::Index>(fitted.free.size());
  const bool T_sought = curve.sought == Sought::temperature;
  UncertaintyBand band;
  for (const BinaryPoint& point : curve.points) {
    BandPoint entry;
    BubbleDerivatives bubble;
    bubble.P_Pa = point.P_Pa;
    // A pure substance boils where it boils, whatever the pair.
    const bool pure = point.x[0] == 0 || point.x[0] == 1;
    if (!pure && bubble_with_derivatives(context, point.T_K, {point.x[0], point.x[1]}, true, bubble)) {
      const Eigen::Map<const Eigen::VectorXd> dln_P(bubble.dln_P_dp.data(), parameters);
      const Eigen::Map<const Eigen::VectorXd> dy(bubble.dy_dp.data(), parameters);  // of component 1
      if (T_sought) {  // at constant P: dT = -dln P / (dln P/dT)
        const Eigen::VectorXd dT = -dln_P / bubble.dln_P_dT;
        entry.u_T_K = deviation(dT, fitted.covariance);
        entry.u_y1 = deviation(dy + bubble.dy_dT[0] * dT, fitted.covariance);
      } else {
        entry.u_P_Pa = point.P_Pa * deviation(dln_P, fitted.covariance);
        entry.u_y1 = deviation(dy, fitted.covariance);
      }
    }
    band.points.push_back(entry);
  }
  Mixture copy = mixture;
  for (const Azeotrope& azeotrope : curve.azeotropes) {
    AzeotropeBand entry;
    if (!azeotrope.heterogeneous) {
      const AzeotropeSensitivity sensitivity = azeotrope_sensitivity(copy, curve.sought, azeotrope);
      Eigen::VectorXd dx(parameters), dheld(parameters);
      for (Eigen::Index p = 0; p < parameters; ++p) {
        const FreeParameter& free = fitted.free[static_cast<std::size_t>(p)];
        const double basis = TemperatureFunction::basis(free.coefficient, azeotrope.T_K);
        dx[p] = sensitivity.dx1[free.term] * basis;
        dheld[p] = sensitivity.dheld[free.term] * basis;
      }
      entry.u_x1 = deviation(dx, fitted.covariance);
      const double u = deviation(dheld, fitted.covariance);
      (T_sought ? entry.u_T_K : entry.u_P_Pa) = T_sought ? u : u * azeotrope.P_Pa;
    }
    band.azeotropes.push_back(entry);
  }
  return band;
}

namespace {

using Composition = std::array<double, 3>;

// How both ends of a tie line move with every fitted number while the feed in its middle stays: columns as
// `fitted`, rows alpha_1..3, beta_1..3.
Eigen::MatrixXd tie_line_slopes(ActivityModel& model, const Fitted& fitted, double T_K, const TieLine& line) {
  const std::size_t terms = model.terms().size();
  model.set_temperature(T_K);
  Eigen::Matrix<double, 6, 6> J = Eigen::Matrix<double, 6, 6>::Zero();  // amounts in alpha, then in beta
  Eigen::MatrixXd F(6, std::ssize(fitted.free));
  F.setZero();
  for (const Eigen::Index side : {0, 1}) {
    const Composition& x = side == 0 ? line.alpha : line.beta;
    const double sign = side == 0 ? 1 : -1;
    std::array<double, 3> ln_gamma{};
    std::array<double, 9> dn{};
    std::vector<double> slopes(3 * terms);
    model.evaluate(x, ln_gamma, {}, dn);
    model.term_derivatives(x, slopes);
    for (std::size_t i = 0; i < 3; ++i) {
      const auto row = static_cast<Eigen::Index>(i);
      for (std::size_t k = 0; k < 3; ++k) {
        const auto column = static_cast<Eigen::Index>(k) + 3 * side;
        // half a mole of each liquid
        J(row, column) = sign * 2 * ((i == k ? 1 / x[i] : 0) - 1 + dn[i * 3 + k]);
        if (i == k) J(row + 3, column) = 1;  // what one liquid loses the other gains
      }
      for (std::size_t p = 0; p < fitted.free.size(); ++p) {
        F(row, static_cast<Eigen::Index>(p)) += sign * slopes[i * terms + fitted.free[p].term] *
                                                TemperatureFunction::basis(fitted.free[p].coefficient, T_K);
      }
    }
  }
  const Eigen::MatrixXd dn = solved_carefully(J, Eigen::MatrixXd(-F));
  Eigen::MatrixXd dx(6, F.cols());
  for (const Eigen::Index side : {0, 1}) {
    const Composition& x = side == 0 ? line.alpha : line.beta;
    const Eigen::RowVectorXd total = dn.middleRows(3 * side, 3).colwise().sum();
    for (Eigen::Index i = 0; i < 3; ++i)
      dx.row(3 * side + i) = 2 * (dn.row(3 * side + i) - x[static_cast<std::size_t>(i)] * total);
  }
  return dx;
}

// A step across the binodal in the plane of the triangle, of length 1, or nothing where its direction is not
// known.
std::optional<Composition> across(const Composition& before, const Composition& after) {
  const Composition along{after[0] - before[0], after[1] - before[1], after[2] - before[2]};
  Composition normal{along[1] - along[2], along[2] - along[0], along[0] - along[1]};
  const double length = std::sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]);
  if (!(length > 0)) return std::nullopt;
  for (double& value : normal) value /= length;
  return normal;
}

}  // namespace

std::vector<TieLineUncertainty> tie_line_uncertainties(const Mixture& mixture, double T_K,
                                                       const std::vector<TieLine>& tie_lines) {
  const Fitted fitted = fitted_of(mixture);
  Mixture copy = mixture;
  std::vector<TieLineUncertainty> list(tie_lines.size());
  for (std::size_t k = 0; k < tie_lines.size(); ++k) {
    TieLine line = tie_lines[k];
    constexpr double trace = 1e-12,
                     shortest = 1e-4;  // close to a plait point the ends run away from each other
    if (line.length() < shortest) {
      if (k > 0) list[k] = list[k - 1];
      continue;
    }
    for (auto* x : {&line.alpha, &line.beta})
      for (double& value : *x) value = std::max(value, trace);
    const Eigen::MatrixXd dx = tie_line_slopes(copy.activity(), fitted, T_K, line);
    for (const Eigen::Index side : {0, 1}) {
      auto& u = side == 0 ? list[k].u_alpha : list[k].u_beta;
      for (Eigen::Index i = 0; i < 3; ++i)
        u[static_cast<std::size_t>(i)] = deviation(dx.row(3 * side + i).transpose(), fitted.covariance);
      const auto end = [&](std::size_t at) { return side == 0 ? tie_lines[at].alpha : tie_lines[at].beta; };
      const auto normal = across(end(k > 0 ? k - 1 : k), end(k + 1 < tie_lines.size() ? k + 1 : k));
      if (!normal) continue;
      Eigen::VectorXd step = Eigen::VectorXd::Zero(dx.cols());
      for (Eigen::Index i = 0; i < 3; ++i)
        step += (*normal)[static_cast<std::size_t>(i)] * dx.row(3 * side + i).transpose();
      const double size = deviation(step, fitted.covariance);
      auto& out = side == 0 ? list[k].across_alpha : list[k].across_beta;
      for (std::size_t i = 0; i < 3; ++i) out[i] = size * (*normal)[i];
    }
  }
  return list;
}

std::vector<std::optional<SingularUncertainty>> singular_uncertainties(
    const Mixture& mixture, double P_Pa, const std::vector<SingularPoint>& points) {
  const Fitted fitted = fitted_of(mixture);
  const auto parameters = std::ssize(fitted.free), n = std::ssize(mixture.substances());
  std::vector<Eigen::MatrixXd> slopes(points.size(), Eigen::MatrixXd::Zero(n + 1, parameters));
  std::vector<bool> survives(points.size(), true);
  for (Eigen::Index p = 0; p < parameters; ++p) {
    const FreeParameter& free = fitted.free[static_cast<std::size_t>(p)];
    constexpr double share = 0.1;
    const double step = share * std::sqrt(fitted.covariance(p, p));
    if (!(step > 0)) continue;
    for (const double sense : {-1.0, 1.0}) {
      Mixture moved = mixture;
      const double value = moved.activity().terms()[free.term].function[free.coefficient];
      moved.activity().set_coefficient(free.term, free.coefficient, value + sense * step);
      for (std::size_t k = 0; k < points.size(); ++k) {
        const auto there = same_azeotrope(moved, P_Pa, points[k]);
        survives[k] = survives[k] && there.has_value();
        if (!there) continue;
        for (Eigen::Index i = 0; i < n; ++i)
          slopes[k](i, p) += sense * there->x[static_cast<std::size_t>(i)] / (2 * step);
        slopes[k](n, p) += sense * there->T_K / (2 * step);
      }
    }
  }
  std::vector<std::optional<SingularUncertainty>> list(points.size());
  for (std::size_t k = 0; k < points.size(); ++k) {
    if (!survives[k]) continue;
    list[k].emplace();
    for (Eigen::Index i = 0; i < n; ++i)
      list[k]->u_x.push_back(deviation(slopes[k].row(i).transpose(), fitted.covariance));
    list[k]->u_T_K = deviation(slopes[k].row(n).transpose(), fitted.covariance);
  }
  return list;
}

}  // namespace jampot
