#include "pure_pressures.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

std::vector<double> own_factors(const std::vector<DataSet>& sets) {
  const std::vector<Substance>& substances = sets.front().substances;
  std::vector<double> sum(substances.size()), factors(substances.size(), 1.0);
  std::vector<int> count(substances.size());
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind)) continue;
    for (const DataPoint& point : set.points) {
      if (!point.used() || !point.is_pure()) continue;
      const auto i =
          static_cast<std::size_t>(std::find(point.x.begin(), point.x.end(), 1.0) - point.x.begin());
      if (!substances[i].vapour_pressure) continue;
      sum[i] += std::log(point.P_Pa) - substances[i].vapour_pressure->ln_P(point.T_K);
      ++count[i];
    }
  }
  if (std::all_of(count.begin(), count.end(), [](int points) { return points == 0; }))
    throw RequestError(
        "no file holds the boiling point of a pure substance, so the data have no vapour pressures of their "
        "own; `pure` "
        "fit makes them parameters");
  for (std::size_t i = 0; i < factors.size(); ++i) {
    if (count[i] > 0) factors[i] = std::exp(sum[i] / count[i]);
  }
  return factors;
}

std::vector<Substance> with_factors(std::vector<Substance> substances, const std::vector<double>& factors) {
  for (std::size_t i = 0; i < substances.size(); ++i) {
    if (substances[i].vapour_pressure && factors[i] != 1)
      substances[i].vapour_pressure = substances[i].vapour_pressure->scaled(factors[i]);
  }
  return substances;
}

}  // namespace jampot
