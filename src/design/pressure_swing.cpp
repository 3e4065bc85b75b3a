#include "jampot/design/pressure_swing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

SwingBalance swing_balance(const SwingTask& task) {
  const auto inside = [](double x) { return x > 0 && x < 1; };
  if (!inside(task.feed) || !inside(task.azeotropes[0]) || !inside(task.azeotropes[1]) ||
      !(task.purity > 0.5 && task.purity < 1) || !(task.distance > 0 && task.distance < 0.5))
    throw RequestError(
        "feed, azeotropes and purity are mole fractions between 0 and 1, the distance is positive");
  const double low = std::min(task.azeotropes[0], task.azeotropes[1]),
               high = std::max(task.azeotropes[0], task.azeotropes[1]);
  // Below the upper azeotrope a column at its pressure makes the second substance, above the lower one a
  // column at that pressure makes the first: a mixture between both can go either way.
  const double near_low = low + task.distance, near_high = high - task.distance;
  if (!(near_high > near_low))
    throw CalculationError(
        fmt::format("the azeotrope moves from {:.4f} to {:.4f} only: with columns that come within {:.3g} of "
                    "it nothing is gained. "
                    "Pressures further apart may help",
                    task.azeotropes[0], task.azeotropes[1], task.distance));
  const double x_first = task.purity, x_second = 1 - task.purity;
  if (!(task.feed > x_second && task.feed < x_first))
    throw CalculationError("the feed is purer than the product asked for");
  const int upper = task.azeotropes[0] > task.azeotropes[1] ? 0 : 1;
  // The fresh feed goes where it lies inside the range of the column.
  const bool second_first = task.feed < near_high;  // the column that makes the second substance takes it
  SwingBalance balance;
  SwingColumn &one = balance.columns[0], &other = balance.columns[1];
  SwingColumn makes_second{upper}, makes_first{1 - upper};
  const double first = (task.feed - x_second) / (x_first - x_second);
  makes_second.product = 1 - first;
  makes_second.x_product = x_second;
  makes_second.x_passed = near_high;
  makes_first.product = first;
  makes_first.x_product = x_first;
  makes_first.x_passed = near_low;
  one = second_first ? makes_second : makes_first;
  other = second_first ? makes_first : makes_second;
  // The second column: in = product + back.
  other.passed = other.product * (other.x_product - one.x_passed) / (one.x_passed - other.x_passed);
  other.in = other.passed + other.product;
  other.z = one.x_passed;
  one.passed = other.in;
  one.in = 1 + other.passed;
  one.z = (task.feed + other.passed * other.x_passed) / one.in;
  balance.recycle = other.passed;
  return balance;
}

}  // namespace jampot
