#pragma once
// Measured data read in another way than they are stated, each after a mistake that people make.
#include <functional>
#include <string>
#include <vector>

#include "jampot/measured/data_set.hpp"

namespace jampot {

struct Reading {
  std::string cause;  ///< what has then gone wrong
  /// False: the point cannot be read so.
  std::function<bool(DataPoint&)> apply;
  /// Liquids and vapours keep their places and units: a mistake that may leave the data plausible.
  bool of_fractions = false;
};

std::vector<Reading> readings(const std::vector<Substance>& substances);

}  // namespace jampot
