#pragma once
// Two columns at two pressures around an azeotrope that moves between them.
#include <array>

namespace jampot {

/// What is to be made, in mole fractions of the first substance.
struct SwingTask {
  double feed = 0.5;                   ///< mole fraction of the feed
  std::array<double, 2> azeotropes{};  ///< at the first and at the second pressure
  bool maximum = false;                ///< true where the azeotrope boils highest
  double purity = 0.99;                ///< mole fraction of each product in itself
  double distance = 0.01;              ///< how near the azeotropes a column comes
};

/// One of the two columns, per mole of fresh feed.
struct SwingColumn {
  int pressure = 0;      ///< number of its pressure
  double in = 0,         ///< moles that enter it
      z = 0;             ///< mole fraction of the first substance in them
  double product = 0;    ///< moles of pure product
  double x_product = 0;  ///< mole fraction of the first substance in it
  double passed = 0;     ///< moles near the azeotrope, to the other column
  double x_passed = 0;   ///< mole fraction of the first substance in them
};

/// Both columns: the first one takes the fresh feed and what the second sends back.
struct SwingBalance {
  std::array<SwingColumn, 2> columns{};  ///< in the order of the flow
  double recycle = 0;                    ///< moles sent back per mole of feed
};

/// The balances: the fresh feed goes to the column whose azeotrope lets it make a product, and both products
/// leave at the side of the columns away from the azeotropes.
/// @throws RequestError for fractions outside 0 to 1; CalculationError where the azeotrope does not move
/// enough for the distances asked for, or no product can be made from the feed
SwingBalance swing_balance(const SwingTask& task);

}  // namespace jampot
