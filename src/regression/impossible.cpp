#include "impossible.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/binary_split.hpp"

namespace jampot {
namespace {

struct Reach {
  double cold = HUGE_VAL, hot = 0;
};

// Of the points between two compositions: whether they boil at one temperature (or pressure), as two liquids
// do.
bool boil_alike(const std::vector<DataSet>& sets, double low, double high, int& inside) {
  inside = 0;
  bool alike = true;
  for (const DataSet& set : sets) {
    if (!vapour_liquid(set.kind)) continue;
    double least = HUGE_VAL, most = 0, u = 0;
    for (const DataPoint& point : set.points) {
      if (!point.used() || point.x[0] <= low || point.x[0] >= high) continue;
      const double seen = isobaric(set.kind) ? point.T_K : point.P_Pa;
      least = std::min(least, seen);
      most = std::max(most, seen);
      u = std::max(u, isobaric(set.kind) ? point.u_T_K : point.u_P_Pa);
      ++inside;
    }
    constexpr double beyond = 4;  // uncertainties
    if (most - least > beyond * u && most > 0) alike = false;
  }
  return alike;
}

}  // namespace

std::string impossible(ActivityModel& model, const std::vector<DataSet>& sets) {
  if (model.size() != 2) return {};
  Reach reach;
  bool boiling = false;
  for (const DataSet& set : sets) {
    if (family_of(set.kind) == DataFamily::two_liquids) return {};
    boiling = boiling || vapour_liquid(set.kind);
    for (const DataPoint& point : set.points) {
      if (!point.used()) continue;
      reach.cold = std::min(reach.cold, point.T_K);
      reach.hot = std::max(reach.hot, point.T_K);
    }
  }
  if (!boiling) return {};
  const std::string& first = sets.front().substances[0].name;
  const std::string& second = sets.front().substances[1].name;
  std::array<double, 2> ln_gamma{};
  for (const std::size_t i : {0u, 1u}) {
    model.set_temperature((reach.cold + reach.hot) / 2);
    model.evaluate(std::array{i == 0 ? 0.0 : 1.0, i == 0 ? 1.0 : 0.0}, ln_gamma);
    constexpr double extreme = 9.2;  // gamma of ten thousand
    if (std::abs(ln_gamma[i]) > extreme)
      return fmt::format("a limiting activity coefficient of {:.2g} of {} in {}", std::exp(ln_gamma[i]),
                         i == 0 ? first : second, i == 0 ? second : first);
  }
  for (const double T_K : {reach.cold, reach.hot}) {
    for (const BinarySplit& split : binary_splits(model, T_K)) {
      const auto [low, high] = std::minmax(split.x1_alpha, split.x1_beta);
      int inside = 0;
      const bool alike = boil_alike(sets, low, high, inside);
      if (inside > 1 && alike) continue;  // a heterogeneous azeotrope was measured
      return fmt::format("two liquids between x({}) = {:.4f} and {:.4f} at {:.1f} degC, where {}", first, low,
                         high, T_K - celsius_zero,
                         inside > 1 ? "the points are those of one liquid" : "nobody measured two");
    }
  }
  return {};
}

}  // namespace jampot
