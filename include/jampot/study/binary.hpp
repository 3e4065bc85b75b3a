#pragma once
// Boiling curves of two substances at one or several pressures or temperatures.
#include <string>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "jampot/study/held.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// What a boiling diagram is asked for.
struct BinaryRequest {
  MixtureSpec mixture{};               ///< of two substances, the one on the axis first
  std::vector<MixtureSpec> compare{};  ///< further models, answered side by side
  Held held{};                         ///< whether temperature or pressure is held, and its values
  int points = 101;                    ///< along the composition, 3 to 100001
  std::vector<DataSet> measured{};     ///< measured points
  bool uncertainty = false;  ///< what the covariance of fitted parameters means for the first model's curves
  bool working = false;      ///< write out the calculation of one point
};

/// The curves by each model.
struct BinaryStudy {
  Held held{};                           ///< whether temperature or pressure is held, and its values
  std::vector<Contender> contenders{};   ///< the models that answer, the first one asked for
  std::vector<BinaryCurve> curves{};     ///< for each model one at each held value; labelled where compared
  std::vector<UncertaintyBand> bands{};  ///< of the first model's curves, where asked for
  std::vector<DataSet> measured{};       ///< measured points
  /// Azeotropes that handbooks have at these pressures (within 5 %) or temperatures (1 K).
  std::vector<Azeotrope> handbook{};
  std::vector<MeasuredBeside> beside{};  ///< measured points with what each model says there
  std::vector<std::string> working{};    ///< how the numbers came about, line by line
  Notices notices{};                     ///< what the reader must know

  /// The mixture with its models.
  const Mixture& mixture() const { return contenders.front().mixture; }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for another number of substances or points, or a held value that is none;
///         CalculationError where there is no curve
BinaryStudy study(const BinaryRequest& request);

}  // namespace jampot
