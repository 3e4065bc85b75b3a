#pragma once
// Pair parameters fitted to a prediction, or exactly to two limiting activity coefficients.
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "jampot/regression/estimate.hpp"
#include "jampot/regression/mosced_fit.hpp"

namespace jampot {

/// Two limits that a pair has to meet at a temperature.
struct LimitsToMeet {
  std::array<double, 2> ln_gamma{};  ///< the first in the second, the second in the first
  double T_K = 298.15;               ///< temperature, K
};

/// Which pairs are estimated, and from what.
struct EstimateRequest {
  std::vector<Substance> substances{};   ///< two or more: every pair of them
  EstimateOptions options{};             ///< what is fitted to what
  std::optional<LimitsToMeet> limits{};  ///< of one pair: instead of a prediction
};

/// One estimated pair.
struct EstimatedPair {
  std::size_t first = 0,  ///< number of the first component
      second = 0;         ///< number of the second component
  Estimate estimate{};    ///< of limits the pair alone
};

/// Estimated parameters of pairs.
struct EstimateStudy {
  std::vector<Substance> substances{};  ///< in the order of the components
  std::string model{};                  ///< of the parameters
  bool exact = false;                   ///< limits were met
  std::vector<EstimatedPair> pairs{};   ///< one for each pair
  Notices notices{};                    ///< what the reader must know
};

/// @throws RequestError for fewer than two substances, limits of more than one pair, or as `estimate_pair`
EstimateStudy study(const EstimateRequest& request);

/// MOSCED parameters of one new substance from its limits.
struct MoscedRequest {
  std::string name{};                 ///< of the substance
  std::vector<MoscedPoint> points{};  ///< measured limiting activity coefficients
  double v_cm3_mol = 0;               ///< molar volume
  double q = 1;                       ///< induction parameter
};

/// Constants of MOSCED of a substance.
struct MoscedStudy {
  std::string name{};                 ///< of the substance
  std::vector<MoscedPoint> points{};  ///< as they were given
  MoscedFit found{};                  ///< the constants
  Notices notices{};                  ///< what the reader must know
};

/// @throws as `fit_mosced`
MoscedStudy study(const MoscedRequest& request);

}  // namespace jampot
