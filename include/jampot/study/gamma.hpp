#pragma once
// Activity coefficients along a composition, at points, or at infinite dilution.
#include <memory>
#include <string>
#include <vector>

#include "jampot/diagram/gamma.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// MOSCED is no model of a whole composition; at infinite dilution it stands beside those that are.
enum class MoscedPlace {
  none,
  alone,  ///< nothing else is asked; the mixture's own model is not used
  first,
  last
};

/// What activity coefficients are asked for.
struct GammaRequest {
  MixtureSpec mixture{};
  std::vector<MixtureSpec> compare{};
  std::vector<double> T_K{};
  std::vector<std::vector<double>> compositions{};  ///< mole fractions; none: the whole line of a binary
  int points = 51;                                  ///< of that line, 3 to 100001
  bool limiting = false;                   ///< each substance infinitely dilute in each other, instead
  MoscedPlace mosced = MoscedPlace::none;  ///< of limiting ones
  std::vector<DataSet> measured{};         ///< boiling points with vapours; of limiting ones, limits
  bool working = false;                    ///< write out the calculation of the first point
};

/// One of the models.
struct GammaCandidate {
  std::string label{};
  MixtureSpec spec{};                      ///< settled
  std::shared_ptr<ActivityModel> model{};  ///< none: MOSCED
};

/// One solute in one solvent at one temperature, by each candidate.
struct LimitingGamma {
  std::size_t solute = 0, solvent = 0;
  double T_K = 0;
  std::vector<double> ln_gamma{};
};

/// The points of one candidate at one temperature.
struct GammaSeries {
  std::size_t candidate = 0;
  double T_K = 0;
  std::vector<GammaPoint> points{};
};

/// One measured set beside one candidate.
struct GammasBeside {
  std::string set{};
  std::size_t candidate = 0;
  std::vector<MeasuredGamma> points{};
  bool from_boiling = false;  ///< from vapours, as if these were ideal
};

/// Limits, or series of points, by each candidate.
struct GammaStudy {
  std::vector<GammaCandidate> candidates{};
  std::vector<double> T_K{};
  bool limiting = false, whole_line = false;
  std::vector<LimitingGamma> limits{};
  std::vector<GammaSeries> series{};
  std::vector<GammasBeside> beside{};
  std::vector<std::string> working{};
  Notices notices{};

  const std::vector<Substance>& substances() const { return candidates.front().spec.substances; }
  bool compared() const { return candidates.size() > 1; }
};

/// @throws RequestError for missing temperatures or compositions, MOSCED where it means nothing, or measured
/// sets that say nothing; CalculationError where a model cannot be made
GammaStudy study(const GammaRequest& request);

}  // namespace jampot
