#pragma once
// Points spread evenly over the unit cube.
#include <cstddef>
#include <memory>

namespace jampot {

/// The coordinates of the points of Sobol's sequence, one after the other: `dimensions` calls make a point.
class SobolSequence {
 public:
  explicit SobolSequence(std::size_t dimensions);
  ~SobolSequence();
  SobolSequence(SobolSequence&&) noexcept;
  SobolSequence& operator=(SobolSequence&&) noexcept;
  double next();

 private:
  struct Generator;
  std::unique_ptr<Generator> generator_;
};

}  // namespace jampot
