#pragma once
// Figures of activity coefficients.
#include <map>
#include <string>
#include <vector>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/draw/figure.hpp"

namespace jampot {

/// One model (or temperature) along the composition line.
struct GammaCurve {
  std::string label;               ///< "nrtl", "60 degC"; empty where there is only one
  std::vector<GammaPoint> points;  ///< along the composition
};

/// Activity coefficients of both components of a binary against composition, on a logarithmic axis where they
/// span more than a decade.
Panel gamma_panel(const std::vector<GammaCurve>& curves, const std::vector<Substance>& substances);

/// The same from the points of boiling curves.
Panel gamma_panel(const std::vector<BinaryCurve>& curves, const std::vector<std::string>& labels,
                  const std::vector<Substance>& substances);

/// One solute in one solvent against temperature.
struct LimitingCurve {
  std::string label;                              ///< solute and solvent
  std::vector<std::pair<double, double>> points;  ///< T in K, ln gamma
};
Panel limiting_panel(const std::vector<LimitingCurve>& curves, const DisplayUnits& units);

/// Lays measured activity coefficients, in the units of the axes and by what they are of, over a panel of the
/// above as open symbols; its axes grow to hold them.
void add_measured(Panel& panel, const std::map<std::string, std::vector<Spot>>& measured);

}  // namespace jampot
