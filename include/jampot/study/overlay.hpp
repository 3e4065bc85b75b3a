#pragma once
// Measured sets beside the models of a study.
#include <cstddef>
#include <string>
#include <vector>

#include "jampot/diagram/comparison.hpp"
#include "jampot/diagram/liquid_comparison.hpp"

namespace jampot {

/// One measured set of boiling liquids beside one of the models.
struct MeasuredBeside {
  std::string set{};          ///< its name
  std::size_t contender = 0;  ///< number of the model
  Comparison comparison{};    ///< with the model
};

/// One measured set of two liquids beside one of the models.
struct LiquidsBeside {
  std::string set{};              ///< name of the set
  std::size_t contender = 0;      ///< number of the model that answers
  LiquidComparison comparison{};  ///< with the model
};

}  // namespace jampot
