#pragma once
// The calculation of activity coefficients written out, as a careful engineer would check it by hand.
#include <string>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Lines of text: the equations of the model in symbols, then with the numbers put in, for one composition at
/// T_K. The last number of each component is its ln gamma as `evaluate` gives it.
std::vector<std::string> working(ActivityModel& model, const std::vector<Substance>& substances, double T_K,
                                 const std::vector<double>& x);

}  // namespace jampot
