#pragma once
// How many stages a column for two substances needs.
#include <optional>
#include <string>
#include <vector>

#include "jampot/design/binary_column.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a column is asked for. Compositions are mole fractions in the order of the substances.
struct StagesRequest {
  MixtureSpec mixture{};             ///< of two substances
  Feed feed{};                       ///< what comes in
  std::array<double, 2> top{},       ///< composition of the distillate
      bottom{};                      ///< composition of the bottom product
  double P_Pa = 101325;              ///< pressure, Pa
  double feed_liquid = 1;            ///< liquid fraction of the feed, where `feed_T_K` is not given
  std::optional<double> feed_T_K{};  ///< temperature of a liquid feed, K
  std::optional<double> reflux{};    ///< reflux over distillate
  double reflux_factor = 1.3;        ///< times the least, where `reflux` is not given
  double efficiency = 1;             ///< Murphree's, of the vapour
  bool simple = false;               ///< also boiled away from a still without a column
};

/// A column with all that was found.
struct StagesStudy {
  std::vector<Contender> contenders{};         ///< the model that answers
  BinaryCurve curve{};                         ///< the equilibrium
  double P_Pa = 0;                             ///< pressure, Pa
  Feed feed{};                                 ///< what comes in
  std::size_t light = 0;                       ///< number of the substance that is enriched at the top
  ColumnTask task{};                           ///< in mole fractions of that substance
  double distillate = 0;                       ///< moles of distillate per mole of feed
  MinimumReflux least{};                       ///< with constant molar overflow
  ColumnStages total{};                        ///< at total reflux
  ColumnStages stages{};                       ///< at the reflux asked for, with constant molar overflow
  std::optional<ExactStages> exact{};          ///< with enthalpies
  std::string no_exact{};                      ///< where there is none: why
  std::optional<SimpleDistillation> simple{};  ///< where it was asked for
  std::array<double, 2> volatility{};  ///< smallest and largest relative volatility between the products
  Notices notices{};                   ///< what the reader must know

  /// The mixture.
  const Mixture& mixture() const { return contenders.front().mixture; }
  /// In the order of the components.
  const std::vector<Substance>& substances() const { return mixture().substances(); }
};

/// @throws RequestError for another number of substances, products that are alike, a feed that does not lie
/// between them; CalculationError where an azeotrope is in the way or the reflux is not enough
StagesStudy study(const StagesRequest& request);

}  // namespace jampot
