#pragma once
// Can the chosen models do the job? What an experienced colleague would say before looking at the diagram.
#include <optional>

#include "jampot/basis/notice.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

enum class Purpose { vapour_liquid, liquid_liquid };

/// Notices on using `mixture` between two temperatures, up to P_Pa where a vapour is involved:
/// - predicted-split, model-cannot-split: UNIFAC says that the liquid splits where the chosen model does not,
///   or cannot;
/// - not-ideal: an ideal liquid where the predicted limiting activity coefficients are far from 1;
/// - fitted-for-other-purpose: parameters of vapour-liquid data used for two liquids, or the reverse;
/// - doubtful-interactions: group interactions that only one transcription of the table supports;
/// - contradicted-interactions: group interactions that contradict what is known (grade D);
/// - tables-disagree: limiting activity coefficients of two UNIFAC tables that differ by more than e^4;
/// - unifac-range: a UNIFAC table outside the temperatures its authors state;
/// - non-ideal-vapour: the virial estimate of a vapour at P_Pa is far from an ideal gas.
Notices suitability(const Mixture& mixture, Purpose purpose, double Tmin_K, double Tmax_K,
                    std::optional<double> P_Pa = std::nullopt);

}  // namespace jampot
