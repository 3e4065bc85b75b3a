#pragma once
// All azeotropes of a mixture at one or several pressures.
#include <optional>
#include <string>
#include <vector>

#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What the search for azeotropes is asked for.
struct AzeotropesRequest {
  MixtureSpec mixture{};               ///< of two to five substances
  std::vector<MixtureSpec> compare{};  ///< further models, answered side by side
  std::vector<double> P_Pa{};          ///< at most 200
  bool uncertainty = false;            ///< what the covariance of fitted parameters means for each
  bool working = false;                ///< write out the first azeotrope
  Progress* progress = nullptr;        ///< told how far the search is; may be null
};

/// By one model at one pressure.
struct FoundAzeotropes {
  std::size_t contender = 0;                                        ///< number of the model that answers
  double P_Pa = 0;                                                  ///< pressure, Pa
  SingularPoints found{};                                           ///< pure components and azeotropes
  std::vector<std::optional<SingularUncertainty>> uncertainties{};  ///< as many as points, where asked for
};

/// An azeotrope followed between two of the pressures, for a smooth curve.
struct FollowedAzeotrope {
  std::size_t contender = 0;  ///< number of the model that answers
  double P_Pa = 0;            ///< pressure, Pa
  SingularPoint point{};      ///< where it is there
};

/// For each model one search at each pressure.
struct AzeotropesStudy {
  std::vector<Contender> contenders{};      ///< the models that answer, the first one asked for
  std::vector<double> P_Pa{};               ///< pressures searched, Pa
  bool uncertainty = false;                 ///< true where standard errors were asked for
  std::vector<FoundAzeotropes> searches{};  ///< one for each model and pressure
  /// Those that are found at two pressures in turn, between them; by pressure, of each model.
  std::vector<FollowedAzeotrope> between{};
  std::vector<std::string> working{};  ///< how the numbers came about, line by line
  Notices notices{};                   ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for too many substances or pressures; CalculationError as `singular_points`
AzeotropesStudy study(const AzeotropesRequest& request);

/// "ethanol + water", by short names.
std::string members_of(const SingularPoint& point, const std::vector<Substance>& substances);
/// "pure", "homogeneous" or "heterogeneous".
std::string kind_of(const SingularPoint& point);

}  // namespace jampot
