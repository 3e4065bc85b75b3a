#pragma once
// Activity coefficients of measured points, and boiling points of activity coefficients, with any vapour.
#include <vector>

#include "jampot/measured/data_set.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot::consistency {

class MeasuredGamma {
 public:
  /// @throws CalculationError for a substance without a vapour pressure, or without what the vapour needs
  MeasuredGamma(const std::vector<Substance>& substances, const VapourChoice& vapour);

  /// ln gamma_i of a point with an analysed vapour; 0 of a component that is not there.
  std::vector<double> ln_gamma(const DataPoint& point);

  struct Bubble {
    double P_Pa = 0;
    std::vector<double> y;
  };
  /// The vapour above a liquid with these activity coefficients. @param near  where to start
  Bubble bubble(double T_K, const std::vector<double>& x, const std::vector<double>& ln_gamma,
                double near_Pa);

  /// The pressure of a pure substance.
  double saturation_Pa(std::size_t i, double T_K) const { return substances_[i].vapour_pressure->P_Pa(T_K); }

 private:
  std::vector<Substance> substances_;
  Mixture mixture_;  ///< with an ideal liquid
  PhaseValues liquid_, vapour_;
};

}  // namespace jampot::consistency
