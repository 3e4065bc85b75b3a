#pragma once
// Activity coefficients as series: along a composition, at points, and at infinite dilution against T.
#include <string>
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// Activity coefficients and excess functions of one liquid.
struct GammaPoint {
  double T_K = 0;
  std::vector<double> x, ln_gamma;
  double gE_J_mol = 0;  ///< excess Gibbs energy
  double hE_J_mol = 0;  ///< excess enthalpy, from the temperature dependence (Gibbs-Helmholtz)
};

GammaPoint gamma_at(ActivityModel& model, double T_K, const std::vector<double>& x);

/// The whole composition line of a binary, from pure second to pure first component.
std::vector<GammaPoint> gamma_line(ActivityModel& model, double T_K, std::size_t points);

/// ln of the limiting activity coefficient of `solute` infinitely dilute in pure `solvent`.
double limiting_ln_gamma(ActivityModel& model, double T_K, std::size_t solute, std::size_t solvent);

}  // namespace jampot
