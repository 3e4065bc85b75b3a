#pragma once
// Whether two pressures part what one azeotrope holds together.
#include <optional>
#include <string>
#include <vector>

#include "jampot/design/binary_column.hpp"
#include "jampot/design/pressure_swing.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a pair of columns is asked for.
struct SwingRequest {
  MixtureSpec mixture{};                        ///< of two substances
  Feed feed{};                                  ///< what comes in
  std::array<double, 2> P_Pa{101325, 1013250};  ///< pressures of the columns, Pa
  double purity = 0.99;                         ///< mole fraction of each product
  double distance = 0.01;                       ///< how near the azeotropes the columns come
  double reflux_factor = 1.3;                   ///< times the least reflux of each column
};

/// One of the columns.
struct SwingColumnFound {
  double P_Pa = 0;                         ///< pressure, Pa
  SwingColumn flows{};                     ///< per mole of fresh feed
  ColumnStages stages{};                   ///< at the reflux asked for, with constant molar overflow
  double least_reflux = 0;                 ///< reflux over distillate
  std::optional<double> reboiler_J_mol{},  ///< heat per mole of fresh feed
      condenser_J_mol{};                   ///< heat per mole of fresh feed
  double T_top_K = 0,                      ///< boiling point of the distillate, K
      T_bottom_K = 0;                      ///< boiling point of the bottom product, K
};

/// Both columns, and what decides whether they work.
struct SwingStudy {
  std::vector<Contender> contenders{};      ///< the model that answers
  std::array<BinaryCurve, 2> curves{};      ///< at the two pressures
  std::array<double, 2> P_Pa{};             ///< pressures, Pa
  Feed feed{};                              ///< what comes in
  SwingTask task{};                         ///< with the azeotropes that were found
  SwingBalance balance{};                   ///< per mole of feed
  std::vector<SwingColumnFound> columns{};  ///< in the order of the flow
  /// Condenser of the column at the higher pressure minus reboiler of the other, K: above zero the one can
  /// heat the other.
  double heat_gap_K = 0;
  std::string verdict{};  ///< whether it works, in a sentence
  Notices notices{};      ///< what the reader must know

  /// The mixture.
  const Mixture& mixture() const { return contenders.front().mixture; }
  /// In the order of the components.
  const std::vector<Substance>& substances() const { return mixture().substances(); }
};

/// @throws RequestError for another number of substances or two equal pressures; CalculationError where there
/// is no azeotrope to go around, or where it does not move enough
SwingStudy study(const SwingRequest& request);

}  // namespace jampot
