#pragma once
// What the studies of two liquids share.
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// The mixtures of a study of two liquids. @throws CalculationError for a model that cannot describe two
/// liquids at all
std::vector<Contender> liquid_contenders(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                         Notices& notices);

/// What is doubtful about using these mixtures for two liquids.
void add_liquid_notices(const std::vector<Contender>& contenders, double Tmin_K, double Tmax_K,
                        Notices& notices);

}  // namespace jampot
