#pragma once
// Pairs of NRTL for tests.
#include <vector>

#include "jampot/liquid/pair_parameters.hpp"

namespace jampot::test {

/// A pair for every two of n substances, whose terms `fill` sets.
template <class Fill>
std::vector<PairParameters> nrtl_pairs(std::size_t n, const Fill& fill) {
  std::vector<PairParameters> pairs;
  for (std::size_t k = 0; k < n * (n - 1) / 2; ++k) {
    PairParameters pair;
    pair.model = "nrtl";
    fill(pair);
    pairs.push_back(std::move(pair));
  }
  return pairs;
}

}  // namespace jampot::test
