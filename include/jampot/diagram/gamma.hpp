#pragma once
// Activity coefficients as series: along a composition, at points, and at infinite dilution against T.
#include <string>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/measured/data_set.hpp"

namespace jampot {

/// Activity coefficients and excess functions of one liquid.
struct GammaPoint {
  double T_K = 0;         ///< temperature, K
  std::vector<double> x,  ///< mole fractions
      ln_gamma;           ///< ln of the activity coefficients
  double gE_J_mol = 0;    ///< excess Gibbs energy
  double hE_J_mol = 0;    ///< excess enthalpy, from the temperature dependence (Gibbs-Helmholtz)
};

GammaPoint gamma_at(ActivityModel& model, double T_K, const std::vector<double>& x);

/// The whole composition line of a binary, from pure second to pure first component.
std::vector<GammaPoint> gamma_line(ActivityModel& model, double T_K, std::size_t points);

/// ln of the limiting activity coefficient of `solute` infinitely dilute in pure `solvent`.
double limiting_ln_gamma(ActivityModel& model, double T_K, std::size_t solute, std::size_t solvent);

/// A measured activity coefficient beside the model's at the same temperature and composition.
struct MeasuredGamma {
  double T_K = 0;             ///< temperature, K
  std::vector<double> x;      ///< of a limit: the pure solvent
  std::size_t component = 0;  ///< whose activity coefficient it is
  double ln_gamma = 0,        ///< measured
      model = 0;              ///< of the model
  int line = 0;               ///< in its file; 0 where there is none
};

/// What measured data say of activity coefficients: limiting ones as they are; boiling points with their
/// vapours by an ideal vapour (`ln_gamma_of`), each component where it is there in both phases. Points that
/// are excluded, pure, or without a vapour say nothing.
/// @param data  its substances in the order of the model
std::vector<MeasuredGamma> measured_gammas(ActivityModel& model, const DataSet& data);

}  // namespace jampot
