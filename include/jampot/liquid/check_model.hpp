#pragma once
// Does a user-defined liquid model obey thermodynamics and its own derivatives?
#include <array>
#include <string>
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// Looks for faults at seeded random compositions and temperatures: ln gamma of a pure component that is not
/// zero, values that are not the same for amounts of another total, the Gibbs-Duhem equation, a matrix
/// dn that is not symmetric, dn, dT, the third derivative and the derivatives with terms against differences.
/// @returns a sentence for each kind of fault with the state where it is largest; empty: none was found
std::vector<std::string> check_model(const ActivityModel& model,
                                     std::array<double, 2> T_range_K = {290.0, 370.0});

}  // namespace jampot
