#pragma once
// The root mean square of deviations, one after the other.
#include <cmath>
#include <optional>

namespace jampot {

class MeanSquare {
 public:
  void add(double value) { sum_ += value * value, ++count_; }
  std::optional<double> root() const {
    return count_ == 0 ? std::nullopt : std::optional(std::sqrt(sum_ / count_));
  }

 private:
  double sum_ = 0;
  int count_ = 0;
};

}  // namespace jampot
