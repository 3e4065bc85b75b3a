#include "jampot/regression/uncertainty.hpp"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <cmath>

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
  if (mixture.parameters().size() != 1 || mixture.parameters().front().covariance.empty()) {
    throw CalculationError(
        "the parameters in use carry no covariance, so no uncertainty can be drawn: use those that 'jampot "
        "regress --out' writes");
  }
  const PairParameters& pair = mixture.parameters().front();
  Mixture copy = mixture;
  Fitted fitted;
  for (const FittedCoefficient& coefficient : pair.fitted) {
    const auto terms = copy.activity().terms();
    for (std::size_t t = 0; t < terms.size(); ++t) {
      if (terms[t].name == coefficient.term) fitted.free.push_back({t, coefficient.coefficient, 1.0});
    }
  }
  const auto n = static_cast<Eigen::Index>(fitted.free.size());
  if (pair.covariance.size() != fitted.free.size() * fitted.free.size()) {
    throw CalculationError("the covariance of the parameters does not match their number");
  }
  fitted.covariance = Eigen::Map<const Eigen::MatrixXd>(pair.covariance.data(), n, n);
  return fitted;
}

double deviation(const Eigen::VectorXd& slope, const Eigen::MatrixXd& covariance) {
  return std::sqrt(std::max(0.0, slope.dot(covariance * slope)));
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

}  // namespace jampot
