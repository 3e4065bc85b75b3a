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
  MixtureSpec mixture{};                            ///< the mixture with its models
  std::vector<MixtureSpec> compare{};               ///< further models, answered side by side
  std::vector<double> T_K{};                        ///< temperatures, K
  std::vector<std::vector<double>> compositions{};  ///< mole fractions; none: the whole line of a binary
  int points = 51;                                  ///< of that line, 3 to 100001
  bool limiting = false;                   ///< each substance infinitely dilute in each other, instead
  MoscedPlace mosced = MoscedPlace::none;  ///< of limiting ones
  std::vector<DataSet> measured{};         ///< boiling points with vapours; of limiting ones, limits
  bool working = false;                    ///< write out the calculation of the first point
};

/// One of the models.
struct GammaCandidate {
  std::string label{};                     ///< what tells it from the others
  MixtureSpec spec{};                      ///< settled
  std::shared_ptr<ActivityModel> model{};  ///< none: MOSCED
};

/// One solute in one solvent at one temperature, by each candidate.
struct LimitingGamma {
  std::size_t solute = 0,          ///< number of the solute
      solvent = 0;                 ///< number of the solvent
  double T_K = 0;                  ///< temperature, K
  std::vector<double> ln_gamma{};  ///< of each candidate
};

/// The points of one candidate at one temperature.
struct GammaSeries {
  std::size_t candidate = 0;         ///< number of the model
  double T_K = 0;                    ///< temperature, K
  std::vector<GammaPoint> points{};  ///< along the composition
};

/// One measured set beside one candidate.
struct GammasBeside {
  std::string set{};                    ///< name of the set
  std::size_t candidate = 0;            ///< number of the model
  std::vector<MeasuredGamma> points{};  ///< in order
  bool from_boiling = false;            ///< from vapours, as if these were ideal
};

/// Limits, or series of points, by each candidate.
struct GammaStudy {
  std::vector<GammaCandidate> candidates{};  ///< the models
  std::vector<double> T_K{};                 ///< temperatures, K
  bool limiting = false,                     ///< true where limits were asked for
      whole_line = false;                    ///< true where no composition was given
  std::vector<LimitingGamma> limits{};       ///< one for each pair and temperature
  std::vector<GammaSeries> series{};         ///< one for each model and temperature
  std::vector<GammasBeside> beside{};        ///< measured points with what each model says there
  std::vector<std::string> working{};        ///< how the numbers came about, line by line
  Notices notices{};                         ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return candidates.front().spec.substances; }
  /// True where several models answer.
  bool compared() const { return candidates.size() > 1; }
};

/// @throws RequestError for missing temperatures or compositions, MOSCED where it means nothing, or measured
/// sets that say nothing; CalculationError where a model cannot be made
GammaStudy study(const GammaRequest& request);

}  // namespace jampot
