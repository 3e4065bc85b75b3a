#pragma once
// MOSCED parameters of a substance that has none, from its limiting activity coefficients.
#include <array>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// A measured limit of the new substance in, or of, one whose MOSCED parameters are known.
struct MoscedPoint {
  Substance partner;      ///< the other substance
  bool as_solute = true;  ///< the new substance is the solute, else the solvent
  double T_K = 298.15;    ///< temperature, K
  double gamma = 1,       ///< limiting activity coefficient
      u_gamma = 0.05;     ///< its standard uncertainty
  int line = 0;           ///< line in the file; 0: none
};

/// MOSCED parameters of a substance fitted to limiting activity coefficients.
struct MoscedFit {
  MoscedParameters parameters;  ///< the constants
  /// Standard errors of lambda, tau, alpha and beta; from the scatter of the points.
  std::array<double, 4> std_error{};
  double rms_ln_gamma = 0;    ///< root mean square of ln gamma
  std::vector<double> model;  ///< gamma of each point
  Notices notices;            ///< what the reader must know
};

/// Least squares in ln gamma over lambda, tau, alpha and beta from many starts, all bounded below by zero; v
/// and q are given.
/// @param v_cm3_mol molar volume at 20 to 25 degC
/// @param q induction parameter: 1 for saturated molecules, 0.9 for aromatic ones
/// @throws CalculationError for fewer than five points, or a partner without MOSCED parameters
MoscedFit fit_mosced(const std::vector<MoscedPoint>& points, double v_cm3_mol, double q);

}  // namespace jampot
