#pragma once
// Bubble and dew points of a mixture of any number of substances.
#include <optional>
#include <string>
#include <vector>

#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/study/held.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// Of three substances: the fraction of one held, the other two varied from the one to the other.
struct Slice {
  std::size_t component = 0;  ///< number of the one whose fraction is held
  double fraction = 0;        ///< its mole fraction
  int points = 21;            ///< number of points
  Basis basis = Basis::mole;  ///< of the fractions
};

/// The compositions of a slice, in mole fractions.
/// @throws RequestError unless there are three substances, 0 <= fraction < 1 and 3 to 10001 points
std::vector<std::vector<double>> compositions_of(const Slice& slice,
                                                 const std::vector<Substance>& substances);

/// What bubble and dew points are asked for: each composition at each held value, those of the slice behind
/// the others. Without compositions the measured points bring their own states.
struct PointsRequest {
  MixtureSpec mixture{};               ///< the mixture with its models
  std::vector<MixtureSpec> compare{};  ///< further models, answered side by side
  Held held{};                         ///< whether temperature or pressure is held, and its values
  std::vector<std::vector<double>> compositions{};  ///< mole fractions, of the liquid or of the vapour
  std::optional<Slice> slice{};                     ///< instead of single compositions
  std::vector<DataSet> measured{};                  ///< measured points
  bool working = false;                             ///< write out the calculation of the first point
};
/// Where liquids begin to boil.
struct BubbleRequest : PointsRequest {};
/// Where vapours begin to condense. Measured sets are not used.
struct DewRequest : PointsRequest {};

/// The points by each model.
struct PointsStudy {
  bool bubble = true;                           ///< else dew
  std::vector<Contender> contenders{};          ///< the models that answer, the first one asked for
  std::vector<std::vector<VlePoint>> points{};  ///< by each of them
  std::optional<Slice> slice{};                 ///< as asked
  Sought sought = Sought::temperature;          ///< temperature or pressure
  std::vector<DataSet> measured{};              ///< measured points
  std::vector<MeasuredBeside> beside{};         ///< measured points with what each model says there
  std::vector<std::string> working{};           ///< how the numbers came about, line by line
  Notices notices{};                            ///< what the reader must know

  /// The mixture with its models.
  const Mixture& mixture() const { return contenders.front().mixture; }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for a composition or a held value that is none, too many states, or a mixture that
/// cannot be made; CalculationError where a point cannot be found
PointsStudy study(const BubbleRequest& request);
PointsStudy study(const DewRequest& request);

}  // namespace jampot
