#pragma once
// What the made-up measurements hide. The generator knows it, and the tests compare the fit with it; the demo
// does not.
#include <array>

#include "jampot/liquid/pair_parameters.hpp"

namespace hidden_truth {

inline jampot::PairParameters pair() {
  jampot::PairParameters pair;
  pair.model = "nrtl";
  pair.between = {"methyl tert-butyl ether", "methanol"};
  pair.terms["tau_12"].inverse_T = 236.0;
  pair.terms["tau_21"].inverse_T = 194.0;
  pair.terms["alpha"].constant = 0.3;
  pair.source = "made up";
  return pair;
}

inline constexpr std::array<double, 3> second_still{1.15, -0.25, 0.45};

// Standard uncertainties of the made-up measurements.
inline constexpr double u_T_K = 0.05, u_P_Pa = 50, u_x = 0.002, u_y = 0.004;

}  // namespace hidden_truth
