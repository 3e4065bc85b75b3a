#pragma once
// Pair parameters fitted to measured data, by one or several models.
#include <optional>
#include <string>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/regression/ranking.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a fit is asked for.
struct RegressRequest {
  std::vector<DataSet> sets{};              ///< the sets of data
  FitOptions options{};                     ///< of one model `options.model` says which
  std::vector<std::string> models{"nrtl"};  ///< several are fitted and ranked
  int folds = 5;                            ///< of the cross validation where they are ranked, at least 2
  bool others_beside = false;  ///< of one model: fit the others too, to stand beside it in a report
};

/// The fitted binary at the mean pressure (isobaric data) or temperature of its first data set, with the
/// uncertainty that the fitted parameters give to each azeotrope.
struct FittedAzeotropes {
  BinaryCurve curve{};                                ///< diagram of the fitted model
  std::vector<AzeotropeUncertainty> uncertainties{};  ///< one for each azeotrope
  /// Of each, where it would go without one point: see azeotrope_shifts. Empty of heterogeneous ones.
  std::vector<std::vector<AzeotropeShift>> shifts{};
};
/// Nothing for other than two substances, or where no boiling point was fitted.
std::optional<FittedAzeotropes> fitted_azeotropes(const Fit& fit);

/// The one homogeneous azeotrope that all models see, averaged by their weights.
struct AveragedAzeotrope {
  double x1 = 0,   ///< mean over the models
      u_x1 = 0;    ///< the uncertainties hold those of the parameters and the spread between the models
  double T_K = 0,  ///< temperature, K
      u_T_K = 0,   ///< standard uncertainty of the temperature, K
      P_Pa = 0,    ///< pressure, Pa
      u_P_Pa = 0;  ///< of what was held the uncertainty is 0
  int models = 0;  ///< number of models that have it
};

/// The fits, the best first.
struct RegressStudy {
  std::vector<DataSet> sets{};                                ///< the data
  std::vector<RankedFit> fits{};                              ///< best first
  std::vector<std::optional<FittedAzeotropes>> azeotropes{};  ///< of each
  /// Of several models; nothing where some see no azeotrope or more than one.
  std::optional<AveragedAzeotrope> averaged{};
  std::vector<RankedFit> beside{};  ///< with the first the other models, where asked for
  Notices notices{};                ///< of the best fit

  /// The fit that ranks first.
  const Fit& best() const { return fits.front().fit; }
};

/// The substances of a fit with its model and parameters: what the diagrams of a fit are made from.
MixtureSpec mixture_of(const Fit& fit);

/// @throws RequestError for an unknown model, or terms held, released or tied in several models;
///         CalculationError where nothing can be fitted
RegressStudy study(const RegressRequest& request);

}  // namespace jampot
